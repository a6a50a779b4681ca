package brightlantern.core.proof;

import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.suspect.Evidence;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** What this fault needs before its repair counts as proven, and how far that has come. */
public final class Proof {
    /** The freeze frame's conditions must have been met for so long in the drive. */
    public static final double FRAME_SECONDS = 5;

    private Proof() {}

    public enum State {
        OPEN("still open"),
        PROVEN("proven"),
        FAILED("failed");

        private final String words;

        State(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** One thing that must be shown; {@code seen} says what showed it, or what is missing. */
    public record Requirement(String id, String what, State state, String seen, String stage) {}

    public record Verdict(State state, String sentence, List<Requirement> requirements) {}

    public record DatedEvidence(Instant at, Evidence evidence, String text) {}

    /**
     * @param codes of the lead code's family that the sweep still holds with a failure since the
     *     last clear
     */
    public record DatedSweep(Instant at, boolean whole, Set<String> codes) {}

    public record DatedDrive(Instant at, TargetStudy.Verdict verdict) {}

    /**
     * All that was recorded.
     *
     * @param repaired when the repair was done
     * @param leadCode the code that the fault showed itself by, with its freeze frame; empty when
     *     there was none
     * @param driveJudged whether the description has a target by which a drive can be judged
     */
    public record Record(
            Instant repaired,
            Optional<String> leadCode,
            boolean frameKnown,
            List<DatedEvidence> evidence,
            List<Instant> clears,
            List<Instant> keyCycles,
            List<DatedSweep> sweeps,
            List<DatedDrive> drives,
            boolean driveJudged) {}

    public static Verdict judge(Record record) {
        List<Requirement> needed = new ArrayList<>();
        Instant repaired = record.repaired();
        record.evidence().stream()
                .filter(e -> e.at().isBefore(repaired) && failed(e.evidence()))
                .map(e -> e.evidence().key())
                .distinct()
                .forEach(key -> needed.add(repeated(record, key)));
        Optional<Instant> clear = first(record.clears(), repaired);
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
        needed.add(sweep(record, "sweep", "Sweep after the key cycle: the code stays away", cycle));
        if (!record.driveJudged()) {
            return verdict(needed);
        }
        Optional<DatedDrive> drive = clear.flatMap(c -> drive(record, c));
        needed.add(drive(record, drive));
        needed.add(
                sweep(
                        record,
                        "sweep-after-drive",
                        "Sweep after the drive: the code stays away",
                        drive.filter(d -> meetsFrame(record, d)).map(DatedDrive::at)));
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
                        open + " of " + needed.size() + " things are still to be shown.",
                        needed)
                : new Verdict(
                        State.PROVEN,
                        "Proven: all " + needed.size() + " things were shown.",
                        needed);
    }

    private static boolean failed(Evidence evidence) {
        return evidence instanceof Evidence.Run run && !run.passed()
                || evidence instanceof Evidence.Reading reading && !reading.passed()
                || evidence instanceof Evidence.Heard heard && !heard.passed();
    }

    private static Requirement repeated(Record record, String key) {
        DatedEvidence before =
                newest(record, key, e -> e.at().isBefore(record.repaired())).orElseThrow();
        Optional<DatedEvidence> after =
                newest(record, key, e -> !e.at().isBefore(record.repaired()));
        String stage =
                before.evidence() instanceof Evidence.Run
                        ? "exercise"
                        : before.evidence() instanceof Evidence.Heard ? "sweep" : "probe";
        State state =
                after.map(e -> failed(e.evidence()) ? State.FAILED : State.PROVEN)
                        .orElse(State.OPEN);
        return new Requirement(
                key,
                "The check that failed passes now: " + before.text(),
                state,
                after.map(DatedEvidence::text).orElse("Do it again."),
                stage);
    }

    private static Optional<DatedEvidence> newest(
            Record record, String key, java.util.function.Predicate<DatedEvidence> when) {
        return record.evidence().stream()
                .filter(e -> e.evidence().key().equals(key))
                .filter(when)
                .max(Comparator.comparing(DatedEvidence::at));
    }

    private static Requirement sweep(
            Record record, String id, String what, Optional<Instant> after) {
        Optional<DatedSweep> sweep =
                after.flatMap(
                        a ->
                                record.sweeps().stream()
                                        .filter(s -> s.at().isAfter(a) && s.whole())
                                        .max(Comparator.comparing(DatedSweep::at)));
        if (sweep.isEmpty()) {
            return new Requirement(id, what, State.OPEN, "Sweep all modules once more.", "sweep");
        }
        boolean clean = sweep.get().codes().isEmpty();
        return new Requirement(
                id,
                what,
                clean ? State.PROVEN : State.FAILED,
                clean ? "It stayed away." : "Back: " + String.join(", ", sweep.get().codes()),
                "sweep");
    }

    private static Requirement drive(Record record, Optional<DatedDrive> drive) {
        String what =
                record.frameKnown()
                        ? "A drive that meets the freeze frame's conditions, with the target followed"
                        : "A drive under the complaint's conditions, with the target followed";
        if (drive.isEmpty()) {
            return new Requirement(
                    "drive",
                    what,
                    State.OPEN,
                    "Record a take of such a drive in Watch, after the clear.",
                    "watch");
        }
        TargetStudy.Verdict verdict = drive.get().verdict();
        if (!verdict.outcome().equals("follows")) {
            return new Requirement("drive", what, State.FAILED, verdict.sentence(), "watch");
        }
        if (!meetsFrame(record, drive.get())) {
            return new Requirement(
                    "drive",
                    what,
                    State.OPEN,
                    String.format(
                            Locale.ROOT,
                            "The drive met the freeze frame's conditions for %.1f s only; %.0f s are needed.",
                            verdict.frameSeconds(),
                            FRAME_SECONDS),
                    "watch");
        }
        return new Requirement("drive", what, State.PROVEN, verdict.sentence(), "watch");
    }

    private static boolean meetsFrame(Record record, DatedDrive drive) {
        return !record.frameKnown() || drive.verdict().frameSeconds() >= FRAME_SECONDS;
    }

    /**
     * The newest drive; one that failed counts even when a milder one came after it only if it is
     * the newest.
     */
    private static Optional<DatedDrive> drive(Record record, Instant after) {
        return record.drives().stream()
                .filter(d -> d.at().isAfter(after))
                .max(Comparator.comparing(DatedDrive::at));
    }

    private static Optional<Instant> first(List<Instant> times, Instant after) {
        return times.stream().filter(t -> t.isAfter(after)).min(Comparator.naturalOrder());
    }
}
