package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * Air on its way into the engine: pedal, throttle, compressor with its wastegate, intercooler.
 * Pressures in kPa; the charger follows its target with first-order lag, held back by what turbine
 * power there is.
 */
public final class AirPath implements Part {
    private static final double AMBIENT_KPA = 101.3;
    private static final double AMBIENT_CELSIUS = 14;
    private static final double CHARGER_SECONDS = 0.6;
    private static final int FLAP_OUTPUT = 0x3005;

    /** So far the flap may be opened beyond its map at idle, percent. */
    private static final double MOST_LEARNED = 8;

    private static final double LEARNS_SECONDS = 15;
    private static final double FLAPS_DIFFER = 0.5;

    private final EngineSpec spec;
    private final Random random;
    private double pedal;
    private double throttleTarget;
    private double throttle;
    private double target = AMBIENT_KPA;
    private double boost = AMBIENT_KPA;
    private double gate;
    private double charged = AMBIENT_CELSIUS;
    private double filterDrop;
    private double bay = AMBIENT_CELSIUS;
    private double charger;
    private final Taken flap = new Taken();
    private boolean stands;
    private double dirt;
    private double learned;
    private final double ownOffset;

    public AirPath(EngineSpec spec, long seed) {
        this.spec = spec;
        this.random = new Random(seed);
        this.ownOffset = FLAPS_DIFFER * new Random(~seed).nextGaussian();
    }

    @Override
    public synchronized void step(Whole w, double dt) {
        double load = w.load();
        pedal = w.running() ? Math.max(0, Math.min(100, 100 * (load - 0.02) / 0.9)) : 0;
        stands = w.rpm() < 1;
        throttleTarget =
                w.driver().key() != 2
                        ? 5
                        : flap.or(
                                spec.diesel()
                                        ? (w.running() && load < 0.06 ? 30 : 5)
                                        : 4 + 88 * load + learned);
        if (w.running() && load < 0.06) {
            // dirt beside the flap is air that is missing at idle
            double wanted = Math.min(MOST_LEARNED, dirt);
            learned += (wanted - learned) * Math.min(1, dt / LEARNS_SECONDS);
        }
        throttle += (throttleTarget - throttle) * Math.min(1, dt / 0.08);
        double shape = Math.max(0, Math.min(1, (w.rpm() - 1000) / 900));
        target = AMBIENT_KPA + (w.running() ? spec.boostKpa() * shape * load : 0);
        double can = AMBIENT_KPA + spec.boostKpa() * 1.15 * shape * Math.sqrt(Math.max(0, load));
        double wanted = w.running() ? Math.min(target, can) : AMBIENT_KPA;
        boost += (wanted - boost) * Math.min(1, dt / CHARGER_SECONDS);
        gate =
                spec.boostKpa() == 0 || !w.running()
                        ? 0
                        : Math.max(0, Math.min(100, 100 * (boost - AMBIENT_KPA) / spec.boostKpa()));
        charger +=
                ((w.running() ? 20 + 150 * Math.sqrt(Math.max(0, boost - AMBIENT_KPA) / 130) : 0)
                                - charger)
                        * Math.min(1, dt / CHARGER_SECONDS);
        bay +=
                (AMBIENT_CELSIUS + (w.running() ? 14 : 0.15 * (w.coolant() - 14)) - bay)
                        * Math.min(1, dt / 120);
        // isentropic compression at 70 % efficiency, then an intercooler that takes 70 % of it away
        double hot = (bay + 273) * (1 + (Math.pow(boost / AMBIENT_KPA, 0.286) - 1) / 0.7) - 273;
        charged += (bay + 0.3 * (hot - bay) - charged) * Math.min(1, dt / 8);
        double flow = spec.litres() * w.rpm() / 4000 * boost / AMBIENT_KPA;
        filterDrop = 1.6 * flow * flow / Math.max(0.5, spec.litres());
    }

    @Override
    public List<Outlet> outlets() {
        return List.of(flap.outlet("engine", FLAP_OUTPUT, () -> throttle, () -> stands));
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        s.put("pedal", () -> pedal);
        s.put("throttle.target", () -> throttleTarget);
        s.put("throttle.actual", () -> Math.max(0, throttle + 0.1 * random.nextGaussian()));
        s.put("throttle.learned", () -> learned + ownOffset);
        s.put("idle.short", () -> Math.max(0, dirt - learned));
        s.put("boost.target", () -> target);
        s.put("boost.actual", () -> boost + 0.2 * random.nextGaussian());
        s.put("wastegate.duty", () -> gate);
        s.put("charger.speed", () -> charger);
        s.put("ambient.pressure", () -> AMBIENT_KPA - 0.2 + 0.05 * random.nextGaussian());
        s.put("intake.air", () -> bay);
        s.put("charge.air", () -> charged);
        s.put("filter.drop", () -> filterDrop);
        return s;
    }

    /** {@code dirt} beside the flap: opening that is missing at idle, percent. */
    @Override
    public synchronized void fail(String mode, String of, double size) {
        if (mode.equals("dirt")) {
            dirt = size;
            // a flap that was cleaned is learned anew
            learned = size > 0 ? learned : 0;
        } else {
            Part.super.fail(mode, of, size);
        }
    }
}
