package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * What an oscilloscope sees of an engine that turns: gas exchange of each cylinder with polytropic
 * gas and linear valves, leaks that let gas into the pipe behind them, pipes that empty into the
 * open, and a starter whose torque falls with speed (J·dω/dt = starter − gas − friction). Pickups
 * tell changes of pressure, not the pressure itself.
 */
public final class EngineWaves {
    /** Clamp round the starter's cable, A. */
    public static final String STARTER = "starter";

    /** Pickup in the intake pipe, kPa. */
    public static final String INTAKE = "intake";

    /** Pickup in the exhaust pipe, kPa. */
    public static final String EXHAUST = "exhaust";

    /** Pickup at the dipstick's tube, kPa. */
    public static final String CRANKCASE = "crankcase";

    /** Clamp at what fires the first cylinder, V. */
    public static final String FIRST = "cylinder-1";

    /** Signal wire of the sensor at the crank's wheel, V. */
    public static final String CRANK = "crank-sensor";

    /** Signal wire of the sensor at the camshaft, V. */
    public static final String CAM = "cam-sensor";

    /**
     * What the marks of the crank's wheel make of its sensor, whatever its wires make of that, V.
     */
    public static final String CRANK_MARKS = "crank-marks";

    /** The same of the camshaft's, V. */
    public static final String CAM_MARKS = "cam-marks";

    /** Battery plus against the starter's terminal, V. */
    public static final String PLUS_CABLE = "plus-cable";

    /** The engine against battery minus, V. */
    public static final String EARTH_CABLE = "earth-cable";

    /** Pickups at the leads of all spark plugs, kV. */
    public static final String SPARKS = "sparks";

    /** Transducer in place of a plug, kPa absolute; the cylinder's number follows. */
    public static final String PRESSURE = "pressure-";

    private static final Set<String> PICKUPS =
            Set.of(
                    STARTER,
                    PLUS_CABLE,
                    EARTH_CABLE,
                    INTAKE,
                    EXHAUST,
                    CRANKCASE,
                    FIRST,
                    CRANK,
                    CAM,
                    CRANK_MARKS,
                    CAM_MARKS);

    private static final double CABLE_NOISE = 0.01;
    private static final double AMBIENT_KPA = 101.3;
    private static final double POLYTROPIC = 1.32;
    private static final double EXHAUST_OPENS = 140;
    private static final double EXHAUST_SHUTS = 374;
    private static final double INTAKE_OPENS = 346;
    private static final double INTAKE_SHUTS = 582;

    /** Charges that pass an open valve in a second, for a difference of one ambient pressure. */
    private static final double VALVE = 90;

    /** Share of its charge that a healthy cylinder loses past its rings in a second. */
    private static final double BLOW_BY = 0.5;

    /** Speed at which an unloaded starter would turn the engine, rad/s. */
    private static final double FREE_SPEED = 36;

    private static final double STARTER_NM_PER_LITRE_DIESEL = 150;
    private static final double STARTER_NM_PER_LITRE_PETROL = 105;
    private static final double AMPS_PER_NM = 1.15;
    private static final double FREE_AMPS = 55;

    private static final double FIRES_FOR = 14;

    private static final double CLAMP_NOISE = 0.03;

    /** Of a transducer, kPa. */
    private static final double PRESSURE_NOISE = 1.5;

    private static final double SENSOR_NOISE = 0.02;

    /** Of pickups at leads, kV. */
    private static final double SPARK_NOISE = 0.06;

    /** The gauges that tell of the sensors of its marks. */
    public static final String CRANK_SENSOR = "crank-sensor";

    private static final String CAM_SENSOR = "cam-sensor";

    /** Half the reference: a sensor of marks at a standstill, V. */
    public static final double RESTS_VOLTS = 2.5;

    /** Below this it stands, rad/s. */
    private static final double STANDS = 1;

    private static final double SETTLES_SECONDS = 3;
    private static final double SETTLING_STEP = 1e-4;

    /** The drive line and the governor hold the mean speed, s. */
    private static final double GOVERNOR_SECONDS = 0.35;

    /** An engine with a throttle draws in so much of its charge at no load. */
    private static final double THROTTLED = 0.34;

    private final EngineSpec spec;
    private final Crank crank;
    private final SignalWheels wheels;
    private final Random random;
    private final double[] phase;
    private final double[] charge;
    private final double[] pressure;
    private final double[] fills;
    private final double[] sinceSpark;
    private final double[] ringLoss;
    private final double[] volume = new double[721];
    private final double clearance;
    private final Pipe intake;
    private final Pipe exhaust;
    private final Pipe crankcase;
    private final FeedCurrents feeds;
    private Means means = new Means();
    private double omega;
    private double swing;
    private double meanTorque;
    private double angle = 37;

    /** When somebody looked last, s. */
    private double looked;

    private double amps;

    /**
     * A pipe or a room.
     *
     * <p>{@code charges} that fit into it, and the time in which it empties into the open, s.
     */
    private static final class Pipe {
        private static final double SLOW_SECONDS = 0.4;
        private static final double FAST_SECONDS = 0.0015;
        private final double charges;
        private final double seconds;
        private double over;
        private double mean;
        private double felt;

        Pipe(double charges, double seconds) {
            this.charges = charges;
            this.seconds = seconds;
        }

        /**
         * @param inflow charges a second
         */
        void step(double inflow, double dt) {
            over += (AMBIENT_KPA * inflow / charges - over / seconds) * dt;
            mean += (over - mean) * dt / SLOW_SECONDS;
            felt += (over - mean - felt) * Math.min(1, dt / FAST_SECONDS);
        }
    }

    /**
     * @param crank whose leaks it has
     * @param wheels whose marks pass its sensors
     * @param seed of the scatter of its cylinders
     */
    EngineWaves(EngineSpec spec, Crank crank, SignalWheels wheels, long seed) {
        this.spec = spec;
        this.crank = crank;
        this.wheels = wheels;
        this.random = new Random(seed);
        int n = spec.cylinders();
        phase = new double[n];
        charge = new double[n];
        pressure = new double[n];
        fills = new double[n];
        sinceSpark = new double[n];
        ringLoss = new double[n];
        for (int k = 0; k < n; k++) {
            phase[spec.order().get(k) - 1] = 720.0 * k / n;
            charge[k] = 0.5;
            fills[k] = 1 + 0.02 * random.nextGaussian();
            ringLoss[k] = BLOW_BY * (1 + 0.12 * random.nextGaussian());
        }
        feeds = new FeedCurrents(crank, spec, phase);
        intake = new Pipe(spec.diesel() ? 3.0 : 2.2, spec.diesel() ? 0.012 : 0.03);
        exhaust = new Pipe(3.5, 0.012);
        crankcase = new Pipe(2.0 * n, 0.05);
        clearance = 1 / (spec.compression() - 1);
        for (int d = 0; d <= 720; d++) {
            double a = Math.toRadians(d);
            double x =
                    (1 - Math.cos(a) + 3.3 - Math.sqrt(3.3 * 3.3 - Math.pow(Math.sin(a), 2))) / 2;
            volume[d] = clearance + x;
        }
    }

    /** Whether a lane can be connected there. */
    public boolean isPlace(String place) {
        return PICKUPS.contains(place)
                || cylinder(place).isPresent()
                || feeds.isPlace(place)
                || place.equals(SPARKS) && !spec.diesel();
    }

    /** By its place in arrays, the cylinder in which a transducer sits. */
    private OptionalInt cylinder(String place) {
        return IntStream.range(0, phase.length)
                .filter(k -> place.equals(PRESSURE + (k + 1)))
                .findFirst();
    }

    /**
     * Lets it turn for a while.
     *
     * @param places that are looked at
     * @param count samples, evenly over {@code seconds}
     * @return by place, its samples
     */
    public synchronized Map<String, double[]> turn(
            Whole whole, Set<String> places, double seconds, int count) {
        // it ran before somebody looked, or ran otherwise when somebody looked last
        boolean anew = omega < STANDS || whole.seconds() - looked > SETTLES_SECONDS;
        looked = whole.seconds();
        if (whole.running() && anew) {
            for (double t = 0; t < SETTLES_SECONDS; t += SETTLING_STEP) {
                step(whole, SETTLING_STEP);
            }
        }
        feeds.look(means, places);
        Map<String, double[]> all = new HashMap<>();
        places.forEach(p -> all.put(p, new double[count]));
        int fine = Math.max(1, (int) Math.ceil(seconds / count / 0.00005));
        double dt = seconds / count / fine;
        for (int i = 0; i < count; i++) {
            for (int s = 0; s < fine; s++) {
                step(whole, dt);
            }
            for (String place : places) {
                all.get(place)[i] = felt(place, whole);
            }
        }
        return all;
    }

    private double felt(String place, Whole whole) {
        return switch (place) {
            case STARTER -> amps + 1.5 * random.nextGaussian();
            case PLUS_CABLE -> amps * whole.plusOhm() + CABLE_NOISE * random.nextGaussian();
            case EARTH_CABLE -> amps * whole.earthOhm() + CABLE_NOISE * random.nextGaussian();
            case INTAKE -> intake.felt + 0.02 * random.nextGaussian();
            case EXHAUST -> exhaust.felt + 0.02 * random.nextGaussian();
            case CRANKCASE -> crankcase.felt + 0.004 * random.nextGaussian();
            case FIRST -> (fires() ? 5 : 0) + 0.03 * random.nextGaussian();
            case SPARKS -> sparks(whole) + SPARK_NOISE * random.nextGaussian();
            case CRANK -> sensed(CRANK_SENSOR, wheels.crank(angle));
            case CAM -> sensed(CAM_SENSOR, wheels.cam(angle));
            case CRANK_MARKS -> omega < STANDS ? RESTS_VOLTS : wheels.crank(angle);
            case CAM_MARKS -> omega < STANDS ? RESTS_VOLTS : wheels.cam(angle);
            default -> {
                OptionalInt in = cylinder(place);
                yield in.isPresent()
                        ? AMBIENT_KPA * pressure[in.getAsInt()]
                                + PRESSURE_NOISE * random.nextGaussian()
                        : feeds.amps(place, angle, Math.toDegrees(omega), whole.load())
                                + CLAMP_NOISE * random.nextGaussian();
            }
        };
    }

    /** Of all cylinders together, as their pickups are joined, kV. */
    private double sparks(Whole whole) {
        double sum = 0;
        double perSecond = Math.toDegrees(omega + swing);
        for (int k = 0; perSecond > STANDS && k < phase.length; k++) {
            double at = (angle - phase[k] + FeedCurrents.FIRES_BEFORE + 1440) % 720;
            double since = at / perSecond;
            if (since < sinceSpark[k]) {
                crank.plugs().fires(k);
            }
            sinceSpark[k] = since;
            sum +=
                    crank.plugs()
                            .kilovolts(
                                    k,
                                    since,
                                    spec.drawn(whole.load()) * Math.min(1, charge[k]),
                                    feeds.coilAtEnd(k + 1));
        }
        return sum;
    }

    /** What arrives of a sensor that rests at half its reference until marks pass it. */
    private double sensed(String sensor, double volts) {
        double arrives = !means.works(sensor) ? 0 : omega < STANDS ? RESTS_VOLTS : volts;
        return arrives + SENSOR_NOISE * random.nextGaussian();
    }

    synchronized void with(Means its) {
        means = its;
    }

    private boolean fires() {
        double at = Math.floorMod((int) (angle - phase[0] + FeedCurrents.FIRES_BEFORE + 1440), 720);
        return omega > 3 && at < FIRES_FOR;
    }

    private void step(Whole whole, double dt) {
        double gas = 0;
        double in = 0;
        double out = 0;
        double below = 0;
        double late = wheels.late();
        for (int k = 0; k < phase.length; k++) {
            double at = angle - phase[k];
            at = at < 0 ? at + 720 : at;
            int d = (int) at;
            double v = volume[d] + (volume[d + 1] - volume[d]) * (at - d);
            double full = 1 + clearance;
            double p = Math.pow(charge[k] * full / v, POLYTROPIC);
            pressure[k] = p;
            gas += (p - 1) * (volume[d + 1] - volume[d]) / Math.toRadians(1);
            double intakeFlow = 0;
            double exhaustFlow = 0;
            double pIn = 1 + intake.over / AMBIENT_KPA;
            double pOut = 1 + exhaust.over / AMBIENT_KPA;
            double cam = at - late;
            if (cam > INTAKE_OPENS && cam < INTAKE_SHUTS) {
                intakeFlow += VALVE * fills[k] * (pIn - p);
            }
            if (cam > EXHAUST_OPENS && cam < EXHAUST_SHUTS) {
                exhaustFlow += VALVE * (pOut - p);
            }
            double leak = crank.leakOf(k + 1) * through(p);
            double past = ringLoss[k] * charge[k] * through(p);
            switch (crank.leakAt(k + 1)) {
                case INTAKE_VALVE -> intakeFlow -= leak * charge[k];
                case EXHAUST_VALVE -> exhaustFlow -= leak * charge[k];
                case RINGS -> past += leak * charge[k];
            }
            charge[k] = Math.max(0.01, charge[k] + (intakeFlow + exhaustFlow - past) * dt);
            in -= intakeFlow;
            out -= exhaustFlow;
            below += past;
        }
        intake.step(in, dt);
        exhaust.step(out, dt);
        crankcase.step(below, dt);
        turn(whole, gas, dt);
    }

    /** How much of a leak flows: none at ambient pressure, all of it when much is above. */
    private static double through(double p) {
        return p <= 1 ? 0 : Math.min(1.2, 0.35 * Math.log(p));
    }

    private void turn(Whole whole, double gas, double dt) {
        double litres = spec.litres() / spec.cylinders();
        if (whole.cranking()) {
            double most =
                    spec.litres()
                            * (spec.diesel()
                                    ? STARTER_NM_PER_LITRE_DIESEL
                                    : STARTER_NM_PER_LITRE_PETROL);
            double more = whole.plusOhm() + whole.earthOhm() - Supply.PLUS_OHM - Supply.EARTH_OHM;
            double volts = Math.max(0, Math.min(1, (whole.volts() - amps * more) / 12));
            double torque = Math.max(0, most * (volts - omega / FREE_SPEED));
            double friction = spec.friction(omega * 60 / (2 * Math.PI));
            // kPa × litres = J
            double own = AMBIENT_KPA * litres * gas;
            omega = Math.max(0, omega + (torque + own - friction) / spec.inertia() * dt);
            amps += (FREE_AMPS + AMPS_PER_NM * torque - amps) * Math.min(1, dt / 0.002);
        } else {
            double wanted = whole.running() ? whole.rpm() * 2 * Math.PI / 60 : 0;
            omega += (wanted - omega) * Math.min(1, dt / 0.15);
            swing(whole, AMBIENT_KPA * litres * gas, dt);
            amps -= amps * Math.min(1, dt / 0.01);
        }
        angle = (angle + Math.toDegrees(omega + swing) * dt) % 720;
    }

    /**
     * How the speed of an engine that runs swings with what its cylinders compress and give.
     *
     * @param compressed torque of the gas in them without its heat, Nm, with full charges
     */
    private void swing(Whole whole, double compressed, double dt) {
        if (!whole.running() || omega < 20) {
            swing = 0;
            meanTorque = 0;
            return;
        }
        double drawn = spec.diesel() ? 1 : THROTTLED + (1 - THROTTLED) * whole.load();
        double sum = drawn * compressed;
        double work = 4 * Math.PI * crank.torque() / phase.length;
        for (int k = 0; k < phase.length; k++) {
            double at = (angle - phase[k] + 720) % 720;
            if (at < 180) {
                sum += work * crank.shareOf(k + 1) / 2 * Math.sin(Math.toRadians(at));
            }
        }
        meanTorque += (sum - meanTorque) * Math.min(1, dt * omega / (4 * Math.PI));
        swing += (sum - meanTorque) / spec.inertia() * dt;
        swing -= swing * Math.min(1, dt / GOVERNOR_SECONDS);
    }
}
