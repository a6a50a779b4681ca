package brightlantern.core.proof;

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
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** What this fault needs before its repair counts as proven, and how far that has come. */
public final class Proof {
    /** Key of the technician's word that the complaint was tried again. */
    public static final String COMPLAINT = "complaint";

    /** A recording of a complaint without measurable conditions must at least be so long, s. */
    public static final double LEAST_DRIVE_SECONDS = 30;

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
     * @param where the place in the job where it is done: a stage, or a page below it
     */
    public record Requirement(String id, String what, State state, String seen, String where) {}

    public record Verdict(State state, String sentence, List<Requirement> requirements) {}

    /**
     * Something that was checked.
     *
     * @param where the place in the job where it is done: a stage, or a page below it
     * @param key the same for the same check done again; empty for what is no check
     * @param passed empty for what is neither right nor wrong
     */
    public record DatedFinding(
            Instant at, String where, String key, Optional<Boolean> passed, String text) {
        boolean failed() {
            return !key.isEmpty() && passed.isPresent() && !passed.get();
        }
    }

    /**
     * @param codes that it still holds with a failure since the last clear, of those that the
     *     repair is to keep away
     * @param notRun of those codes, the ones whose test has not run since the last clear, as far as
     *     the modules tell
     */
    public record DatedSweep(Instant at, boolean whole, Set<String> codes, Set<String> notRun) {
        public DatedSweep {
            codes = Set.copyOf(codes);
            notRun = Set.copyOf(notRun);
        }
    }

    /**
     * A recording.
     *
     * @param seconds how long it is with the engine running or the vehicle awake
     */
    public record DatedTake(Instant at, String name, double seconds, DriveConditions.Met met) {}

    /**
     * All that was recorded.
     *
     * @param repaired when the repair was done
     * @param codes that were there before the repair and that it is to keep away
     * @param conditions under which the fault showed; empty when nothing tells them
     * @param standing whether it shows while the vehicle stands, as a lamp does: then no drive
     *     proves anything, and without codes there are none to clear
     * @param came code → what its freeze frame showed, in words; codes without one are missing
     */
    public record Record(
            Instant repaired,
            Set<String> codes,
            DriveConditions conditions,
            boolean standing,
            Map<String, String> came,
            List<DatedFinding> findings,
            List<Instant> clears,
            List<Instant> keyCycles,
            List<DatedSweep> sweeps,
            List<DatedTake> takes) {
        public Record {
            codes = Set.copyOf(codes);
            findings = List.copyOf(findings);
        }
    }

    /** Lists what must be shown, and what of it was. */
    public static Verdict judge(Record record) {
        List<Requirement> needed = new ArrayList<>(repeated(record));
        if (record.standing() && record.codes().isEmpty()) {
            needed.add(complaint(record));
            return verdict(needed);
        }
        Optional<Instant> clear = first(record.clears(), record.repaired());
        needed.add(
                new Requirement(
                        "clear",
                        "Codes cleared after the repair",
                        clear.isPresent() ? State.PROVEN : State.OPEN,
                        clear.isPresent()
                                ? "Cleared."
                                : "Clear all modules in Sweep; the sweep before it must be kept.",
                        "sweep"));
        Optional<Instant> cycle = clear.flatMap(c -> first(record.keyCycles(), c));
        needed.add(
                new Requirement(
                        "key",
                        "Key off and on after the clear",
                        cycle.isPresent() ? State.PROVEN : State.OPEN,
                        cycle.isPresent()
                                ? "Seen on the vehicle's ignition."
                                : "Key off, wait, key on.",
                        "prove"));
        Optional<DatedTake> drive = clear.flatMap(c -> drive(record, c));
        if (!record.standing()) {
            needed.add(drive(record, drive));
        }
        if (record.standing() || record.conditions().isEmpty() || told(record).isPresent()) {
            needed.add(complaint(record));
        }
        needed.add(
                record.standing()
                        ? sweep(record, "Sweep after the key cycle: the codes stay away", cycle)
                        : sweep(
                                record,
                                "Sweep after the recording: the codes stay away",
                                drive.filter(d -> enough(record, d)).map(DatedTake::at)));
        if (!record.codes().isEmpty()) {
            needed.add(monitors(record, clear));
        }
        return verdict(needed);
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
    private static List<Requirement> repeated(Record record) {
        Map<String, DatedFinding> before = new LinkedHashMap<>();
        Map<String, DatedFinding> after = new LinkedHashMap<>();
        for (DatedFinding f : record.findings()) {
            if (f.key().isEmpty() || f.key().equals(COMPLAINT) || f.passed().isEmpty()) {
                continue;
            }
            (f.at().isBefore(record.repaired()) ? before : after).put(f.key(), f);
        }
        Set<String> keys = new LinkedHashSet<>();
        before.values().stream().filter(DatedFinding::failed).forEach(f -> keys.add(f.key()));
        // what failed only after the repair must pass as well, whoever thought of it
        after.values().stream().filter(DatedFinding::failed).forEach(f -> keys.add(f.key()));
        return keys.stream()
                .map(
                        key -> {
                            Optional<DatedFinding> again = Optional.ofNullable(after.get(key));
                            DatedFinding first =
                                    Optional.ofNullable(before.get(key))
                                            .orElseGet(() -> after.get(key));
                            return new Requirement(
                                    key,
                                    "The check that failed passes now: " + first.text(),
                                    again.map(f -> f.failed() ? State.FAILED : State.PROVEN)
                                            .orElse(State.OPEN),
                                    again.map(DatedFinding::text).orElse("Do it again."),
                                    first.where());
                        })
                .toList();
    }

    private static Requirement drive(Record record, Optional<DatedTake> drive) {
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
                    "drive", what, State.OPEN, "Record a take in Watch, after the clear.", "watch");
        }
        DatedTake take = drive.get();
        if (!take.met().missing().isEmpty()) {
            return new Requirement(
                    "drive",
                    what,
                    State.OPEN,
                    take.name()
                            + " does not tell: not recorded were "
                            + String.join(", ", take.met().missing())
                            + ".",
                    "watch");
        }
        double had = under.isEmpty() ? take.seconds() : take.met().seconds();
        double wanted = under.isEmpty() ? LEAST_DRIVE_SECONDS : under.seconds();
        return new Requirement(
                "drive",
                what,
                enough(record, take) ? State.PROVEN : State.OPEN,
                String.format(
                        Locale.ROOT,
                        enough(record, take)
                                ? "%s: met for %.0f s."
                                : "%s: met for %.0f s only; %.0f s are needed.",
                        take.name(),
                        had,
                        wanted),
                "watch");
    }

    private static boolean enough(Record record, DatedTake take) {
        return record.conditions().isEmpty()
                ? take.seconds() >= LEAST_DRIVE_SECONDS
                : take.met().seconds() >= record.conditions().seconds();
    }

    /** The recording since then that came nearest; of equals the newest. */
    private static Optional<DatedTake> drive(Record record, Instant after) {
        return record.takes().stream()
                .filter(t -> t.at().isAfter(after))
                .max(
                        Comparator.comparing((DatedTake t) -> enough(record, t))
                                .thenComparing(
                                        t ->
                                                record.conditions().isEmpty()
                                                        ? t.seconds()
                                                        : t.met().seconds())
                                .thenComparing(DatedTake::at));
    }

    private static Optional<DatedFinding> told(Record record) {
        return record.findings().stream()
                .filter(f -> f.key().equals(COMPLAINT) && !f.at().isBefore(record.repaired()))
                .max(Comparator.comparing(DatedFinding::at));
    }

    private static Requirement complaint(Record record) {
        Optional<DatedFinding> told = told(record);
        return new Requirement(
                COMPLAINT,
                "The complaint, tried again under its conditions, is gone",
                told.map(f -> f.failed() ? State.FAILED : State.PROVEN).orElse(State.OPEN),
                told.map(DatedFinding::text)
                        .orElse("Try it as the customer told it, and say below what you found."),
                "prove");
    }

    private static Requirement sweep(Record record, String what, Optional<Instant> after) {
        Optional<DatedSweep> sweep =
                newest(record, s -> after.map(a -> s.at().isAfter(a)).orElse(false));
        Optional<DatedSweep> back =
                first(record.clears(), record.repaired())
                        .flatMap(c -> newest(record, s -> s.at().isAfter(c)))
                        .filter(s -> !s.codes().isEmpty());
        if (back.isPresent()) {
            return new Requirement(
                    "sweep",
                    what,
                    State.FAILED,
                    "Back: " + String.join(", ", back.get().codes()),
                    "sweep");
        }
        return sweep.isPresent()
                ? new Requirement("sweep", what, State.PROVEN, "They stayed away.", "sweep")
                : new Requirement("sweep", what, State.OPEN, "Sweep all modules then.", "sweep");
    }

    private static Requirement monitors(Record record, Optional<Instant> clear) {
        String what = "The tests that set " + joined(record.codes()) + " have run since the clear";
        Optional<DatedSweep> sweep = clear.flatMap(c -> newest(record, s -> s.at().isAfter(c)));
        if (sweep.isEmpty()) {
            return new Requirement(
                    "monitors", what, State.OPEN, "A sweep after the clear tells.", "sweep");
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
                "sweep");
    }

    private static String came(Record record, Set<String> codes) {
        return codes.stream()
                .sorted()
                .filter(record.came()::containsKey)
                .map(c -> " " + c + " came at " + record.came().get(c) + ".")
                .collect(Collectors.joining());
    }

    private static String joined(Set<String> codes) {
        return String.join(", ", codes.stream().sorted().toList());
    }

    private static Optional<DatedSweep> newest(Record record, Predicate<DatedSweep> when) {
        return record.sweeps().stream()
                .filter(s -> s.whole() && when.test(s))
                .max(Comparator.comparing(DatedSweep::at));
    }

    private static Optional<Instant> first(List<Instant> times, Instant after) {
        return times.stream().filter(t -> t.isAfter(after)).min(Comparator.naturalOrder());
    }
}
