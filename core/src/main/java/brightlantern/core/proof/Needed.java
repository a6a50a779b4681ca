package brightlantern.core.proof;

import brightlantern.core.proof.Proof.Requirement;
import brightlantern.core.proof.Proof.State;
import brightlantern.core.suspect.Place;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What must be shown of a repair, each ticked off from what was recorded. */
final class Needed {
    private static final Place SWEEPING = Place.of("sweep");
    private static final Place WATCHING = Place.of("watch");

    private Needed() {}

    static List<Requirement> by(ProofRecord record) {
        List<Requirement> needed = new ArrayList<>(repeated(record));
        if (record.standing() && record.codes().isEmpty()) {
            needed.add(complaint(record));
            return needed;
        }
        // where no code came there is none to clear, and the repair is what counts from
        boolean coded = !record.codes().isEmpty();
        Optional<Instant> clear = record.clear();
        Optional<Instant> cycle = clear.flatMap(record::keyCycle);
        if (coded) {
            needed.addAll(cleared(clear, cycle));
        }
        Optional<Instant> begins = coded ? clear : Optional.of(record.repaired());
        Optional<ProofRecord.DatedTake> drive = begins.flatMap(record::drive);
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
                                coded
                                        ? "Sweep after the recording: the codes stay away"
                                        : "Sweep after the recording: no code came",
                                drive.filter(d -> record.enough(d))
                                        .map(ProofRecord.DatedTake::at)));
        needed.add(beside(record, begins));
        if (coded) {
            needed.add(monitors(record, clear));
        }
        return needed;
    }

    private static List<Requirement> cleared(Optional<Instant> clear, Optional<Instant> cycle) {
        return List.of(
                new Requirement(
                        "clear",
                        "Codes cleared after the repair",
                        clear.isPresent() ? State.PROVEN : State.OPEN,
                        clear.isPresent()
                                ? "Cleared."
                                : "Clear all modules in Sweep; the sweep before it must be kept.",
                        SWEEPING),
                new Requirement(
                        "key",
                        "Key off and on after the clear",
                        cycle.isPresent() ? State.PROVEN : State.OPEN,
                        cycle.isPresent()
                                ? "Seen on the vehicle's ignition."
                                : "Key off, wait, key on.",
                        Proof.HERE));
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
                    record.codes().isEmpty()
                            ? "Record a take in Watch, after the repair."
                            : "Record a take in Watch, after the clear.",
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
                Proof.HERE);
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
                    Proof.SWEEP,
                    what,
                    State.FAILED,
                    "Back: " + String.join(", ", back.get().codes()),
                    SWEEPING);
        }
        return sweep.isPresent()
                ? new Requirement(
                        Proof.SWEEP,
                        what,
                        State.PROVEN,
                        record.codes().isEmpty() ? "None came." : "They stayed away.",
                        SWEEPING)
                : new Requirement(
                        Proof.SWEEP, what, State.OPEN, "Sweep all modules then.", SWEEPING);
    }

    /** What was unplugged or moved for a repair must work as before. */
    private static Requirement beside(ProofRecord record, Optional<Instant> begins) {
        String what = "Nothing else went out with the repair: no new code in any module";
        Optional<ProofRecord.DatedSweep> sweep =
                begins.flatMap(b -> record.newest(s -> s.at().isAfter(b)));
        if (sweep.isEmpty()) {
            return new Requirement(
                    "beside", what, State.OPEN, "A sweep of all modules tells.", SWEEPING);
        }
        Set<String> more = sweep.get().more();
        return new Requirement(
                "beside",
                what,
                more.isEmpty() ? State.PROVEN : State.OPEN,
                more.isEmpty()
                        ? "There is none."
                        : "New: "
                                + joined(more)
                                + ". Look at what was unplugged or moved for it, clear and sweep again.",
                SWEEPING);
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
