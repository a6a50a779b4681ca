package brightlantern.core.proof;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Place;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/**
 * All that was recorded of a repair.
 *
 * @param repaired when the repair was done
 * @param codes that were there before the repair and that it is to keep away
 * @param symptoms by which the complaint is coded
 * @param conditions under which the fault showed; empty when nothing tells them
 * @param standing whether it shows while the vehicle stands, as a lamp does: then no drive proves
 *     anything, and without codes there are none to clear
 * @param came code → what its freeze frame showed, in words; codes without one are missing
 */
public record ProofRecord(
        Instant repaired,
        Set<String> codes,
        Set<String> symptoms,
        DriveConditions conditions,
        boolean standing,
        Map<String, String> came,
        List<DatedFinding> findings,
        List<Instant> clears,
        List<Instant> keyCycles,
        List<DatedSweep> sweeps,
        List<DatedTake> takes) {
    /** Key of the technician's word that the complaint was tried again. */
    public static final String COMPLAINT = "complaint";

    /** A recording of a complaint without measurable conditions must at least be so long, s. */
    public static final double LEAST_DRIVE_SECONDS = 30;

    public ProofRecord {
        codes = Set.copyOf(codes);
        symptoms = Set.copyOf(symptoms);
        findings = List.copyOf(findings);
    }

    /**
     * Something that was checked.
     *
     * @param where it is done
     * @param key the same for the same check done again; empty for what is no check
     * @param passed empty for what is neither right nor wrong
     * @param evidence what it speaks of to the suspects, if it does
     */
    public record DatedFinding(
            Instant at,
            Place where,
            String key,
            Optional<Boolean> passed,
            String text,
            Optional<Evidence> evidence) {
        boolean failed() {
            return !key.isEmpty() && passed.isPresent() && !passed.get();
        }
    }

    /**
     * @param codes that it still holds with a failure since the last clear, of those that the
     *     repair is to keep away
     * @param notRun of those codes, the ones whose test has not run since the last clear, as far as
     *     the modules tell
     * @param more codes of any module that were not there before the repair: what was unplugged or
     *     moved for it may have stayed so
     */
    public record DatedSweep(
            Instant at, boolean whole, Set<String> codes, Set<String> notRun, Set<String> more) {
        public DatedSweep {
            codes = Set.copyOf(codes);
            notRun = Set.copyOf(notRun);
            more = Set.copyOf(more);
        }
    }

    /**
     * A recording.
     *
     * @param seconds how long it is with the engine running or the vehicle awake
     */
    public record DatedTake(Instant at, String name, double seconds, DriveConditions.Met met) {}

    /** Whether a recording met the conditions for as long as they need. */
    boolean enough(DatedTake take) {
        return conditions.isEmpty()
                ? take.seconds() >= LEAST_DRIVE_SECONDS
                : take.met().seconds() >= conditions.seconds();
    }

    /** The recording since then that came nearest; of equals the newest. */
    Optional<DatedTake> drive(Instant after) {
        return takes.stream()
                .filter(t -> t.at().isAfter(after))
                .max(
                        Comparator.comparing((DatedTake t) -> enough(t))
                                .thenComparing(
                                        t -> conditions.isEmpty() ? t.seconds() : t.met().seconds())
                                .thenComparing(DatedTake::at));
    }

    /** The technician's newest word on the complaint since the repair. */
    Optional<DatedFinding> told() {
        return findings.stream()
                .filter(f -> f.key().equals(COMPLAINT) && !f.at().isBefore(repaired))
                .max(Comparator.comparing(DatedFinding::at));
    }

    /** The newest whole sweep of which this is so. */
    Optional<DatedSweep> newest(Predicate<DatedSweep> when) {
        return sweeps.stream()
                .filter(s -> s.whole() && when.test(s))
                .max(Comparator.comparing(DatedSweep::at));
    }

    /** When the codes were cleared first after the repair. */
    Optional<Instant> clear() {
        return first(clears, repaired);
    }

    /** When the key was off and on first after a time. */
    Optional<Instant> keyCycle(Instant after) {
        return first(keyCycles, after);
    }

    private static Optional<Instant> first(List<Instant> times, Instant after) {
        return times.stream().filter(t -> t.isAfter(after)).min(Comparator.naturalOrder());
    }
}
