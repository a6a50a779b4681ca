package brightlantern.core.capture;

import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.cylinder.SignalWheel;
import brightlantern.core.network.Bus;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;

/**
 * What a capture of a plan looks like where nothing is wrong, computed from what is described: the
 * order of firing, compression, wheels, the pace of a bus. Sizes are typical ones; what counts is
 * what lies where, and that all cylinders are alike.
 */
public final class ExpectedCapture {
    private static final int SAMPLES = 2400;
    private static final double CYCLES = 2;
    private static final double CRANKING_RPM = 250;
    private static final double IDLE_RPM = 800;
    private static final double AMBIENT_KPA = 101.3;

    /** Of gas that is compressed without much time to cool (polytropic). */
    private static final double POLYTROPIC = 1.3;

    /** A healthy cranking: mean current, A, and how much of it swings with the compressions. */
    private static final double AMPS = 180;

    private static final double SWINGS = 0.3;

    /** Cables of a starter, ohms, and a battery. */
    private static final double PLUS_OHM = 0.001;

    private static final double EARTH_OHM = 0.0007;
    private static final double BATTERY_OHM = 0.011;
    private static final double REST_VOLTS = 12.6;

    /** A coil is charged, an injector is open, and a spark burns for so long, s. */
    private static final double DWELL = 0.003;

    private static final double OPEN = 0.0025;
    private static final double BURNS = 0.0012;

    /** An alternator's phase at idle, Hz. */
    private static final double PHASE_HERTZ = 220;

    private static final double CHARGING_VOLTS = 14.1;
    private static final double RIPPLE_VOLTS = 0.1;
    private static final int BUS_BITS = 120;

    private final CapturePlan plan;
    private final Optional<Cylinders> cylinders;
    private final Optional<Bus> bus;
    private final double seconds;
    private final double perSecond;

    private ExpectedCapture(CapturePlan plan, Optional<Cylinders> cylinders, Optional<Bus> bus) {
        this.plan = plan;
        this.cylinders = cylinders;
        this.bus = bus;
        boolean cranked =
                plan.id().equals(CapturePlan.CRANKING)
                        || plan.id().startsWith(CapturePlan.PRESSURE);
        double rpm = cranked ? CRANKING_RPM : IDLE_RPM;
        perSecond = rpm * 360 / 60;
        seconds =
                plan.id().equals(CapturePlan.STARTING)
                        ? plan.seconds()
                        : plan.id().equals(CapturePlan.RIPPLE)
                                ? 2 / PHASE_HERTZ
                                : bus.map(b -> BUS_BITS / (1000.0 * b.kbit()))
                                        .orElse(CYCLES * Cycles.DEGREES / perSecond);
    }

    /**
     * @param bus of the plan, where it is one
     * @return empty where nothing can be computed: what is at a point is told by its sheet
     */
    public static Optional<Capture> of(
            CapturePlan plan, Optional<Cylinders> cylinders, Optional<Bus> bus) {
        return new ExpectedCapture(plan, cylinders, bus).computed();
    }

    private Optional<Capture> computed() {
        double interval = seconds / SAMPLES;
        List<Lane> lanes = new ArrayList<>();
        for (CapturePlan.Probe probe : plan.lanes()) {
            Optional<DoubleUnaryOperator> its = wave(probe);
            if (its.isEmpty()) {
                return Optional.empty();
            }
            double[] samples = new double[SAMPLES];
            for (int i = 0; i < SAMPLES; i++) {
                samples[i] = its.get().applyAsDouble(i * interval);
            }
            lanes.add(
                    Lane.of(
                            probe.name(),
                            probe.role(),
                            probe.role().unit(),
                            probe.told(),
                            samples));
        }
        return lanes.isEmpty() ? Optional.empty() : Optional.of(new Capture(interval, lanes));
    }

    /** What a lane shows at a time, s. */
    private Optional<DoubleUnaryOperator> wave(CapturePlan.Probe probe) {
        return switch (probe.role()) {
            case STARTER_CURRENT -> Optional.of(this::amps);
            case PLUS_CABLE -> Optional.of(t -> PLUS_OHM * amps(t));
            case EARTH_CABLE -> Optional.of(t -> EARTH_OHM * amps(t));
            case SUPPLY -> Optional.of(this::supply);
            case HIGH_NEAR, HIGH_FAR -> bus.map(b -> t -> 2.5 + (dominant(b, t) ? 1 : 0));
            case LOW_NEAR, LOW_FAR -> bus.map(b -> t -> 2.5 - (dominant(b, t) ? 1 : 0));
            default -> cylinders.flatMap(c -> ofEngine(probe, c));
        };
    }

    private Optional<DoubleUnaryOperator> ofEngine(CapturePlan.Probe probe, Cylinders its) {
        int of = number(probe.place());
        return switch (probe.role()) {
            case INTAKE -> Optional.of(t -> -1.5 * sum(its, t, 350, 230));
            case EXHAUST -> Optional.of(t -> 2 * sum(its, t, 140, 230));
            case CRANKCASE -> Optional.of(t -> 0.04 * Math.cos(swing(its, t)));
            case FIRST_CYLINDER ->
                    Optional.of(t -> since(its, 1, t) > 714 || since(its, 1, t) < 4 ? 5 : 0);
            case CYLINDER -> Optional.of(t -> pressure(its, since(its, of, t)));
            case CRANK -> its.wheel().map(w -> t -> tooth(w, since(its, 1, t)) ? 5 : 0);
            case CAM -> its.wheel().map(w -> t -> mark(w, since(its, 1, t)) ? 5 : 0);
            case COILS -> Optional.of(t -> all(its, t, -20, DWELL, 7));
            case COIL -> Optional.of(t -> ramp(since(its, of, t), -20, DWELL, 7));
            case INJECTORS -> Optional.of(t -> all(its, t, -300, OPEN, 1));
            case INJECTOR -> Optional.of(t -> ramp(since(its, of, t), -300, OPEN, 1));
            case SPARKS -> Optional.of(t -> sparks(its, t));
            default -> Optional.empty();
        };
    }

    private static int number(String place) {
        String digits = place.replaceAll("\\D", "");
        return digits.isEmpty() ? 1 : Integer.parseInt(digits);
    }

    /** Degrees since the compression dead centre of a cylinder, from 0 to 720. */
    private double since(Cylinders its, int cylinder, double t) {
        double place =
                (its.order().indexOf(cylinder) - its.order().indexOf(1))
                        * (double) Cycles.DEGREES
                        / its.order().size();
        return ((t * perSecond - place - 90) % Cycles.DEGREES + 2 * Cycles.DEGREES)
                % Cycles.DEGREES;
    }

    /** Half waves of all cylinders that begin so many degrees after their dead centres. */
    private double sum(Cylinders its, double t, double from, double length) {
        double sum = 0;
        for (int c : its.order()) {
            double at = since(its, c, t) - from;
            sum += at > 0 && at < length ? Math.sin(Math.PI * at / length) : 0;
        }
        return sum;
    }

    /** Angle of what swings once for each cylinder, radians; a top lies before each dead centre. */
    private double swing(Cylinders its, double t) {
        return Math.toRadians((since(its, 1, t) + 15) * its.order().size() / 2.0);
    }

    private double amps(double t) {
        double begins = plan.id().equals(CapturePlan.STARTING) ? plan.before() * seconds : 0;
        if (t < begins) {
            return 0;
        }
        double swing = cylinders.map(c -> SWINGS * Math.cos(swing(c, t))).orElse(0.0);
        double rush = begins > 0 ? 2 * Math.exp(-(t - begins) / 0.06) : 0;
        return AMPS * (1 + swing + rush);
    }

    private double supply(double t) {
        if (plan.id().equals(CapturePlan.STARTING)) {
            return REST_VOLTS - BATTERY_OHM * amps(t);
        }
        // of three phases the highest against the lowest, through six diodes
        double at = 2 * Math.PI * PHASE_HERTZ * t;
        double top = -1;
        double bottom = 1;
        for (int phase = 0; phase < 3; phase++) {
            double its = Math.sin(at - phase * 2 * Math.PI / 3);
            top = Math.max(top, its);
            bottom = Math.min(bottom, its);
        }
        return CHARGING_VOLTS + RIPPLE_VOLTS * (top - bottom - Math.sqrt(3));
    }

    /** Compressed from its largest volume on, and back again; open to the air otherwise. */
    private static double pressure(Cylinders its, double since) {
        double ratio = its.ratio() > 1 ? its.ratio() : 10;
        if (since > 140 && since < 560) {
            return AMBIENT_KPA;
        }
        double volume = 1 + (ratio - 1) / 2 * (1 - Math.cos(Math.toRadians(since)));
        double shut = 1 + (ratio - 1) / 2 * (1 - Math.cos(Math.toRadians(560)));
        return AMBIENT_KPA * Math.pow(shut / volume, POLYTROPIC);
    }

    private static boolean tooth(SignalWheel wheel, double since) {
        double at = ((since + wheel.first()) % 360 + 360) % 360;
        return at < wheel.there() * wheel.pitch() && at % wheel.pitch() < wheel.pitch() / 2;
    }

    /** Its signal rises at each of its marks, and falls in the middle to the next one. */
    private static boolean mark(SignalWheel wheel, double since) {
        double at = ((since + wheel.first()) % Cycles.DEGREES + Cycles.DEGREES) % Cycles.DEGREES;
        List<Double> cam = wheel.cam().stream().sorted().toList();
        for (int i = 0; i < cam.size(); i++) {
            double from = cam.get(i);
            double next = i + 1 < cam.size() ? cam.get(i + 1) : cam.get(0) + Cycles.DEGREES;
            double on = ((at - from) % Cycles.DEGREES + Cycles.DEGREES) % Cycles.DEGREES;
            if (on < (next - from) / 2) {
                return true;
            }
        }
        return false;
    }

    private double all(Cylinders its, double t, double from, double lasts, double most) {
        double sum = 0;
        for (int c : its.order()) {
            sum += ramp(since(its, c, t), from, lasts, most);
        }
        return sum;
    }

    /** A current that rises with a third of its time as its time constant. */
    private double ramp(double since, double from, double lasts, double most) {
        double t = ((since - from) % Cycles.DEGREES + Cycles.DEGREES) % Cycles.DEGREES / perSecond;
        return t < lasts ? most * (1 - Math.exp(-3 * t / lasts)) : 0;
    }

    private double sparks(Cylinders its, double t) {
        double most = 0;
        for (int c : its.order()) {
            double after = ((since(its, c, t) + 10) % Cycles.DEGREES) / perSecond;
            most = Math.max(most, after < 2 * seconds / SAMPLES ? 12 : after < BURNS ? 1.5 : 0);
        }
        return most;
    }

    /** Bits of a frame with a pause before and behind, five of a kind in a row at most. */
    private static boolean dominant(Bus its, double t) {
        int bit = (int) (t * its.kbit() * 1000);
        long pattern = 0b1101_0011_0101_1000_1110_0101_1010_1100_1001_0110L;
        return bit >= 10 && bit < BUS_BITS - 14 && (pattern >> bit % 40 & 1) == 1;
    }
}
