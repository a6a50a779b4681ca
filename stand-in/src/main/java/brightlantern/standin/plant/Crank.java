package brightlantern.standin.plant;

import brightlantern.core.cylinder.SignalWheel;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleSupplier;

/**
 * Crank with cylinders, resolved by the teeth of its signal wheel. Gas torque of each cylinder from
 * p·dV/dθ: polytropic compression of what was drawn in, heat of combustion at dead centre,
 * polytropic expansion until the exhaust opens. A valve that leaks lets pressure out over time, so
 * it harms least at high speed. The rigid crank answers with J·dω/dt = ΣT − mean T. Its module
 * times the teeth, whose pitch is never quite even: at high speed that error hides the cylinders.
 */
public final class Crank implements Part {
    /** Id of the consumer that is the coil of an injector; the cylinder follows. */
    static final String INJECTOR_COIL = "injector-coil-";

    private static final int TEETH = 60;
    private static final double TOOTH_DEGREES = 360.0 / TEETH;
    private static final double AMBIENT_PA = 101_300;

    /** The drive line and the speed governor hold the mean speed, s. */
    private static final double GOVERNOR_SECONDS = 0.35;

    /** An idling engine that lost all its torque would fall by so much before its governor acts. */
    private static final double DROOP_RPM = 260;

    private static final double DROOP_SECONDS = 0.25;

    /** The governor makes up for lost torque in this time, s. */
    private static final double MAKES_UP_SECONDS = 4;

    private final EngineSpec spec;
    private final EngineWaves waves;
    private final Random random;
    private final double[] seal;
    private final List<CrankingSigns.Leak> leaks;
    private final double[] giving;
    private final boolean[] off;

    /** What its module does not know of its teeth, and which coils fail when they are hot. */
    private final Misfiring misfiring;

    private final Plugs plugs;

    private final ToothTiming timing;

    private final SignalWheels wheels;

    private final double[] phase;
    private final Strokes strokes;
    private final double[] air;
    private final double[] heat;
    private final double[] lost;
    private double angle;
    private double swing;
    private double meanTorque;
    private double torque;
    private double scatter;
    private boolean running;
    private Means means = new Means();
    private final double[] share;
    private final double[] work;
    private double droop;
    private double compensated;

    /**
     * @param wheel its marks, and those of its camshaft
     * @param seed of the scatter of its combustions and teeth
     */
    public Crank(EngineSpec spec, SignalWheel wheel, long seed) {
        this.spec = spec;
        this.random = new Random(seed);
        this.wheels = new SignalWheels(wheel, new Random(seed));
        this.plugs = new Plugs(spec.cylinders(), spec.drawn(1), seed);
        this.waves = new EngineWaves(spec, this, wheels, seed);
        int n = spec.cylinders();
        seal = new double[n];
        leaks = new ArrayList<>(Collections.nCopies(n, CrankingSigns.Leak.EXHAUST_VALVE));
        giving = new double[n];
        off = new boolean[n];
        misfiring = new Misfiring(n);
        phase = new double[n];
        air = new double[n];
        heat = new double[n];
        lost = new double[n];
        share = new double[n];
        work = new double[n];
        Arrays.fill(share, 1);
        scatter = spec.diesel() ? 0.015 : 0.03;
        for (int k = 0; k < n; k++) {
            giving[k] = 1 + 0.008 * random.nextGaussian();
            phase[spec.order().get(k) - 1] = 720.0 * k / n;
        }
        strokes = new Strokes(spec);
        timing = new ToothTiming(spec, phase, random);
    }

    /** One whose module stops the injector of a cylinder that misfires under load. */
    public Crank protecting() {
        misfiring.protect();
        return this;
    }

    /**
     * Lets a valve of a cylinder leak.
     *
     * @param perSecond share of the pressure that is lost in a second; 0 when tight
     */
    public Crank leak(int cylinder, double perSecond) {
        seal[cylinder - 1] = perSecond;
        return this;
    }

    @Override
    public synchronized void with(Means its) {
        means = its;
        waves.with(its);
    }

    /** What an oscilloscope sees of it. */
    public EngineWaves waves() {
        return waves;
    }

    /** Whether its coil takes current. */
    synchronized boolean coilIsWhole(int cylinder) {
        return misfiring.coilIsWhole(cylinder - 1) && means.works(FeedCurrents.COIL + cylinder);
    }

    Plugs plugs() {
        return plugs;
    }

    /** Whether its injector is given current. */
    synchronized boolean isInjecting(int cylinder) {
        return running
                && !off[cylinder - 1]
                && !misfiring.isStopped(cylinder - 1)
                && means.works(INJECTOR_COIL + cylinder);
    }

    /** What a cylinder gives, as a share of what it is asked for. */
    synchronized double shareOf(int cylinder) {
        return share[cylinder - 1];
    }

    /** Torque that is asked for, Nm. */
    synchronized double torque() {
        return torque;
    }

    /** Share of its pressure that a cylinder loses in a second. */
    synchronized double leakOf(int cylinder) {
        return seal[cylinder - 1];
    }

    /** Where a cylinder leaks, if it does. */
    synchronized CrankingSigns.Leak leakAt(int cylinder) {
        return leaks.get(cylinder - 1);
    }

    /** A cylinder gives this share of the torque that it is asked for. */
    public Crank gives(int cylinder, double share) {
        giving[cylinder - 1] = share;
        return this;
    }

    /** Uneven combustion, as of a lean mixture: relative scatter of the work of one. */
    public synchronized void scatter(double relative) {
        scatter = relative;
    }

    /** Switches the injection of a cylinder off or on again. */
    public synchronized void off(int cylinder, boolean now) {
        off[cylinder - 1] = now;
    }

    @Override
    public synchronized void step(Whole whole, double dt) {
        double rpm = whole.rpm();
        if (whole.running() && !running) {
            timing.started();
        }
        running = whole.running();
        if (timing.learns(whole)) {
            misfiring.learned();
        }
        misfiring.step(whole, dt, timing.misfires());
        if (rpm < 60) {
            droop = 0;
            compensated = 0;
            swing = 0;
            torque = 0;
            timing.stands();
            return;
        }
        double mean = rpm * 2 * Math.PI / 60;
        double friction = spec.friction(rpm);
        double wanted = whole.running() ? friction + whole.load() * spec.mostTorque() : 0;
        torque = wanted;
        governor(wanted, dt);
        double left = dt;
        while (left > 0) {
            double speed = Math.max(5, mean + swing);
            double toNext = TOOTH_DEGREES - angle % TOOTH_DEGREES;
            double time = Math.toRadians(toNext) / speed;
            if (time > left) {
                turn(Math.toDegrees(speed * left), left, wanted, friction, whole, speed);
                break;
            }
            turn(toNext, time, wanted, friction, whole, speed);
            angle = Math.round(angle / TOOTH_DEGREES) * TOOTH_DEGREES % 720;
            timing.tooth(angle, mean + swing, mean, wanted, misfiring);
            left -= time;
        }
    }

    /** What cylinders owe costs speed, until the governor has made up for it. */
    private void governor(double wanted, double dt) {
        double owed = 0;
        for (double s : share) {
            owed += (1 - s) / share.length;
        }
        double missing = wanted > 0 ? owed - compensated : 0;
        compensated += missing * Math.min(1, dt / MAKES_UP_SECONDS);
        droop += (-DROOP_RPM * missing - droop) * Math.min(1, dt / DROOP_SECONDS);
    }

    /** How much slower it turns than it should, rpm (below zero). */
    public synchronized double droop() {
        return droop;
    }

    private void turn(
            double degrees,
            double time,
            double wanted,
            double friction,
            Whole whole,
            double speed) {
        double sum = 0;
        for (int k = 0; k < phase.length; k++) {
            double at = Math.floorMod((int) (angle - phase[k] + 1440), 720);
            double its = cylinder(k, (int) at, time, wanted, whole);
            sum += its;
            account(k, (int) at, its * Math.toRadians(degrees), wanted);
        }
        meanTorque += (sum - meanTorque) * Math.min(1, time * speed / (4 * Math.PI));
        swing += (sum - meanTorque) / spec.inertia() * time;
        swing -= swing * Math.min(1, time / GOVERNOR_SECONDS);
        angle = (angle + degrees) % 720;
    }

    /** What a cylinder gave over its cycle, as a share of what it was asked for. */
    private void account(int k, int at, double joule, double wanted) {
        if (at >= Strokes.EXHAUST_OPENS && at < 540) {
            if (work[k] != 0 && wanted > 0) {
                share[k] = work[k] / (4 * Math.PI * wanted / share.length);
            }
            work[k] = 0;
        } else {
            work[k] += joule;
        }
    }

    /** Torque of one cylinder; {@code at} counts from its firing dead centre, 540 = drawn in. */
    private double cylinder(int k, int at, double time, double wanted, Whole whole) {
        if (at >= 540) {
            if (at < 552) {
                // the valve has just shut on what was drawn in
                air[k] = AMBIENT_PA * spec.drawn(whole.load());
                lost[k] = 1;
                heat[k] = Double.NaN;
            }
            lost[k] *= Math.max(0, 1 - seal[k] * time * strokes.leakShare(at));
            double p = air[k] * lost[k] * strokes.compressed(at) - AMBIENT_PA;
            return p * strokes.slope(at);
        }
        if (at < Strokes.EXHAUST_OPENS) {
            if (Double.isNaN(heat[k])) {
                double work = 4 * Math.PI * wanted / spec.cylinders();
                // what was lost before dead centre does not burn: too little air, too little heat
                double burns = lost[k] > 0.55 ? lost[k] : 0.3 * lost[k];
                heat[k] =
                        off[k]
                                        || !misfiring.burns(k)
                                        || !means.burns(k + 1)
                                        || !spec.diesel()
                                                && !plugs.ignites(
                                                        k, spec.drawn(whole.load()) * lost[k])
                                ? 0
                                : work
                                        / strokes.work()
                                        * giving[k]
                                        * burns
                                        * Math.max(0, 1 + scatter * random.nextGaussian());
            }
            lost[k] *= Math.max(0, 1 - seal[k] * time);
            double p =
                    (air[k] * lost[k] * strokes.atDeadCentre() + heat[k] * lost[k])
                                    * strokes.expanded(at)
                            - AMBIENT_PA;
            return p * strokes.slope(at);
        }
        return 0;
    }

    @Override
    public List<Outlet> outlets() {
        List<Outlet> all = new ArrayList<>();
        for (int k = 0; k < phase.length; k++) {
            int its = k;
            all.add(
                    new Outlet(
                            "engine",
                            0x3101 + k,
                            () -> off[its] ? 100 : 0,
                            percent -> off(its + 1, percent.orElse(0) > 50),
                            () -> running));
        }
        return all;
    }

    @Override
    public Map<Integer, Doing> doings() {
        return Map.of(
                0x0601,
                new Doing() {
                    @Override
                    public String module() {
                        return "engine";
                    }

                    @Override
                    public int start() {
                        synchronized (Crank.this) {
                            return timing.learn(running) ? 0 : 0x22;
                        }
                    }

                    @Override
                    public void stop() {
                        synchronized (Crank.this) {
                            timing.stopLearning();
                        }
                    }

                    @Override
                    public int[] result() {
                        synchronized (Crank.this) {
                            return new int[] {timing.toLearn()};
                        }
                    }
                });
    }

    @Override
    public Map<String, String> acts() {
        Map<String, String> acts = new HashMap<>(CrankingSigns.acts());
        if (!spec.diesel()) {
            acts.putAll(Plugs.acts());
        }
        return acts;
    }

    @Override
    public synchronized String act(String id) {
        return Plugs.acts().containsKey(id) ? plugs.seen() : CrankingSigns.found(id, seal, leaks);
    }

    /** What it had counted is forgotten. */
    @Override
    public synchronized void cleared() {
        timing.cleared();
    }

    private synchronized double read(DoubleSupplier reading) {
        return reading.getAsDouble();
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> sensors = new HashMap<>();
        timing.sensors().forEach((id, told) -> sensors.put(id, () -> read(told)));
        wheels.sensors().forEach((id, told) -> sensors.put(id, () -> read(told)));
        sensors.put("torque.indicated", () -> read(() -> torque));
        return sensors;
    }

    @Override
    public synchronized void fail(String mode, String of, double size) {
        switch (mode) {
            case "exhaust-valve", "intake-valve", "rings" -> {
                int cylinder = Integer.parseInt(of);
                leak(cylinder, size);
                leaks.set(
                        cylinder - 1,
                        CrankingSigns.Leak.valueOf(
                                mode.toUpperCase(Locale.ROOT).replace('-', '_')));
            }
            case "chain", "mark", "bent" ->
                    wheels.fail(SignalWheels.Mode.valueOf(mode.toUpperCase(Locale.ROOT)), size);
            case "unlearned", "coil-hot" -> misfiring.fail(mode, Integer.parseInt(of) - 1, size);
            case Plugs.GAP, Plugs.FOULED -> plugs.fail(mode, Integer.parseInt(of) - 1, size);
            case "gives" -> gives(Integer.parseInt(of), size);
            default -> Part.super.fail(mode, of, size);
        }
    }
}
