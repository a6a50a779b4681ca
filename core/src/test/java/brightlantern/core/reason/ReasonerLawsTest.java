package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What must hold of Bayes' rule whatever the vehicle and whatever was found. */
class ReasonerLawsTest {
    private static final int DRAWS = 40;

    /** Findings as a person would make them: symptoms, codes, outcomes, some of each. */
    private static List<Evidence> drawn(VehicleDescription d, Random random) {
        List<Evidence> all = new ArrayList<>();
        d.symptoms().stream()
                .filter(s -> random.nextInt(3) == 0)
                .forEach(s -> all.add(new Evidence.SymptomTold(s.id())));
        d.codes().stream()
                .filter(c -> random.nextInt(20) == 0)
                .forEach(c -> all.add(new Evidence.CodeSeen(c.code(), random.nextBoolean())));
        d.findings().stream()
                .filter(f -> random.nextInt(3) == 0)
                .forEach(
                        f ->
                                all.add(
                                        new Evidence.Outcome(
                                                f.id(),
                                                f.outcomes()
                                                        .get(random.nextInt(f.outcomes().size()))
                                                        .id())));
        // one code may stand in several modules; what was found of it last is what counts
        Map<String, Evidence> byKey = new LinkedHashMap<>();
        all.forEach(e -> byKey.put(e.key(), e));
        return List.copyOf(byKey.values());
    }

    private static double sureness(Ranking ranking, String suspect) {
        return ranking.of(suspect).orElseThrow().sureness();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "tamarack-portage",
                "oriel-finch",
                "quillon-ember",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void probabilitiesAddUpAndDoNotDependOnTheOrderOfFindings(String vehicle) {
        VehicleDescription d = Vehicles.named(vehicle);
        Reasoner reasoner = new Reasoner(d);
        Random random = new Random(3);
        for (int i = 0; i < DRAWS; i++) {
            List<Evidence> found = drawn(d, random);
            Ranking ranking = reasoner.rank(found);
            assertThat(ranking.standings())
                    .allSatisfy(s -> assertThat(s.sureness()).isBetween(0.0, 1.0));
            assertThat(ranking.standings().stream().mapToDouble(Standing::sureness).sum())
                    .isCloseTo(1 + ranking.two(), within(1e-9));
            assertThat(ranking.two()).isBetween(0.0, 1.0);
            assertThat(ranking.standings())
                    .isSortedAccordingTo(Comparator.comparingDouble((Standing s) -> -s.sureness()));
            List<Evidence> shuffled = new ArrayList<>(found);
            Collections.shuffle(shuffled, random);
            Ranking again = reasoner.rank(shuffled);
            ranking.standings()
                    .forEach(
                            s ->
                                    assertThat(sureness(again, s.suspectId()))
                                            .isCloseTo(s.sureness(), within(1e-9)));
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"tamarack-portage", "oriel-finch", "quillon-ember", "stonebarrow-wl9"})
    void whatASuspectWouldShowSpeaksForIt(String vehicle) {
        VehicleDescription d = Vehicles.named(vehicle);
        Reasoner reasoner = new Reasoner(d);
        Ranking before = reasoner.rank(List.of());
        for (Suspect suspect : d.suspects()) {
            List<Evidence> shown = new ArrayList<>();
            suspect.tells()
                    .forEach(
                            (finding, outcomes) -> {
                                Map.Entry<String, Double> most =
                                        outcomes.entrySet().stream()
                                                .max(Map.Entry.comparingByValue())
                                                .orElseThrow();
                                // what healthy vehicles show more often still speaks for no cause
                                if (most.getValue()
                                        > d.finding(finding)
                                                .orElseThrow()
                                                .outcome(most.getKey())
                                                .healthy()) {
                                    shown.add(new Evidence.Outcome(finding, most.getKey()));
                                }
                            });
            suspect.symptoms().entrySet().stream()
                    .filter(s -> s.getValue() > 0.4)
                    .forEach(s -> shown.add(new Evidence.SymptomTold(s.getKey())));
            if (shown.isEmpty()) {
                continue;
            }
            Ranking after = reasoner.rank(shown);
            assertThat(sureness(after, suspect.id()))
                    .as("%s, %s after %s", vehicle, suspect.id(), shown)
                    .isGreaterThan(sureness(before, suspect.id()));
        }
    }

    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void whatAHealthyVehicleShowsAccusesNobody(String vehicle) {
        VehicleDescription d = Vehicles.named(vehicle);
        List<Evidence> healthy = new ArrayList<>();
        d.findings()
                .forEach(
                        f ->
                                healthy.add(
                                        new Evidence.Outcome(
                                                f.id(),
                                                f.outcomes().stream()
                                                        .max(
                                                                Comparator.comparingDouble(
                                                                        FindingOutcome::healthy))
                                                        .orElseThrow()
                                                        .id())));
        d.codes().forEach(c -> healthy.add(new Evidence.CodeSeen(c.code(), false)));
        Ranking ranking = new Reasoner(d).rank(healthy);
        assertThat(ranking.accused()).isEmpty();
        assertThat(ranking.lead().suspectId()).isIn(Hypothesis.NOTHING, Hypothesis.SOMETHING_ELSE);
    }

    @ParameterizedTest
    @ValueSource(strings = {"tamarack-portage", "oriel-finch", "quillon-ember"})
    void whoeverIsRuledOutFallsAndTheOthersKeepTheirProportions(String vehicle) {
        VehicleDescription d = Vehicles.named(vehicle);
        Reasoner reasoner = new Reasoner(d);
        Ranking before = reasoner.rank(List.of());
        String out = before.standings().get(0).suspectId();
        List<String> others =
                before.standings().stream()
                        .map(Standing::suspectId)
                        .filter(s -> !s.equals(out))
                        .limit(3)
                        .toList();
        Ranking after = reasoner.rank(List.of(new Evidence.RuledOut(out, "looked at: sound")));
        assertThat(sureness(after, out)).isLessThan(0.01);
        double ratio = sureness(before, others.get(0)) / sureness(before, others.get(1));
        assertThat(sureness(after, others.get(0)) / sureness(after, others.get(1)))
                .isCloseTo(ratio, within(1e-6));
    }

    @Test
    void anActuatorWithoutACircuitSheetMovesNobody() {
        VehicleDescription d = Vehicles.named("oriel-finch");
        Reasoner reasoner = new Reasoner(d);
        List<Evidence> found = List.of(new Evidence.SymptomTold("rough-idle"));
        List<Evidence> driven = new ArrayList<>(found);
        driven.add(new Evidence.Run("feed-pump", List.of("feed-pump"), -1, 0.05, 12.4, false));
        driven.add(
                new Evidence.Run(
                        "throttle-flap", List.of("throttle-flap"), 0.9, 0.01, 12.4, false));
        Ranking before = reasoner.rank(found);
        Ranking after = reasoner.rank(driven);
        before.standings()
                .forEach(
                        s ->
                                assertThat(sureness(after, s.suspectId()))
                                        .isCloseTo(s.sureness(), within(1e-9)));
    }

    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void nextChecksTellSomethingAndCostSomething(String vehicle) {
        VehicleDescription d = Vehicles.named(vehicle);
        Reasoner reasoner = new Reasoner(d);
        Random random = new Random(5);
        for (int i = 0; i < 4; i++) {
            List<Evidence> found = drawn(d, random);
            for (NextCheck check : reasoner.nextChecks(found, 12.4)) {
                assertThat(check.bitsPerMinute()).isFinite().isNotNegative();
                assertThat(check.check().minutes()).isPositive();
                Optional<Evidence> done =
                        found.stream().filter(e -> e.key().equals(check.check().key())).findFirst();
                assertThat(done).as("%s was done", check.check().id()).isEmpty();
            }
        }
    }
}
