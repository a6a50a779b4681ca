package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * Tank and canister with the pump of their leak test. Gas in the tank as V/p₀·dp/dt = flows; the
 * pump's flow falls in a straight line with vacuum, holes pass A·Cd·√(2Δp/ρ), warm fuel gives off
 * vapour. The test draws through a reference orifice first, then on the system, opens the purge
 * valve, and goes back.
 */
public final class TankSystem implements Part {
    private static final double AMBIENT_KPA = 101.3;
    private static final double AIR_DENSITY = 1.19;
    private static final double DISCHARGE = 0.62;
    private static final double PURGE_MM = 2.2;
    private static final double VENT_MM = 9;

    /** Between pump and changeover valve there is next to no volume. */
    private static final double ORIFICE_SECONDS = 0.6;

    /** Below this the flow through a hole is laminar: proportional to the pressure. */
    private static final double LAMINAR_KPA = 0.0005;

    private static final double STEP_KPA = 1e-5;

    private static final double NOISE_KPA = 0.002;

    /** The module ends a phase when pressure moves by less than this, kPa/s. */
    private static final double AT_REST = 0.0025;

    private static final double MOST_SYSTEM_SECONDS = 170;

    /**
     * What a tank system is like.
     *
     * @param litres of gas above the fuel
     * @param pumpFlow at no vacuum, cm³/s
     * @param pumpMost vacuum at which it draws nothing, kPa
     * @param referenceMm orifice
     * @param holeMm leak of the system; purgeHoleMm of the purge valve when shut
     * @param vapour from warm fuel, cm³/s
     * @param offset of the sensor, kPa
     */
    public record Make(
            double litres,
            double pumpFlow,
            double pumpMost,
            double referenceMm,
            double holeMm,
            double purgeHoleMm,
            boolean purgeStuckShut,
            boolean ventStuckOpen,
            double vapour,
            double offset) {
        /** As built, with some scatter. */
        public static Make healthy(Random random) {
            return new Make(
                    16 + 8 * random.nextDouble(),
                    12.6 * (1 + 0.03 * random.nextGaussian()),
                    5,
                    0.5,
                    0.12 * random.nextDouble(),
                    0,
                    false,
                    false,
                    0.05 * random.nextDouble(),
                    0.02 * random.nextGaussian());
        }

        public Make purgeHole(double mm) {
            return new Make(
                    litres,
                    pumpFlow,
                    pumpMost,
                    referenceMm,
                    holeMm,
                    mm,
                    purgeStuckShut,
                    ventStuckOpen,
                    vapour,
                    offset);
        }
    }

    private final Random random;
    private final String module;
    private Make make;
    private double vacuum;
    private double orifice;
    private double noise;
    private boolean pump;
    private boolean closed;
    private boolean purge;
    private final Taken pumpByHand = new Taken();
    private final Taken ventByHand = new Taken();
    private final Taken purgeByHand = new Taken();
    private boolean pinched;
    private boolean engineOff = true;
    private int phase;
    private double since;
    private double slope;
    private int state;

    /**
     * @param module id of the module that runs the test
     */
    public TankSystem(Make make, String module, long seed) {
        this.make = make;
        this.module = module;
        this.random = new Random(seed);
    }

    @Override
    public synchronized void step(Whole whole, double dt) {
        engineOff = whole.rpm() < 1;
        if (phase > 0 && (!engineOff || whole.driver().key() != 2)) {
            phase = 0;
            state = 3;
        }
        advance(dt);
    }

    /** Time passes; seconds. */
    public synchronized void advance(double dt) {
        since += dt;
        test();
        boolean drawing = told(pumpByHand, pump) > 0;
        boolean shut = told(ventByHand, closed) > 0;
        boolean open = told(purgeByHand, purge) > 0;
        double left = dt;
        double before = reading(drawing, shut);
        while (left > 1e-9) {
            double h = Math.min(0.02, left);
            left -= h;
            // an open vent makes this stiff: one step of an implicit method (Rosenbrock)
            double rate = rate(vacuum, drawing, shut, open);
            double steep = (rate(vacuum + STEP_KPA, drawing, shut, open) - rate) / STEP_KPA;
            vacuum += h * rate / (1 - h * Math.min(0, steep));
            vacuum = vacuum > -0.5 ? vacuum : -0.5;
            double settled = drawing && !shut ? through(make.referenceMm()) : 0;
            orifice += (settled - orifice) * Math.min(1, h / ORIFICE_SECONDS);
        }
        slope += ((reading(drawing, shut) - before) / dt - slope) * Math.min(1, dt / 2);
        noise = NOISE_KPA * random.nextGaussian();
    }

    /** Change of the vacuum, kPa/s, at a vacuum in kPa. */
    private double rate(double at, boolean drawing, boolean shut, boolean open) {
        double in = hole(make.holeMm(), at) + make.vapour();
        if (!pinched) {
            boolean opens = open && !make.purgeStuckShut();
            in += hole(opens ? Math.max(PURGE_MM, make.purgeHoleMm()) : make.purgeHoleMm(), at);
        }
        in += !shut || make.ventStuckOpen() ? hole(VENT_MM, at) : 0;
        double out = shut && drawing ? pumpFlow(at) : 0;
        // cm³/s into litres, times ambient
        return (out - in) / (make.litres() * 1000) * AMBIENT_KPA;
    }

    /** The sensor sits between pump and changeover valve. */
    private double reading(boolean drawing, boolean shut) {
        return shut ? vacuum : drawing ? orifice : 0;
    }

    private double pumpFlow(double kPa) {
        return Math.max(0, make.pumpFlow() * (1 - kPa / make.pumpMost()));
    }

    /** Flow through a hole, cm³/s. */
    private static double hole(double mm, double kPa) {
        double area = Math.PI / 4 * mm * mm * 1e-6;
        double across = Math.max(LAMINAR_KPA, Math.abs(kPa));
        double turbulent = DISCHARGE * area * Math.sqrt(2 * across * 1000 / AIR_DENSITY) * 1e6;
        return turbulent * kPa / across;
    }

    /** Vacuum at which pump and orifice pass the same. */
    private double through(double mm) {
        double low = 0;
        double high = make.pumpMost();
        for (int i = 0; i < 40; i++) {
            double mid = (low + high) / 2;
            if (pumpFlow(mid) > hole(mm, mid)) {
                low = mid;
            } else {
                high = mid;
            }
        }
        return low;
    }

    private void test() {
        if (phase == 0) {
            pump = false;
            closed = false;
            purge = false;
            return;
        }
        boolean over =
                switch (phase) {
                    case 1, 6 -> since > 6;
                    case 2, 5 -> since > 10;
                    case 3 ->
                            since > MOST_SYSTEM_SECONDS
                                    || since > 30 && Math.abs(slope) < AT_REST
                                    || since > 8 && vacuum > through(make.referenceMm()) * 1.12;
                    default -> since > 12;
                };
        if (over) {
            since = 0;
            phase = phase == 6 ? 0 : phase + 1;
            state = phase == 0 ? 2 : state;
        }
        pump = phase >= 2 && phase <= 5;
        closed = phase == 3 || phase == 4;
        purge = phase == 4;
    }

    /** Begins a test; false when it may not. */
    public synchronized boolean begin() {
        if (!engineOff) {
            return false;
        }
        phase = 1;
        since = 0;
        slope = 1;
        state = 1;
        return true;
    }

    public synchronized boolean testing() {
        return phase > 0;
    }

    /** Pressure as the sensor tells it, kPa against ambient. */
    public synchronized double pressure() {
        return make.offset()
                + noise
                - reading(told(pumpByHand, pump) > 0, told(ventByHand, closed) > 0);
    }

    private synchronized double told(Taken byHand, boolean now) {
        return byHand.or(now ? 100 : 0) > 50 ? 1 : 0;
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        s.put("leak.pressure", this::pressure);
        s.put("leak.pump", () -> told(pumpByHand, pump));
        s.put("leak.vent", () -> told(ventByHand, closed));
        s.put("leak.purge", () -> told(purgeByHand, purge));
        return s;
    }

    @Override
    public List<Outlet> outlets() {
        return List.of(
                outlet(0x3201, pumpByHand, () -> told(pumpByHand, pump)),
                outlet(0x3202, ventByHand, () -> told(ventByHand, closed)),
                outlet(0x3203, purgeByHand, () -> told(purgeByHand, purge)));
    }

    private Outlet outlet(int did, Taken taken, DoubleSupplier told) {
        return taken.outlet(module, did, () -> 100 * told.getAsDouble(), () -> engineOff);
    }

    @Override
    public Map<Integer, Doing> doings() {
        return Map.of(
                0x0301,
                new Doing() {
                    @Override
                    public String module() {
                        return module;
                    }

                    @Override
                    public int start() {
                        return begin() ? 0 : 0x22;
                    }

                    @Override
                    public void stop() {
                        synchronized (TankSystem.this) {
                            state = phase > 0 ? 3 : state;
                            phase = 0;
                        }
                    }

                    @Override
                    public int[] result() {
                        return new int[] {state};
                    }
                });
    }

    @Override
    public Map<String, String> acts() {
        return Map.of(
                "pinch-purge", "Pinch the purge hose", "free-purge", "Let go of the purge hose");
    }

    @Override
    public synchronized String act(String id) {
        if (id.endsWith("-purge")) {
            pinched = id.startsWith("pinch");
        }
        return "";
    }

    @Override
    public synchronized void fail(String mode, String of, double size) {
        if (mode.equals("purge-leak")) {
            make = make.purgeHole(size);
        } else {
            Part.super.fail(mode, of, size);
        }
    }
}
