package brightlantern.core.tank;

import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * Judges a leak test with a pump and a reference orifice. With the vent open the pump draws through
 * the orifice; with it closed, through whatever holes the system has. A system that is drawn down
 * as far as the orifice allows leaks no more than it. The pump's flow falls in a straight line with
 * pressure, the flow through a hole rises with the root of it (Bernoulli), so both pressures
 * together give the size of the hole.
 */
public final class TankTest {
    /** The values that it reads, in this order: pressure, pump, vent (1 closed), purge (1 open). */
    public static final List<String> VALUES =
            List.of("leak.pressure", "leak.pump", "leak.vent", "leak.purge");

    /** What it may come to; the size of a leak is told in the reasons. */
    public enum Outcome {
        TIGHT("tight"),
        LEAK("leak"),
        PURGE_SHUT("purge-shut"),
        PURGE_OPEN("purge-open"),
        VENT_OPEN("vent-open"),
        PUMP_WEAK("pump-weak"),
        PUMP_DEAD("pump-dead"),
        REFERENCE_BLOCKED("reference-blocked"),
        CANNOT_TELL("cannot-tell");

        private final String id;

        Outcome(String id) {
            this.id = id;
        }

        /** As procedures name it. */
        public String id() {
            return id;
        }
    }

    /** A part of the curve in which pump and valves stay as they are. */
    public enum Phase {
        AMBIENT("ambient"),
        REFERENCE("reference orifice"),
        SYSTEM("system drawn down"),
        PURGED("purge opened"),
        REFERENCE_AGAIN("reference again"),
        AMBIENT_AGAIN("ambient again");

        private final String title;

        Phase(String title) {
            this.title = title;
        }

        /** As people read it. */
        public String title() {
            return title;
        }
    }

    /**
     * A phase as it was found.
     *
     * @param from and to: seconds of the take
     * @param settled vacuum at its end, kPa
     * @param foretold where it was heading, kPa; the same when it had come to rest
     */
    public record Found(Phase phase, double from, double to, double settled, double foretold) {}

    /**
     * @param hole equivalent diameter, mm; NaN when it is not known
     */
    public record Verdict(
            Outcome outcome,
            double hole,
            String sentence,
            List<String> reasons,
            List<Found> phases) {}

    /** Figures of a vehicle's test; pressures are vacuum in kPa. */
    public record Spec(double referenceMm, double referenceKpa, double pumpMostKpa) {}

    /** Pressure at rest further from nothing than this is a sensor that is off, kPa. */
    private static final double REST_KPA = 0.35;

    private static final double DEAD_SHARE = 0.12;
    private static final double WEAK_SHARE = 0.6;
    private static final double BLOCKED_SHARE = 1.6;

    /** Both references may differ by this share; more, and something moved meanwhile. */
    private static final double REFERENCES_APART = 0.15;

    /** A vacuum below this share of the reference's is none: an opening as wide as the vent. */
    private static final double NONE_SHARE = 0.0012;

    /** Opening the purge valve must take at least this share of the vacuum away. */
    private static final double PURGE_TAKES = 0.5;

    /** A hole up to so much larger than the reference still counts as no larger. */
    private static final double HOLE_MARGIN = 1.04;

    /** A purge line passes about as much as a hole from this size on, mm. */
    private static final double PURGE_LIKE_MM = 1.5;

    /** The end of a phase at which it has come to rest, as a share of its length. */
    private static final double END_SHARE = 0.2;

    private static final double LEAST_PHASE_SECONDS = 0.8;

    private TankTest() {}

    /** Judges the newest whole test of a take that holds {@link #VALUES}. */
    public static Verdict judge(Take take, Spec spec) {
        for (String id : VALUES) {
            if (!take.columns().containsKey(id) || take.columns().get(id).size() < 3) {
                return cannot("The take does not hold " + id + ".", List.of());
            }
        }
        List<Found> phases = phases(take);
        Map<Phase, Found> by = new EnumMap<>(Phase.class);
        phases.forEach(f -> by.put(f.phase(), f));
        for (Phase needed : List.of(Phase.AMBIENT, Phase.REFERENCE)) {
            if (!by.containsKey(needed)) {
                return missing(needed, phases);
            }
        }
        List<String> reasons = new ArrayList<>();
        double rest = by.get(Phase.AMBIENT).settled();
        if (Math.abs(rest) > REST_KPA) {
            return cannot(
                    text(
                            "At rest the sensor tells %.2f kPa instead of nothing; it is off, or the"
                                    + " vent line is blocked.",
                            -rest),
                    phases);
        }
        double reference = by.get(Phase.REFERENCE).settled() - rest;
        double share = reference / spec.referenceKpa();
        if (share < DEAD_SHARE) {
            return verdict(
                    Outcome.PUMP_DEAD,
                    Double.NaN,
                    "The pump draws nothing, not even through the reference orifice.",
                    List.of(told("Reference orifice", reference, spec.referenceKpa())),
                    phases);
        }
        if (share < WEAK_SHARE) {
            return verdict(
                    Outcome.PUMP_WEAK,
                    Double.NaN,
                    "The pump is weak: too little vacuum at the reference orifice.",
                    List.of(told("Reference orifice", reference, spec.referenceKpa())),
                    phases);
        }
        if (share > BLOCKED_SHARE) {
            return verdict(
                    Outcome.REFERENCE_BLOCKED,
                    Double.NaN,
                    "The reference orifice is blocked: more vacuum at it than a free one allows.",
                    List.of(told("Reference orifice", reference, spec.referenceKpa())),
                    phases);
        }
        if (!by.containsKey(Phase.SYSTEM)) {
            return missing(Phase.SYSTEM, phases);
        }
        reasons.add(told("The pump is good. Reference orifice", reference, spec.referenceKpa()));
        if (by.containsKey(Phase.REFERENCE_AGAIN)) {
            double again = by.get(Phase.REFERENCE_AGAIN).settled() - rest;
            if (Math.abs(again - reference) > REFERENCES_APART * reference) {
                return cannot(
                        text(
                                "The reference changed meanwhile, from %.2f to %.2f kPa; test again with"
                                        + " cool fuel and a vehicle that stands still.",
                                reference, again),
                        phases);
            }
            reasons.add(
                    text("The reference came back to %.2f kPa: nothing moved meanwhile.", again));
        }
        return system(by, spec, reference, rest, reasons, phases);
    }

    private static Verdict system(
            Map<Phase, Found> by,
            Spec spec,
            double reference,
            double rest,
            List<String> reasons,
            List<Found> phases) {
        double drawn = by.get(Phase.SYSTEM).foretold() - rest;
        double now = by.get(Phase.SYSTEM).settled() - rest;
        Optional<Double> purged =
                Optional.ofNullable(by.get(Phase.PURGED)).map(f -> f.settled() - rest);
        boolean released = purged.isPresent() && purged.get() < (1 - PURGE_TAKES) * now;
        reasons.add(
                text(
                        "With the vent closed the system was drawn to %.3f kPa%s.",
                        now, drawn > now * 1.03 ? text(" and was heading for %.2f", drawn) : ""));
        purged.ifPresent(
                p ->
                        reasons.add(
                                text(
                                        "Opening the purge valve left %.3f kPa: it %s.",
                                        p,
                                        p < (1 - PURGE_TAKES) * now
                                                ? "opens"
                                                : "changes nothing")));
        if (now < NONE_SHARE * reference) {
            return verdict(
                    Outcome.VENT_OPEN,
                    Double.NaN,
                    "No vacuum builds up at all: the vent does not close.",
                    reasons,
                    phases);
        }
        double hole = hole(spec, reference, drawn);
        reasons.add(
                text(
                        "That is as much as a hole of %.2f mm; up to %.1f mm is allowed.",
                        hole, spec.referenceMm()));
        if (hole <= spec.referenceMm() * HOLE_MARGIN) {
            return purged.isPresent() && !released
                    ? verdict(
                            Outcome.PURGE_SHUT,
                            hole,
                            "The system is tight, but the purge valve does not open.",
                            reasons,
                            phases)
                    : verdict(Outcome.TIGHT, hole, "The tank system is tight.", reasons, phases);
        }
        if (purged.isPresent() && !released && hole > PURGE_LIKE_MM) {
            return verdict(
                    Outcome.PURGE_OPEN,
                    hole,
                    text(
                            "The system leaks like a hole of %.1f mm, and opening the purge valve"
                                    + " changes nothing: it stands open already.",
                            hole),
                    reasons,
                    phases);
        }
        return verdict(
                Outcome.LEAK,
                hole,
                text("The system leaks like a hole of %.1f mm.", hole),
                reasons,
                phases);
    }

    /**
     * Equivalent diameter from equal flows: pump (1 − p/pMost), hole d²·√p.
     *
     * @return mm
     */
    static double hole(Spec spec, double reference, double drawn) {
        double most = spec.pumpMostKpa();
        double flow = Math.max(1e-3, 1 - drawn / most) / Math.max(1e-3, 1 - reference / most);
        return spec.referenceMm() * Math.sqrt(flow * Math.sqrt(reference / Math.max(1e-6, drawn)));
    }

    private static Verdict missing(Phase needed, List<Found> phases) {
        return cannot(
                "The phase '" + needed.title() + "' is missing: the test did not run whole.",
                phases);
    }

    private static String told(String what, double is, double wanted) {
        return text("%s: %.2f kPa; some %.1f are right.", what, is, wanted);
    }

    private static Verdict cannot(String why, List<Found> phases) {
        return verdict(
                Outcome.CANNOT_TELL, Double.NaN, "The test cannot tell.", List.of(why), phases);
    }

    private static Verdict verdict(
            Outcome outcome,
            double hole,
            String sentence,
            List<String> reasons,
            List<Found> phases) {
        return new Verdict(outcome, hole, sentence, List.copyOf(reasons), phases);
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }

    /** Phases of the newest test, by what pump and valves were told. */
    public static List<Found> phases(Take take) {
        Take.Column pressure = take.columns().get(VALUES.get(0));
        List<Found> found = new ArrayList<>();
        int first = 0;
        int before = key(take, pressure.seconds(0));
        for (int i = 1; i <= pressure.size(); i++) {
            int key = i < pressure.size() ? key(take, pressure.seconds(i)) : -1;
            if (key != before) {
                phase(pressure, first, i - 1, before, found);
                first = i;
                before = key;
            }
        }
        return List.copyOf(found);
    }

    private static int key(Take take, double t) {
        int key = 0;
        for (int i = 1; i < VALUES.size(); i++) {
            double v = take.at(VALUES.get(i), t);
            key = key * 2 + (v > 0.5 ? 1 : 0);
        }
        return key;
    }

    private static void phase(
            Take.Column pressure, int first, int last, int key, List<Found> found) {
        double from = pressure.seconds(first);
        double to = pressure.seconds(last);
        if (to - from < LEAST_PHASE_SECONDS) {
            return;
        }
        boolean pump = (key & 4) != 0;
        boolean closed = (key & 2) != 0;
        boolean purge = (key & 1) != 0;
        int newest = found.size() - 1;
        if (pump && newest >= 0 && found.get(newest).phase() == Phase.AMBIENT_AGAIN) {
            // another test begins: the rest before it belongs to it, all else to an older one
            Found rest = found.get(newest);
            found.clear();
            found.add(
                    new Found(
                            Phase.AMBIENT,
                            rest.from(),
                            rest.to(),
                            rest.settled(),
                            rest.foretold()));
        }
        boolean drawn = found.stream().anyMatch(f -> f.phase() == Phase.SYSTEM);
        Phase phase =
                !pump
                        ? drawn ? Phase.AMBIENT_AGAIN : Phase.AMBIENT
                        : !closed
                                ? drawn ? Phase.REFERENCE_AGAIN : Phase.REFERENCE
                                : purge ? Phase.PURGED : Phase.SYSTEM;
        if (phase == Phase.AMBIENT) {
            found.clear();
        }
        double third = (to - from) / 3;
        double end = mean(pressure, to - END_SHARE * (to - from), to);
        double a = mean(pressure, from + 0.8 * third, from + 1.2 * third);
        double b = mean(pressure, from + 1.7 * third, from + 2.1 * third);
        double c = mean(pressure, from + 2.6 * third, to);
        double foretold = end;
        double bend = c - b - (b - a);
        // Aitken: an exponential goes on by the same ratio
        if (phase == Phase.SYSTEM && c - b > 0.01 && b - a > c - b && bend < 0) {
            foretold = Math.max(end, c - (c - b) * (c - b) / bend);
        }
        found.add(new Found(phase, from, to, end, foretold));
    }

    /** Mean vacuum over a time, kPa. */
    private static double mean(Take.Column pressure, double from, double to) {
        double sum = 0;
        int n = 0;
        for (int i = Math.max(0, pressure.indexAt(from)); i < pressure.size(); i++) {
            if (pressure.seconds(i) > to) {
                break;
            }
            if (Double.isFinite(pressure.value(i))) {
                sum -= pressure.value(i);
                n++;
            }
        }
        return n == 0 ? Double.NaN : sum / n;
    }
}
