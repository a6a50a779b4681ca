package brightlantern.core.proof;

import brightlantern.core.proof.Proof.Requirement;
import brightlantern.core.proof.Proof.State;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * One drive that shows several things of a repair at once, so that nobody drives twice.
 *
 * @param how to be driven, each condition or occasion in words
 * @param shows what is still open and such a drive shows
 * @param first what comes before it, because nothing that was recorded earlier counts; empty when
 *     it may begin
 */
public record ProofDrive(List<String> how, List<Shown> shows, String first) {
    private static final String DRIVE = "drive";
    private static final String TESTS = "monitors";
    private static final Set<String> DRIVEN = Set.of(DRIVE, TESTS, ProofRecord.COMPLAINT);

    /** What of the proof it is, and its words. */
    public record Shown(String id, String words) {
        private static Shown of(Requirement r) {
            // how to drive is told above it already
            return new Shown(r.id(), r.id().equals(DRIVE) ? "A recording of it" : r.what());
        }

        /** Whether the tests of modules tell it, once they have run. */
        public boolean isTests() {
            return id.equals(TESTS);
        }
    }

    public ProofDrive {
        how = List.copyOf(how);
        shows = List.copyOf(shows);
    }

    /** The drive that is still needed; empty when none is, or the fault shows while it stands. */
    public static Optional<ProofDrive> of(ProofRecord record) {
        List<Requirement> open =
                Needed.by(record).stream()
                        .filter(r -> r.state() == State.OPEN)
                        .filter(r -> DRIVEN.contains(r.id()) || isRecorded(r))
                        .toList();
        // what only waits for a word or for a sweep needs no drive
        boolean recorded = open.stream().anyMatch(r -> r.id().equals(DRIVE) || isRecorded(r));
        if (record.standing() || !recorded) {
            return Optional.empty();
        }
        return Optional.of(
                new ProofDrive(how(record), open.stream().map(Shown::of).toList(), first(record)));
    }

    /** Whether a take shows it. */
    private static boolean isRecorded(Requirement r) {
        return r.where().path().equals("watch");
    }

    private static List<String> how(ProofRecord record) {
        List<String> how = new ArrayList<>();
        DriveConditions under = record.conditions();
        how.add(
                under.isEmpty()
                        ? String.format(
                                Locale.ROOT,
                                "As the customer told it, %.0f s or more.",
                                ProofRecord.LEAST_DRIVE_SECONDS)
                        : String.format(
                                Locale.ROOT,
                                "As %s says: %s, for %.0f s together.",
                                under.from(),
                                under.words(),
                                under.seconds()));
        record.codes().stream()
                .sorted()
                .filter(c -> record.came().containsKey(c))
                .filter(c -> !record.came().get(c).equals(under.words()))
                .forEach(c -> how.add("For the test of " + c + ": " + record.came().get(c) + "."));
        return how;
    }

    private static String first(ProofRecord record) {
        if (record.codes().isEmpty()) {
            return "";
        }
        Optional<Instant> clear = record.clear();
        if (clear.isEmpty()) {
            return "Clear the codes, then key off and on: what is recorded before that does not count.";
        }
        return record.keyCycle(clear.get()).isEmpty() ? "Turn the key off and on first." : "";
    }
}
