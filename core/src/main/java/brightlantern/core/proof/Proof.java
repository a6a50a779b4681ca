package brightlantern.core.proof;

import brightlantern.core.code.Code;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.Remaining;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Place;
import brightlantern.core.suspect.Suspect;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;

/** What this fault needs before its repair counts as proven, and how far that has come. */
public final class Proof {
    private static final String SWEEP = "sweep";

    /** Where things are shown. */
    private static final Place HERE = Place.of("prove");

    private static final Place SWEEPING = Place.of("sweep");
    private static final Place WATCHING = Place.of("watch");

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
        if (needed(record).stream()
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
        needed(record).forEach(r -> needed.add(r.telling(tells(record, r, left))));
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

    private static List<Requirement> needed(ProofRecord record) {
        List<Requirement> needed = new ArrayList<>(repeated(record));
        if (record.standing() && record.codes().isEmpty()) {
            needed.add(complaint(record));
            return needed;
        }
        Optional<Instant> clear = record.clear();
        needed.add(
                new Requirement(
                        "clear",
                        "Codes cleared after the repair",
                        clear.isPresent() ? State.PROVEN : State.OPEN,
                        clear.isPresent()
                                ? "Cleared."
                                : "Clear all modules in Sweep; the sweep before it must be kept.",
                        SWEEPING));
        Optional<Instant> cycle = clear.flatMap(record::keyCycle);
        needed.add(
                new Requirement(
                        "key",
                        "Key off and on after the clear",
                        cycle.isPresent() ? State.PROVEN : State.OPEN,
                        cycle.isPresent()
                                ? "Seen on the vehicle's ignition."
                                : "Key off, wait, key on.",
                        HERE));
        Optional<ProofRecord.DatedTake> drive = clear.flatMap(c -> record.drive(c));
        if (!record.standing()) {
            needed.add(drive(record, drive));
        }
        if (record.standing() || record.conditions().isEmpty() || record.told().isPresent()) {
            needed.add(complaint(record));
        }
        needed.add(
                record.standing()
                        ? sweep(record, "Sweep after the key cycle: the codes stay away", cycle)
                        : sweep(
                                record,
                                "Sweep after the recording: the codes stay away",
                                drive.filter(d -> record.enough(d))
                                        .map(ProofRecord.DatedTake::at)));
        if (!record.codes().isEmpty()) {
            needed.add(monitors(record, clear));
        }
        return needed;
    }

    private static Verdict verdict(List<Requirement> needed) {
        long open = needed.stream().filter(r -> r.state() == State.OPEN).count();
        List<String> failed =
                needed.stream()
                        .filter(r -> r.state() == State.FAILED)
                        .map(r -> r.what().toLowerCase(Locale.ROOT))
                        .toList();
        if (!failed.isEmpty()) {
            return new Verdict(
                    State.FAILED,
                    "The repair did not hold: " + String.join("; ", failed) + ".",
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

    /** Every check of any kind whose newest result before the repair was a failure. */
    private static List<Requirement> repeated(ProofRecord record) {
        Map<String, ProofRecord.DatedFinding> before = new LinkedHashMap<>();
        Map<String, ProofRecord.DatedFinding> after = new LinkedHashMap<>();
        for (ProofRecord.DatedFinding f : record.findings()) {
            if (f.key().isEmpty()
                    || f.key().equals(ProofRecord.COMPLAINT)
                    || f.passed().isEmpty()) {
                continue;
            }
            (f.at().isBefore(record.repaired()) ? before : after).put(f.key(), f);
        }
        Set<String> keys = new LinkedHashSet<>();
        before.values().stream()
                .filter(ProofRecord.DatedFinding::failed)
                .forEach(f -> keys.add(f.key()));
        // what failed only after the repair must pass as well, whoever thought of it
        after.values().stream()
                .filter(ProofRecord.DatedFinding::failed)
                .forEach(f -> keys.add(f.key()));
        return keys.stream()
                .map(
                        key -> {
                            Optional<ProofRecord.DatedFinding> again =
                                    Optional.ofNullable(after.get(key));
                            ProofRecord.DatedFinding first =
                                    Optional.ofNullable(before.get(key))
                                            .orElseGet(() -> after.get(key));
                            return new Requirement(
                                    key,
                                    "The check that failed passes now: " + first.text(),
                                    again.map(f -> f.failed() ? State.FAILED : State.PROVEN)
                                            .orElse(State.OPEN),
                                    again.map(ProofRecord.DatedFinding::text)
                                            .orElse("Do it again."),
                                    first.where());
                        })
                .toList();
    }

    private static Requirement drive(ProofRecord record, Optional<ProofRecord.DatedTake> drive) {
        DriveConditions under = record.conditions();
        String what =
                under.isEmpty()
                        ? "A recording of a drive as the customer told it"
                        : String.format(
                                Locale.ROOT,
                                "A recording that meets %s for %.0f s: %s",
                                under.from(),
                                under.seconds(),
                                under.words());
        if (drive.isEmpty()) {
            return new Requirement(
                    "drive",
                    what,
                    State.OPEN,
                    "Record a take in Watch, after the clear.",
                    WATCHING);
        }
        ProofRecord.DatedTake take = drive.get();
        if (!take.met().missing().isEmpty()) {
            return new Requirement(
                    "drive",
                    what,
                    State.OPEN,
                    take.name()
                            + " does not tell: not recorded were "
                            + String.join(", ", take.met().missing())
                            + ".",
                    WATCHING);
        }
        double had = under.isEmpty() ? take.seconds() : take.met().seconds();
        double wanted = under.isEmpty() ? ProofRecord.LEAST_DRIVE_SECONDS : under.seconds();
        return new Requirement(
                "drive",
                what,
                record.enough(take) ? State.PROVEN : State.OPEN,
                String.format(
                        Locale.ROOT,
                        record.enough(take)
                                ? "%s: met for %.0f s."
                                : "%s: met for %.0f s only; %.0f s are needed.",
                        take.name(),
                        had,
                        wanted),
                WATCHING);
    }

    private static Requirement complaint(ProofRecord record) {
        Optional<ProofRecord.DatedFinding> told = record.told();
        return new Requirement(
                ProofRecord.COMPLAINT,
                "The complaint, tried again under its conditions, is gone",
                told.map(f -> f.failed() ? State.FAILED : State.PROVEN).orElse(State.OPEN),
                told.map(ProofRecord.DatedFinding::text)
                        .orElse("Try it as the customer told it, and say below what you found."),
                HERE);
    }

    private static Requirement sweep(ProofRecord record, String what, Optional<Instant> after) {
        Optional<ProofRecord.DatedSweep> sweep =
                record.newest(s -> after.map(a -> s.at().isAfter(a)).orElse(false));
        Optional<ProofRecord.DatedSweep> back =
                record.clear()
                        .flatMap(c -> record.newest(s -> s.at().isAfter(c)))
                        .filter(s -> !s.codes().isEmpty());
        if (back.isPresent()) {
            return new Requirement(
                    SWEEP,
                    what,
                    State.FAILED,
                    "Back: " + String.join(", ", back.get().codes()),
                    SWEEPING);
        }
        return sweep.isPresent()
                ? new Requirement(SWEEP, what, State.PROVEN, "They stayed away.", SWEEPING)
                : new Requirement(SWEEP, what, State.OPEN, "Sweep all modules then.", SWEEPING);
    }

    private static Requirement monitors(ProofRecord record, Optional<Instant> clear) {
        String what = "The tests that set " + joined(record.codes()) + " have run since the clear";
        Optional<ProofRecord.DatedSweep> sweep =
                clear.flatMap(c -> record.newest(s -> s.at().isAfter(c)));
        if (sweep.isEmpty()) {
            return new Requirement(
                    "monitors", what, State.OPEN, "A sweep after the clear tells.", SWEEPING);
        }
        Set<String> open = sweep.get().notRun();
        return new Requirement(
                "monitors",
                what,
                open.isEmpty() ? State.PROVEN : State.OPEN,
                open.isEmpty()
                        ? "They have run and found nothing."
                        : "Not run yet: "
                                + joined(open)
                                + ". Drive as when the code came, then sweep again."
                                + came(record, open),
                SWEEPING);
    }

    private static String came(ProofRecord record, Set<String> codes) {
        return codes.stream()
                .sorted()
                .filter(record.came()::containsKey)
                .map(c -> " " + c + " came at " + record.came().get(c) + ".")
                .collect(Collectors.joining());
    }

    private static String joined(Set<String> codes) {
        return String.join(", ", codes.stream().sorted().toList());
    }
}
