package brightlantern.core.capture;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.cylinder.Cylinders;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * One way to read a capture.
 *
 * @param isFor whether it is for such lanes
 * @param cannot what is said, before the reason, where it cannot be read
 * @param whyNot why a capture cannot be judged; empty where it can
 * @param judge what it says; empty when nothing can be said
 */
public record CaptureStudy(
        Predicate<Capture> isFor,
        String cannot,
        Function<Capture, Optional<String>> whyNot,
        Function<Capture, Optional<? extends CaptureReading>> judge) {
    /** The clamp shows the firing of the first cylinder so long before its dead centre, degrees. */
    public static final double FIRES_BEFORE = 6;

    /** What a capture comes to. */
    public sealed interface Read {
        /** In a sentence; empty for lanes that no study looks at. */
        String sentence();

        /** Why it says so. */
        List<String> reasons();

        /** What was read, when it is of this kind. */
        default <T extends CaptureReading> Optional<T> as(Class<T> kind) {
            return this instanceof Judged j && kind.isInstance(j.reading)
                    ? Optional.of(kind.cast(j.reading))
                    : Optional.empty();
        }
    }

    /** A study has judged it. */
    public record Judged(CaptureReading reading) implements Read {
        @Override
        public String sentence() {
            return reading.sentence();
        }

        @Override
        public List<String> reasons() {
            return reading.reasons();
        }
    }

    /** None could. */
    public record Nothing(String sentence) implements Read {
        @Override
        public List<String> reasons() {
            return List.of();
        }
    }

    /** The first study that is for its lanes reads a capture. */
    public static Read read(List<CaptureStudy> studies, Capture capture) {
        return studies.stream()
                .filter(s -> s.isFor.test(capture))
                .findFirst()
                .map(s -> s.read(capture))
                .orElse(new Nothing(""));
    }

    private Read read(Capture capture) {
        return judge.apply(capture)
                .<Read>map(Judged::new)
                .orElseGet(
                        () -> new Nothing(cannot + " " + whyNot.apply(capture).orElse("").trim()));
    }

    private static boolean has(Capture capture, LaneRole role) {
        return capture.lane(role).isPresent();
    }

    /**
     * All that look at the supply and at an engine, those that want most lanes first.
     *
     * @param circuits that tell what its coils and injectors are made for
     */
    public static List<CaptureStudy> of(
            Optional<Cylinders> cylinders, Collection<Circuit> circuits) {
        Map<String, Double> amps = new HashMap<>();
        for (Circuit circuit : circuits) {
            circuit.gauges().stream()
                    .filter(Gauge::isClamped)
                    .forEach(g -> amps.put(g.part(), g.amps(circuit, 1)));
        }
        List<CaptureStudy> all = new ArrayList<>();
        all.add(
                new CaptureStudy(
                        c -> has(c, LaneRole.PLUS_CABLE) || has(c, LaneRole.EARTH_CABLE),
                        "What is lost at a start cannot be told.",
                        StartingStudy::whyNot,
                        StartingStudy::judge));
        all.add(
                new CaptureStudy(
                        c -> has(c, LaneRole.SUPPLY),
                        "Its ripple cannot be judged.",
                        RippleStudy::whyNot,
                        RippleStudy::judge));
        all.add(
                new CaptureStudy(
                        c -> has(c, LaneRole.COUNT),
                        "Who left first cannot be told.",
                        DepartureStudy::whyNot,
                        DepartureStudy::judge));
        cylinders.ifPresent(
                its -> {
                    all.add(
                            new CaptureStudy(
                                    c -> has(c, LaneRole.CRANK),
                                    "Its marks cannot be judged.",
                                    c -> ToothStudy.whyNot(c, its),
                                    c -> ToothStudy.judge(c, its)));
                    all.add(
                            new CaptureStudy(
                                    c -> has(c, LaneRole.SPARKS),
                                    "Sparks cannot be compared in it.",
                                    c -> SparkStudy.whyNot(c, its.order()),
                                    c -> SparkStudy.judge(c, its.order())));
                    PressureStudy pressure = new PressureStudy(its);
                    all.add(
                            new CaptureStudy(
                                    c -> has(c, LaneRole.CYLINDER),
                                    "Its pressure cannot be judged.",
                                    PressureStudy::whyNot,
                                    pressure::judge));
                    CurrentStudy currents = new CurrentStudy(its.order(), amps);
                    all.add(
                            new CaptureStudy(
                                    c -> has(c, LaneRole.INJECTORS) || has(c, LaneRole.COILS),
                                    "Currents cannot be compared in it.",
                                    currents::whyNot,
                                    currents::judge));
                    all.add(
                            new CaptureStudy(
                                    c ->
                                            has(c, LaneRole.FIRST_CYLINDER)
                                                    || has(c, LaneRole.EXHAUST),
                                    "Cylinders cannot be compared in it.",
                                    c -> CrankingStudy.whyNot(c, its.order()),
                                    c -> CrankingStudy.judge(c, its.order(), FIRES_BEFORE)));
                });
        return List.copyOf(all);
    }
}
