package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * Fuel under pressure: feed pump, high-pressure pump with its metering valve, rail, sensor and the
 * controller between them. The rail is a volume: dp/dt = K/V·(in − out); what the pump can give
 * rises with speed. Pressures in MPa inside.
 */
public final class InjectionRail implements Part {
    /** Bulk modulus of the fuel over the rail's volume, MPa per gram. */
    private static final double STIFFNESS = 90;

    private static final double FEED_KPA = 420;
    private static final int FEED_OUTPUT = 0x3003;
    private static final double FEED_AMPS = 6.2;
    private static final double PROPORTIONAL = 1.1;
    private static final double INTEGRAL = 3.0;

    /** What is lost past injectors and pump, grams a second for each MPa. */
    private static final double LEAK = 0.004;

    /** The module learns how far the pump is from its map over so many seconds. */
    private static final double LEARNS_SECONDS = 20;

    /** It learns only while the pressure is within this share of its target. */
    private static final double STEADY = 0.05;

    private static final double LEAST_LEARNED = -30;
    private static final double MOST_LEARNED = 60;

    /** Pumps as they come differ by so much, percent. */
    private static final double PUMPS_DIFFER = 4;

    /** Opening for the fuel of a full-load stroke at the highest pressure. */
    private static final double FULL_STROKE_MS = 1.7;

    private final EngineSpec spec;
    private final Random random;
    private double pumpGives = 1;
    private double target;
    private double pressure = 0.1;
    private double duty;
    private double integral;
    private final Taken feedPump = new Taken();
    private double feedDuty;
    private double feedAmps;
    private double feed;
    private boolean stands;
    private double fuel;
    private double celsius = 20;
    private double opening;
    private double used;
    private final double ownOffset;
    private double learned;

    public InjectionRail(EngineSpec spec, long seed) {
        this.spec = spec;
        this.random = new Random(seed);
        this.ownOffset = PUMPS_DIFFER * new Random(~seed).nextGaussian();
    }

    /**
     * Wears the pump.
     *
     * @param share of the flow of a new one that it still gives
     */
    public synchronized InjectionRail worn(double share) {
        // a new pump is told to the module
        learned = share < 1 ? learned : 0;
        pumpGives = share;
        return this;
    }

    /** Fuel per engine speed and torque, g/s: brake-specific consumption and friction. */
    static double burnt(EngineSpec spec, double rpm, double load) {
        double watts = (spec.mostTorque() * load + spec.friction(rpm)) * rpm * 2 * Math.PI / 60;
        return watts / 43_000 / (spec.diesel() ? 0.42 : 0.35);
    }

    @Override
    public synchronized void step(Whole whole, double dt) {
        double rpm = whole.rpm();
        double[] span = spec.injectionMpa();
        boolean turning = rpm > 60;
        stands = rpm < 1;
        feedDuty = whole.driver().key() == 2 ? feedPump.or(100) : 0;
        feed += (FEED_KPA * feedDuty / 100 - feed) * Math.min(1, dt / 0.3);
        // a pump works against its pressure: the more it has built up, the more it draws
        double wanted = feedDuty == 0 ? 0 : FEED_AMPS * (0.25 + 0.75 * feed / FEED_KPA);
        feedAmps += (wanted * whole.volts() / 12.5 - feedAmps) * Math.min(1, dt / 0.08);
        target =
                whole.driver().key() == 2 && turning
                        ? span[0]
                                + (span[1] - span[0])
                                        * Math.min(1, 0.75 * whole.load() + 0.25 * rpm / 4000)
                        : 0;
        fuel = whole.running() ? burnt(spec, rpm, whole.load()) : 0;
        double most = burnt(spec, 4000, 1) * 1.5 * turned(rpm) * pumpGives * feed / FEED_KPA;
        double error = target - pressure;
        if (turning) {
            double open = 100 * fuel / Math.max(1e-6, most / pumpGives);
            double asked = open + PROPORTIONAL * error * 100 / span[1] + integral;
            boolean atEnd = asked > 95 && error > 0 || asked < 2 && error < 0;
            integral += atEnd ? 0 : INTEGRAL * error * 100 / span[1] * dt;
            integral = Math.max(-60, Math.min(95, integral));
            duty = Math.max(2, Math.min(95, asked));
        } else {
            integral = 0;
            duty = 0;
        }
        double in = turning ? most * duty / 100 : 0;
        double out = fuel + LEAK * pressure;
        learn(rpm, error, dt);
        pressure = Math.max(0.1, pressure + STIFFNESS * (in - out) * dt);
        celsius +=
                ((turning ? 38 + 12 * pressure / span[1] : 18) - celsius) * Math.min(1, dt / 400);
        double strokes = Math.max(1, rpm / 120 * spec.cylinders());
        used = 1000 * fuel / strokes;
        double fullStroke = 1000 * burnt(spec, 2000, 1) / (2000.0 / 120 * spec.cylinders());
        // flow through the nozzle goes with the root of the pressure
        double root = Math.sqrt(Math.max(0.5, pressure) / span[1]);
        opening = whole.running() ? FULL_STROKE_MS * used / fullStroke / root : 0;
    }

    /** How far the pump is opened beyond what a new one needs, percent. */
    private void learn(double rpm, double error, double dt) {
        if (rpm < 500 || Math.abs(error) > STEADY * target) {
            return;
        }
        double needs = 100 * (fuel + LEAK * pressure) / (burnt(spec, 4000, 1) * 1.5 * turned(rpm));
        double beyond = 100 * (duty / needs - 1);
        double wanted = Math.max(LEAST_LEARNED, Math.min(MOST_LEARNED, beyond));
        learned += (wanted - learned) * Math.min(1, dt / LEARNS_SECONDS);
    }

    /** Share of its flow at 4000 rpm that a pump gives at another speed. */
    private static double turned(double rpm) {
        return 0.12 + 0.88 * rpm / 4000;
    }

    @Override
    public List<Outlet> outlets() {
        return List.of(feedPump.outlet("engine", FEED_OUTPUT, () -> feedDuty, () -> stands));
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        s.put("rail.target", () -> target);
        s.put("rail.pressure", () -> 1000 * pressure + 40 * random.nextGaussian());
        s.put("rail.share", () -> target > 0 ? 100 * pressure / target : 100);
        s.put("rail.duty", () -> duty);
        s.put("rail.learned", () -> learned + ownOffset);
        s.put("feed.pressure", () -> feed + 2 * random.nextGaussian());
        s.put("feed.duty", () -> feedDuty);
        s.put("feed.current", () -> Math.max(0, feedAmps + 0.03 * random.nextGaussian()));
        s.put("fuel.temperature", () -> celsius);
        s.put("fuel.rate", () -> fuel * 3600 / (spec.diesel() ? 835 : 745));
        s.put("fuel.stroke", () -> used);
        s.put("injector.time", () -> opening);
        return s;
    }

    @Override
    public void fail(String mode, String of, double size) {
        if (mode.equals("worn")) {
            worn(size);
        } else {
            Part.super.fail(mode, of, size);
        }
    }
}
