package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.proof.DriveConditions;
import brightlantern.core.proof.Proof;
import brightlantern.core.proof.ProofRecord;
import brightlantern.core.reason.Remaining;
import brightlantern.core.reason.Standing;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Place;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * Whether a proof can be had for nothing: faults drawn by the rates, of which the right part is
 * mended, another one, or none although it was entered; the robot then shows what is asked for.
 * {@code -Dseed=N -Druns=N}; a line a figure.
 */
class ProofBench {
    /** So many checks more are done when what was asked for leaves too much. */
    private static final int MOST_MORE = 8;

    private static final Instant REPAIRED = Instant.ofEpochSecond(1000);

    private final Random random = new Random(Long.getLong("seed", 1));
    private final int runs = Integer.getInteger("runs", 200);
    private final Yard yard = new Yard(random);

    private enum Work {
        RIGHT,
        ANOTHER,
        NONE
    }

    /** A repair that was entered, and what is shown since. */
    private final class Proving {
        private final StandInVehicle v;
        private final VehicleDescription d;
        private final Robot robot;
        private final Robot.Ended ended;
        private final String repairedId;
        private final List<Evidence> since = new ArrayList<>();
        private int checks;

        Proving(StandInVehicle v, Robot robot, Robot.Ended ended, String repairedId) {
            this.v = v;
            this.d = v.description();
            this.robot = robot;
            this.ended = ended;
            this.repairedId = repairedId;
        }

        /** Does what failed again, and then what tells most, until it is proven or has failed. */
        Proof.Verdict verdict() {
            ended.found().forEach(e -> robot.again(e).ifPresent(this::add));
            Proof.Verdict verdict = judged();
            Set<String> impossible = new HashSet<>();
            while (verdict.state() == Proof.State.OPEN && checks < MOST_MORE) {
                Optional<Evidence> more =
                        remaining(record())
                                .telling()
                                .filter(c -> impossible.add(c.check().key()))
                                .flatMap(c -> robot.done(c.check()));
                if (more.isEmpty()) {
                    return verdict;
                }
                checks++;
                add(more.get());
                verdict = judged();
            }
            return verdict;
        }

        private void add(Evidence piece) {
            since.add(piece);
        }

        private Proof.Verdict judged() {
            ProofRecord record = record();
            return Proof.judge(record, remaining(record));
        }

        private Remaining remaining(ProofRecord record) {
            List<Evidence> shown = Proof.shown(record);
            List<Evidence> all = new ArrayList<>(ended.found());
            all.addAll(shown);
            return yard.reasoners(d.id())
                    .of(all)
                    .remaining(ended.found(), repairedId, shown, v.reading("body.supply"));
        }

        private ProofRecord record() {
            Set<String> codes = new HashSet<>();
            Set<String> symptoms = new HashSet<>();
            List<ProofRecord.DatedFinding> findings = new ArrayList<>();
            int at = 0;
            for (Evidence e : ended.found()) {
                if (e instanceof Evidence.CodeSeen c && c.present()) {
                    codes.add(c.code());
                }
                if (e instanceof Evidence.SymptomTold s) {
                    symptoms.add(s.symptomId());
                }
                findings.add(dated(e, at++));
            }
            at = (int) REPAIRED.getEpochSecond();
            for (Evidence e : since) {
                findings.add(dated(e, ++at));
            }
            Set<String> wrong =
                    v.simulation().circuits().orElseThrow().used(v::report).stream()
                            .map(g -> "circuit-" + g.id())
                            .collect(Collectors.toSet());
            boolean gone = symptoms.stream().noneMatch(wrong::contains);
            findings.add(
                    new ProofRecord.DatedFinding(
                            REPAIRED.plusSeconds(500),
                            Place.of("prove"),
                            ProofRecord.COMPLAINT,
                            Optional.of(gone),
                            "tried again",
                            Optional.empty()));
            Set<String> away =
                    robot.swept().stream()
                            .map(e -> ((Evidence.CodeSeen) e).code())
                            .collect(Collectors.toSet());
            Set<String> back =
                    codes.stream().filter(c -> !away.contains(c)).collect(Collectors.toSet());
            return new ProofRecord(
                    REPAIRED,
                    codes,
                    symptoms,
                    DriveConditions.none(),
                    true,
                    Map.of(),
                    findings,
                    List.of(REPAIRED.plusSeconds(300)),
                    List.of(REPAIRED.plusSeconds(310)),
                    List.of(
                            new ProofRecord.DatedSweep(
                                    REPAIRED.plusSeconds(400), true, back, Set.of())),
                    List.of());
        }

        private ProofRecord.DatedFinding dated(Evidence e, int second) {
            Optional<Boolean> passed =
                    e instanceof Evidence.Outcome o
                            ? d.finding(o.findingId())
                                    .map(f -> f.outcome(o.outcomeId()).healthy() >= 0.5)
                            : e.passed();
            return new ProofRecord.DatedFinding(
                    Instant.ofEpochSecond(second),
                    Place.of("probe"),
                    e.repeatable() ? e.key() : "",
                    passed,
                    e.toString(),
                    Optional.of(e));
        }
    }

    @Test
    void aProofCannotBeHadForNothing() {
        int still = 0;
        int stillProven = 0;
        int right = 0;
        int rightProven = 0;
        double checks = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            VehicleDescription d = yard.vehicle(id);
            StandInVehicle v = yard.built(id);
            Robot robot = new Robot(v, random);
            Breaker.Broken broken =
                    new Breaker(v).breakSomething(new Breaker(v).inCircuits(), random, false);
            Robot.Ended ended = robot.follow(yard.reasoners(id), robot.told(broken));
            Set<String> places = d.wiring().alike(broken.part());
            Work work = Work.values()[i % Work.values().length];
            String repaired =
                    ended.ranking().standings().stream()
                            .map(Standing::suspectId)
                            .filter(s -> d.suspect(s).map(Suspect::effect).isPresent())
                            .filter(
                                    s ->
                                            places.contains(Robot.part(d, s))
                                                    != (work == Work.ANOTHER))
                            .findFirst()
                            .orElseThrow();
            if (work == Work.RIGHT) {
                robot.mended(places);
            }
            Proving proving = new Proving(v, robot, ended, repaired);
            boolean proven = proving.verdict().state() == Proof.State.PROVEN;
            checks += proving.checks;
            if (work == Work.RIGHT) {
                right++;
                rightProven += proven ? 1 : 0;
            } else {
                still++;
                stillProven += proven ? 1 : 0;
            }
            if (proven != (work == Work.RIGHT)) {
                System.out.printf(
                        "truth: proof %s, %s, %s repaired (%s): %s%n",
                        id, broken.truth(), repaired, work, proving.verdict().requirements());
            }
        }
        double wrong = stillProven / (double) still;
        double open = 1 - rightProven / (double) right;
        Yard.line(
                "proof",
                "proven with the fault still in place",
                wrong,
                "at most 0.01",
                wrong <= 0.01);
        Yard.line(
                "proof",
                "right repairs that could not be proven",
                open,
                "at most 0.05",
                open <= 0.05);
        System.out.printf(
                Locale.ROOT, "bench: proof checks beside those that failed: %.1f%n", checks / runs);
        assertThat(still + right).isEqualTo(runs);
    }
}
