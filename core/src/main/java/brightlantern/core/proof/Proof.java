package brightlantern.core.proof;

import brightlantern.core.code.Code;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.Remaining;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Place;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** What this fault needs before its repair counts as proven, and how far that has come. */
public final class Proof {
    static final String SWEEP = "sweep";

    /** Where things are shown. */
    static final Place HERE = Place.of("prove");

    private Proof() {}

    public enum State {
        OPEN("still open"),
        PROVEN("proven"),
        FAILED("failed");

        private final String words;

        State(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }
    }

    /**
     * One thing that must be shown.
     *
     * @param seen what showed it, or what is missing
     * @param tells how much it tells, in words; empty while it was not shown, and where it tells
     *     nothing by itself
     * @param where it is done
     */
    public record Requirement(
            String id, String what, State state, String seen, String tells, Place where) {
        Requirement(String id, String what, State state, String seen, Place where) {
            this(id, what, state, seen, "", where);
        }

        private Requirement telling(String words) {
            return new Requirement(id, what, state, seen, words, where);
        }
    }

    public record Verdict(State state, String sentence, List<Requirement> requirements) {}

    /**
     * Of the codes that were there those that a repair of this cause is to keep away: the ones that
     * it sets, the ones that these bring along, and the one by which the fault showed itself. All,
     * when nobody knows better.
     *
     * @param lead the code by which the fault showed itself
     */
    public static Set<String> ofCause(
            Set<String> present, Optional<String> lead, Optional<Suspect> cause, List<Code> known) {
        Set<String> sets = cause.map(s -> s.codes().keySet()).orElse(Set.of());
        Set<String> its = new TreeSet<>(sets);
        known.stream().filter(c -> sets.contains(c.code())).forEach(c -> its.addAll(c.brings()));
        lead.ifPresent(its::add);
        its.retainAll(present);
        return its.isEmpty() ? Set.copyOf(present) : Set.copyOf(its);
    }

    /**
     * What was shown since the repair, as evidence: checks that were done, the complaint tried
     * again, and codes that stayed away although their tests have run.
     */
    public static List<Evidence> shown(ProofRecord record) {
        List<Evidence> shown = new ArrayList<>();
        record.findings().stream()
                .filter(f -> !f.at().isBefore(record.repaired()))
                .flatMap(f -> f.evidence().stream())
                .filter(Evidence::repeatable)
                .filter(e -> !(e instanceof Evidence.SymptomTold))
                .forEach(shown::add);
        record.told().ifPresent(told -> shown.addAll(complaint(record, !told.failed())));
        if (Needed.by(record).stream()
                .anyMatch(r -> r.id().equals(SWEEP) && r.state() == State.PROVEN)) {
            Set<String> notRun =
                    record.newest(s -> true)
                            .map(ProofRecord.DatedSweep::notRun)
                            .orElse(record.codes());
            record.codes().stream()
                    .filter(c -> !notRun.contains(c))
                    .sorted()
                    .forEach(c -> shown.add(new Evidence.CodeSeen(c, false)));
        }
        return shown;
    }

    /**
     * Lists what must be shown, and what of it was.
     *
     * @param left what may still be broken by what was {@link #shown}
     */
    public static Verdict judge(ProofRecord record, Remaining left) {
        List<Requirement> needed = new ArrayList<>();
        Needed.by(record).forEach(r -> needed.add(r.telling(tells(record, r, left))));
        needed.add(little(left));
        return verdict(needed);
    }

    private static List<Evidence> complaint(ProofRecord record, boolean gone) {
        if (!gone) {
            return record.symptoms().stream().<Evidence>map(Evidence.SymptomTold::new).toList();
        }
        return record.symptoms().isEmpty()
                ? List.of(new Evidence.SymptomGone(""))
                : record.symptoms().stream().<Evidence>map(Evidence.SymptomGone::new).toList();
    }

    /** How much what was shown tells, in words. */
    private static String tells(ProofRecord record, Requirement r, Remaining left) {
        if (r.state() != State.PROVEN) {
            return "";
        }
        List<String> keys =
                switch (r.id()) {
                    case SWEEP ->
                            record.codes().stream()
                                    .map(c -> new Evidence.CodeSeen(c, false).key())
                                    .toList();
                    case ProofRecord.COMPLAINT ->
                            complaint(record, true).stream().map(Evidence::key).toList();
                    default -> List.of(r.id());
                };
        return keys.stream()
                .filter(left.tells()::containsKey)
                .map(left.tells()::get)
                .min(Comparator.naturalOrder())
                .filter(t -> t < 1)
                .map(
                        t ->
                                "With something still broken it would come out so in "
                                        + Words.percent(t)
                                        + ".")
                .orElse("");
    }

    private static Requirement little(Remaining left) {
        String still =
                Words.percent(left.chance())
                        + " are left"
                        + (left.isLittle() ? "." : ", most likely: " + left.likeliest() + ".");
        Optional<Check> telling =
                left.isLittle() ? Optional.empty() : left.telling().map(NextCheck::check);
        return new Requirement(
                "left",
                "Together it leaves less than "
                        + Words.percent(Remaining.PROVEN)
                        + " for something still being broken",
                left.isLittle() ? State.PROVEN : State.OPEN,
                still + telling.map(c -> " Most would tell: " + c.name() + ".").orElse(""),
                telling.map(Check::place).orElse(HERE));
    }

    private static Verdict verdict(List<Requirement> needed) {
        long open = needed.stream().filter(r -> r.state() == State.OPEN).count();
        List<String> failed =
                needed.stream()
                        .filter(r -> r.state() == State.FAILED)
                        .map(r -> r.what().replaceAll("[.]$", ""))
                        .toList();
        if (!failed.isEmpty()) {
            return new Verdict(
                    State.FAILED,
                    "The repair did not hold. To be shown, and not so: "
                            + String.join("; ", failed)
                            + ".",
                    needed);
        }
        return open > 0
                ? new Verdict(
                        State.OPEN,
                        open
                                + " of "
                                + needed.size()
                                + (open == 1 ? " things is" : " things are")
                                + " still to be shown.",
                        needed)
                : new Verdict(
                        State.PROVEN,
                        "Proven: all " + needed.size() + " things were shown.",
                        needed);
    }
}
