package brightlantern.app.probe;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Reasoning;
import brightlantern.app.link.HandMeter;
import brightlantern.app.link.OutputSession;
import brightlantern.app.page.JobPages;
import brightlantern.core.actuator.Actuator;
import brightlantern.core.circuit.ExpectedReading;
import brightlantern.core.circuit.HeldReading;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.circuit.Settling;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.reason.ReadingDoubt;
import brightlantern.core.signal.Value;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.WireException;
import brightlantern.wire.scpi.Multimeter;
import java.util.ArrayList;
import java.util.DoubleSummaryStatistics;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * Takes readings from the meter and keeps them, with the circuit at rest, loaded, or while an
 * actuator moves to and fro.
 */
@Component
class ProbeReadings {
    private static final int REST_READINGS = 8;
    private static final double HANDS_FREE_SECONDS = 20;
    private static final long HANDS_FREE_MILLIS = 120;

    /** A bulb's filament needs this long to settle. */
    private static final long SETTLE_MILLIS = 450;

    private static final double STROKE_SECONDS = 1.0;
    private static final int STROKES = 4;

    /**
     * While an actuator goes to and fro it moves about half of the time; this share of the
     * readings, sorted by their distance from rest, lies in the steady part of the motion and above
     * neither the inrush nor a slipped reading.
     */
    private static final double MOVING_QUANTILE = 0.8;

    private final CommandLog log;
    private final Findings findings;
    private final Reasoning reasoning;
    private final HandMeter meters;

    ProbeReadings(CommandLog log, Findings findings, HandMeter meters, Reasoning reasoning) {
        this.reasoning = reasoning;
        this.meters = meters;
        this.log = log;
        this.findings = findings;
    }

    /**
     * Takes a reading with the instrument.
     *
     * @throws WireException when meter or vehicle do not play their part
     * @throws IllegalStateException when a gate is shut or somebody else commands the vehicle
     */
    Reading take(JobPages.Context context, Asked asked, String who) throws WireException {
        double supply = supply(context);
        List<Actuator> moving =
                context.description().actuators().stream()
                        .filter(a -> asked.condition().motors().contains(a.motor()))
                        .toList();
        try (Multimeter meter = meters.open(context.job())) {
            meter.at(asked.point().id());
            meter.load(asked.condition().load().name());
            double volts =
                    moving.isEmpty()
                            ? atRest(meter)
                            : whileMoving(context, meter, asked.point(), supply, moving, who);
            meter.release();
            meters.name(context.job(), meter);
            return new Reading(volts, supply, "");
        }
    }

    /**
     * Takes a reading without a hand, once the meter has come to rest on the point.
     *
     * @param before volts of the last reading, which a lead that somebody holds has to leave first
     * @throws WireException when meter or vehicle do not play their part
     * @throws IllegalStateException when it does not come to rest, or may hang in the air
     */
    Reading settled(JobPages.Context context, Asked asked, OptionalDouble before)
            throws WireException {
        movesNothing("Hands free", asked);
        double supply = supply(context);
        try (Multimeter meter = meters.open(context.job())) {
            meter.at(asked.point().id());
            meter.load(asked.condition().load().name());
            Settling settling = new Settling(!meter.switches(), before);
            double volts = settled(meter, settling, asked);
            meter.release();
            meters.name(context.job(), meter);
            return new Reading(volts, supply, " (hands free)");
        }
    }

    /**
     * Looks at a point over a while; nothing is moved for that but what somebody moves himself.
     *
     * @throws WireException when the meter does not play its part
     * @throws IllegalStateException where an actuator would have to be driven for it
     */
    HeldReading over(JobPages.Context context, Asked asked, int seconds) throws WireException {
        movesNothing("Over a while", asked);
        try (Multimeter meter = meters.open(context.job())) {
            meter.at(asked.point().id());
            meter.load(asked.condition().load().name());
            pause(SETTLE_MILLIS);
            DoubleSummaryStatistics volts = new DoubleSummaryStatistics();
            long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(seconds);
            while (System.nanoTime() < end) {
                volts.accept(meter.volts());
                pause(12);
            }
            OptionalDouble alternating = told(meter::alternating);
            HeldReading held =
                    new HeldReading(
                            seconds,
                            volts.getMin(),
                            volts.getMax(),
                            volts.getAverage(),
                            alternating,
                            alternating.isPresent()
                                    ? told(meter::frequency)
                                    : OptionalDouble.empty(),
                            alternating.isPresent() ? told(meter::duty) : OptionalDouble.empty());
            meter.release();
            meters.name(context.job(), meter);
            return held;
        }
    }

    /** What drives an actuator is watched by whoever pressed for it. */
    private static void movesNothing(String what, Asked asked) {
        if (!asked.condition().motors().isEmpty()
                && asked.circuit().setting(asked.condition().motors().get(0)).isEmpty()) {
            throw new IllegalStateException(
                    what
                            + ": "
                            + asked.condition().name(asked.circuit())
                            + " wants somebody who watches it. Press Read the meter.");
        }
    }

    /** A figure that a meter may be unable to tell. */
    private interface Figure {
        double ask() throws WireException;
    }

    private static OptionalDouble told(Figure figure) {
        try {
            double its = figure.ask();
            return Double.isInfinite(its) ? OptionalDouble.empty() : OptionalDouble.of(its);
        } catch (WireException cannot) {
            return OptionalDouble.empty();
        }
    }

    private static double settled(Multimeter meter, Settling settling, Asked asked)
            throws WireException {
        long began = System.nanoTime();
        while (true) {
            double seconds = (System.nanoTime() - began) / 1e9;
            OptionalDouble volts = settling.add(seconds, meter.volts());
            if (volts.isPresent()) {
                return volts.getAsDouble();
            }
            if (seconds > HANDS_FREE_SECONDS) {
                throw new IllegalStateException(unsettled(settling, asked));
            }
            pause(HANDS_FREE_MILLIS);
        }
    }

    private static String unsettled(Settling settling, Asked asked) {
        String does = asked.condition().does(asked.circuit());
        return String.format(
                Locale.ROOT,
                "Hands free: the meter did not come to rest at %s within %.0f s; it shows %.2f to %.2f V. %s%s",
                asked.point().name(),
                HANDS_FREE_SECONDS,
                settling.span()[0],
                settling.span()[1],
                does.isEmpty() ? "" : "Was this done: " + does + "? ",
                String.format(
                        Locale.ROOT,
                        "A lead that shows less than %.2f V may hang in the air: if it is on the point, press Read the meter.",
                        Settling.IN_THE_AIR));
    }

    /**
     * @throws IllegalStateException when the vehicle does not tell it
     */
    private static double supply(JobPages.Context context) throws WireException {
        String supplyId = context.description().live().supply();
        VehicleDescription d = context.description();
        Double supply = context.link().read(d, List.of(supplyId)).get(supplyId);
        if (supply != null && !supply.isNaN()) {
            return supply;
        }
        // the module that tells it may be the very one that is not fed
        String its = d.value(supplyId).map(Value::module).orElse("");
        return context.link()
                .toldSupply(d, its)
                .orElseThrow(
                        () ->
                                new IllegalStateException(
                                        "The vehicle does not tell its supply voltage. Turn the key on, or type the reading in with the supply."));
    }

    /** What has to be asked before a reading counts. */
    Optional<Doubted> doubt(JobPages.Context context, Asked asked, Reading reading) {
        VehicleDescription d = context.description();
        double supply = Reasoning.rounded(reading.supplyVolts());
        return new ReadingDoubt(reasoning.plan(d), d)
                .of(
                        asked.circuit(),
                        asked.point().id(),
                        asked.condition(),
                        reading.volts(),
                        reading.supplyVolts(),
                        reasoning.of(context.job().id(), d, supply).evidence())
                .map(
                        q ->
                                new Doubted(
                                        asked.condition().id(),
                                        reading.volts(),
                                        reading.supplyVolts(),
                                        q));
    }

    /** Keeps a reading, held against what a healthy circuit reads. */
    void keep(JobPages.Context context, Asked asked, Reading reading, String who) {
        VehicleDescription d = context.description();
        String point = asked.point().id();
        Map<String, Double> told = Asked.told(context, asked.circuit(), asked.point());
        Optional<Sensed> sensed = Sensed.at(asked.circuit(), point, d::value, told);
        ExpectedReading healthy =
                asked.condition()
                        .healthy(
                                new SharedPoints(d.circuits()),
                                asked.circuit(),
                                point,
                                reading.supplyVolts(),
                                sensed);
        boolean right = healthy.holds(reading.volts());
        findings.add(
                context.job().id(),
                "probe",
                who,
                String.format(
                        Locale.ROOT,
                        "%s, %s: %.2f V, right is %s%s%s.",
                        asked.point().name(),
                        asked.condition().name(asked.circuit()),
                        reading.volts(),
                        healthy.words(),
                        ToldWords.of(d, sensed),
                        reading.by()),
                Optional.of(right),
                Optional.of(
                        new Evidence.Reading(
                                asked.circuit().id(),
                                point,
                                asked.condition().load().name().toLowerCase(Locale.ROOT),
                                asked.condition().motors(),
                                reading.volts(),
                                reading.supplyVolts(),
                                right,
                                told)),
                null);
    }

    private static double atRest(Multimeter meter) throws WireException {
        pause(SETTLE_MILLIS);
        double sum = 0;
        for (int i = 0; i < REST_READINGS; i++) {
            sum += meter.volts();
        }
        return sum / REST_READINGS;
    }

    private double whileMoving(
            JobPages.Context context,
            Multimeter meter,
            ProbePoint point,
            double supply,
            List<Actuator> moving,
            String who)
            throws WireException {
        List<Double> drops = new ArrayList<>();
        double pole = point.side().equals("earth") ? 0 : supply;
        int module = context.description().module(moving.get(0).module()).orElseThrow().address();
        checkGates(context, moving);
        try (OutputSession session =
                new OutputSession(
                        context.link(),
                        log,
                        context.job(),
                        who,
                        "reading at " + point.name(),
                        module)) {
            for (int stroke = 0; stroke <= STROKES; stroke++) {
                for (Actuator actuator : moving) {
                    session.drive(actuator, stroke % 2 == 0 ? actuator.low() : actuator.high());
                }
                long end = System.nanoTime() + (long) (STROKE_SECONDS * 1e9);
                while (System.nanoTime() < end) {
                    session.check();
                    double volts = meter.volts();
                    // the first stroke only brings the actuator to its start
                    if (stroke > 0) {
                        drops.add(Math.abs(volts - pole));
                    }
                    pause(12);
                }
                checkGates(context, moving);
            }
        }
        drops.sort(null);
        double drop = drops.get((int) (MOVING_QUANTILE * (drops.size() - 1)));
        return point.side().equals("earth") ? drop : supply - drop;
    }

    private static void checkGates(JobPages.Context context, List<Actuator> moving)
            throws WireException {
        for (Actuator actuator : moving) {
            context.link().requireOpen(context.description(), actuator);
        }
    }

    private static void pause(long millis) throws WireException {
        try {
            TimeUnit.MILLISECONDS.sleep(millis);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new WireException("The reading was cancelled");
        }
    }
}
