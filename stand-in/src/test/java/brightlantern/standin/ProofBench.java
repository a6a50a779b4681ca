package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Band;
import brightlantern.core.code.Dtc;
import brightlantern.core.proof.DriveConditions;
import brightlantern.core.proof.Proof;
import brightlantern.core.proof.ProofRecord;
import brightlantern.core.reason.NetworkSuspects;
import brightlantern.core.reason.Remaining;
import brightlantern.core.reason.Standing;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Place;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EverydayUse;
import brightlantern.standin.plant.Part;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
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

    /** Modules that miss each other say so within this time. */
    private static final double MISSES_SECONDS = 12;

    private static final Instant REPAIRED = Instant.ofEpochSecond(1000);

    private final Random random = new Random(Long.getLong("seed", 1));
    private final int runs = Integer.getInteger("runs", 200);
    private final Yard yard = new Yard(random);

    private enum Work {
        RIGHT,
        ANOTHER,
        NONE
    }

    /** Where it is broken. */
    private enum World {
        CIRCUITS {
            @Override
            List<Part.Failure> failures(Breaker breaker) {
                return breaker.inCircuits();
            }
        },
        MECHANICAL {
            @Override
            List<Part.Failure> failures(Breaker breaker) {
                return breaker.mechanical();
            }
        },
        NETWORK {
            @Override
            List<Part.Failure> failures(Breaker breaker) {
                return breaker.onNetwork();
            }
        };

        abstract List<Part.Failure> failures(Breaker breaker);
    }

    /**
     * What was noticed when it was used after its codes were cleared.
     *
     * @param gone whether the complaint stayed away
     * @param back codes that failed again
     * @param notRun codes whose test has not run
     */
    private record Used(boolean gone, Set<String> back, Set<String> notRun) {}

    /** A vehicle of which something is broken, and what was found by following the card. */
    private final class Case {
        private final World world;
        private final StandInVehicle v;
        private final VehicleDescription d;
        private final Robot robot;
        private final Breaker.Broken broken;
        private final Robot.Ended ended;

        Case(World world, String id) {
            this.world = world;
            this.v = yard.built(id);
            this.d = yard.vehicle(id);
            this.robot = new Robot(v, random);
            Breaker breaker = new Breaker(v);
            this.broken = breaker.breakSomething(world.failures(breaker), random, false);
            List<Evidence> told = new ArrayList<>(robot.told(broken));
            if (world == World.NETWORK) {
                told.add(robot.listened());
            }
            this.ended = robot.follow(yard.reasoners(id), told);
        }

        /** Whether the repair of a suspect mends what is broken. */
        boolean mends(String suspectId) {
            return switch (world) {
                case CIRCUITS -> d.wiring().alike(broken.part()).contains(Robot.part(d, suspectId));
                case MECHANICAL ->
                        d.suspect(suspectId).orElseThrow().repair().id().equals(repair());
                case NETWORK -> suspectId.equals(NetworkSuspects.PREFIX + broken.part());
            };
        }

        private String repair() {
            return v.simulation().damage().failing(broken.part()).repair();
        }

        void mend() {
            switch (world) {
                case CIRCUITS -> robot.mended(d.wiring().alike(broken.part()));
                case MECHANICAL -> v.repair(repair());
                case NETWORK -> v.repair("wire-" + broken.part());
            }
        }

        Used used(Set<String> codes, Set<String> symptoms) {
            if (world == World.CIRCUITS) {
                Circuits circuits = v.simulation().circuits().orElseThrow();
                Set<String> wrong =
                        new EverydayUse(circuits)
                                .used(v::report).stream()
                                        .map(g -> "circuit-" + g.id())
                                        .collect(Collectors.toSet());
                new EverydayUse(circuits)
                        .unmet(d.wiring().needs())
                        .forEach(n -> wrong.add(n.symptom()));
                Set<String> away =
                        robot.swept().stream()
                                .map(e -> ((Evidence.CodeSeen) e).code())
                                .collect(Collectors.toSet());
                return new Used(
                        symptoms.stream().noneMatch(wrong::contains),
                        codes.stream().filter(c -> !away.contains(c)).collect(Collectors.toSet()),
                        Set.of());
            }
            d.modules().stream()
                    .map(m -> v.module(m.id()))
                    .filter(Objects::nonNull)
                    .forEach(m -> m.memory().clear());
            v.simulation().noticed();
            driven();
            Set<String> back = those(codes, v.stored());
            Set<String> ran = those(codes, v.tested());
            Set<String> noticed =
                    v.simulation().noticed().stream()
                            .map(Mechanics.Notice::symptom)
                            .collect(Collectors.toSet());
            boolean gone =
                    world == World.NETWORK
                            ? v.stored().isEmpty()
                            : symptoms.stream().noneMatch(noticed::contains);
            return new Used(
                    gone,
                    back,
                    codes.stream().filter(c -> !ran.contains(c)).collect(Collectors.toSet()));
        }

        private void driven() {
            Driver before = v.simulation().driver();
            if (world == World.MECHANICAL) {
                StandIns.day(v);
                StandIns.hill(v);
                if (v.simulation().damage().failing(broken.part()).stood()) {
                    StandIns.stood(v);
                }
            } else {
                v.simulation().driver(before.key(2));
                v.live(MISSES_SECONDS);
            }
            v.simulation().driver(before);
            v.live(3);
        }

        private static Set<String> those(Set<String> codes, Set<Integer> numbers) {
            return codes.stream()
                    .filter(c -> numbers.contains(Dtc.parse(c).number()))
                    .collect(Collectors.toSet());
        }
    }

    /** A repair that was entered, and what is shown since. */
    private final class Proving {
        private final Case its;
        private final Robot.Ended ended;
        private final String repairedId;
        private final List<Evidence> since = new ArrayList<>();
        private Optional<Used> used = Optional.empty();
        private int checks;

        Proving(Case its, String repairedId) {
            this.its = its;
            this.ended = its.ended;
            this.repairedId = repairedId;
        }

        /** Does what failed again, and then what tells most, until it is proven or has failed. */
        Proof.Verdict verdict() {
            ended.found().forEach(e -> its.robot.again(e).ifPresent(this::add));
            Proof.Verdict verdict = judged();
            Set<String> impossible = new HashSet<>();
            while (verdict.state() == Proof.State.OPEN && checks < MOST_MORE) {
                Optional<Evidence> more =
                        remaining(record())
                                .telling()
                                .filter(c -> impossible.add(c.check().key()))
                                .flatMap(c -> its.robot.done(c.check()));
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
            return yard.reasoners(its.d.id())
                    .of(all)
                    .remaining(ended.found(), repairedId, shown, its.v.reading("body.supply"));
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
            Used now = used.orElseGet(() -> its.used(codes, symptoms));
            used = Optional.of(now);
            findings.add(
                    new ProofRecord.DatedFinding(
                            REPAIRED.plusSeconds(500),
                            Place.of("prove"),
                            ProofRecord.COMPLAINT,
                            Optional.of(now.gone()),
                            "tried again",
                            Optional.empty()));
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
                                    REPAIRED.plusSeconds(400),
                                    true,
                                    now.back(),
                                    now.notRun(),
                                    Set.of())),
                    List.of());
        }

        private boolean isWell(Evidence.Outcome o) {
            // a comparison at an end of the range is an outcome of its gauge alone
            return its.d.circuits().stream()
                    .flatMap(c -> c.gauges().stream())
                    .filter(g -> g.findingId().equals(o.findingId()))
                    .findFirst()
                    .flatMap(g -> g.band(o.outcomeId()))
                    .map(Band::well)
                    .orElseGet(
                            () ->
                                    its.d
                                                    .finding(o.findingId())
                                                    .orElseThrow()
                                                    .outcome(o.outcomeId())
                                                    .healthy()
                                            >= 0.5);
        }

        private ProofRecord.DatedFinding dated(Evidence e, int second) {
            Optional<Boolean> passed =
                    e instanceof Evidence.Outcome o ? Optional.of(isWell(o)) : e.passed();
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
        proven(World.CIRCUITS, "proof");
    }

    @Test
    void norOfWhatIsNotElectrical() {
        proven(World.MECHANICAL, "mechanical proof");
    }

    @Test
    void norOfTheNetwork() {
        proven(World.NETWORK, "network proof");
    }

    private void proven(World world, String bench) {
        int still = 0;
        int stillProven = 0;
        int right = 0;
        int rightProven = 0;
        double checks = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            while (world.failures(new Breaker(yard.built(id))).isEmpty()) {
                id = yard.drawn();
            }
            Case its = new Case(world, id);
            Work work = Work.values()[i % Work.values().length];
            Optional<String> repaired =
                    its.ended.ranking().standings().stream()
                            .filter(Standing::isDescribed)
                            .map(Standing::suspectId)
                            .filter(s -> its.mends(s) != (work == Work.ANOTHER))
                            .findFirst();
            if (repaired.isEmpty()) {
                System.out.printf(
                        "truth: %s %s, %s: nobody would have repaired that%n",
                        bench, id, its.broken.truth());
                continue;
            }
            if (work == Work.RIGHT) {
                its.mend();
            }
            Proving proving = new Proving(its, repaired.get());
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
                        "truth: %s %s, %s, %s repaired (%s): %s%n",
                        bench,
                        id,
                        its.broken.truth(),
                        repaired.get(),
                        work,
                        proving.verdict().requirements());
            }
        }
        double wrong = stillProven / (double) still;
        double open = 1 - rightProven / (double) right;
        Yard.line(
                bench,
                "proven with the fault still in place",
                wrong,
                "at most 0.01",
                wrong <= 0.01);
        Yard.line(
                bench,
                "right repairs that could not be proven",
                open,
                "at most 0.05",
                open <= 0.05);
        System.out.printf(
                Locale.ROOT,
                "bench: %s checks beside those that failed: %.1f%n",
                bench,
                checks / runs);
        assertThat(still + right).isPositive();
    }
}
