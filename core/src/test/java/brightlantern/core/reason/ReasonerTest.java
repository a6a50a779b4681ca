package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

class ReasonerTest {
    private final Reasoner reasoner = new Reasoner(Vehicles.portage());
    private final List<Evidence> complaint =
            List.of(
                    new Evidence.SymptomTold("flat-on-climbs"),
                    new Evidence.SymptomTold("fine-after-restart"));

    private Ranking with(Evidence... more) {
        List<Evidence> all = new ArrayList<>(complaint);
        all.addAll(List.of(more));
        return reasoner.rank(all);
    }

    private static Evidence run(String actuator, double seconds, boolean passed) {
        return new Evidence.Run(actuator, List.of(actuator), seconds, 0.01, 12.3, passed);
    }

    private static Evidence reading(String point, double volts) {
        return new Evidence.Reading(
                "air-actuators",
                point,
                "nothing",
                List.of("vane-motor"),
                volts,
                12.3,
                volts < 0.1 || volts > 12);
    }

    @Test
    void aComplaintAloneAccusesNobody() {
        assertThat(with().accused()).isEmpty();
        assertThat(with().standings().stream().mapToDouble(Standing::sureness).sum())
                .isCloseTo(1, Offset.offset(1e-9));
    }

    @Test
    void slowRunsAndADropAtTheStudAccuseTheEarth() {
        Ranking ranking =
                with(
                        new Evidence.CodeSeen("P0299-00", true),
                        run("vane", 0.56, false),
                        run("throttle", 0.42, false),
                        reading("G12", 1.75));
        assertThat(ranking.accused()).get().extracting(Standing::suspectId).isEqualTo("earth-g12");
        assertThat(ranking.accused().orElseThrow().size()).matches("about 0\\.[89].* Ω");
    }

    @Test
    void oneSlowActuatorAndGoodWiresAccuseTheActuator() {
        Ranking ranking =
                with(
                        new Evidence.CodeSeen("P0299-00", true),
                        run("vane", 0.60, false),
                        run("throttle", 0.31, true),
                        reading("X21.2", 0.05),
                        reading("X21.1", 12.2));
        assertThat(ranking.accused())
                .get()
                .extracting(Standing::suspectId)
                .isEqualTo("vane-actuator");
    }

    @Test
    void healthyFindingsAccuseNobody() {
        Ranking ranking =
                with(
                        new Evidence.CodeSeen("P0299-00", false),
                        run("vane", 0.36, true),
                        run("throttle", 0.30, true),
                        new Evidence.Outcome("rest-pressure", "agrees"),
                        new Evidence.Outcome("climb", "follows"),
                        reading("G12", 0.02));
        assertThat(ranking.accused()).isEmpty();
        assertThat(ranking.lead().suspectId()).isEqualTo(Hypothesis.NOTHING);
    }

    @Test
    void readingsThatNoSuspectExplainsRaiseSomethingElse() {
        double before = with().of(Hypothesis.SOMETHING_ELSE).orElseThrow().sureness();
        Ranking after = with(run("vane", 0.36, true), reading("G12", 6.0), reading("F07", 5.0));
        after.standings().stream()
                .limit(5)
                .forEach(x -> System.out.println("truth: " + x.suspectId() + " " + x.sureness()));
        assertThat(after.lead().suspectId()).isEqualTo(Hypothesis.SOMETHING_ELSE);
        assertThat(after.lead().sureness()).isGreaterThan(before);
    }

    @Test
    void nextChecksAreOrderedByCostTheRestByInformationPerMinuteAndSkipWhatWasDone() {
        List<NextCheck> checks = reasoner.nextChecks(complaint, 12.3);
        List<NextCheck> first = checks.stream().filter(c -> !Double.isNaN(c.cost())).toList();
        double least = first.stream().mapToDouble(NextCheck::cost).min().orElseThrow();
        List<NextCheck> alike =
                first.stream().filter(c -> c.cost() <= TwoSteps.ALIKE * least).toList();
        assertThat(checks).startsWith(alike.toArray(NextCheck[]::new));
        assertThat(alike)
                .isSortedAccordingTo(
                        Comparator.comparingDouble(NextCheck::bitsPerMinute).reversed());
        assertThat(checks).startsWith(first.toArray(NextCheck[]::new));
        assertThat(checks.subList(first.size(), checks.size()))
                .isSortedAccordingTo(
                        Comparator.comparingDouble(NextCheck::bitsPerMinute).reversed());
        List<Evidence> one = new ArrayList<>(complaint);
        one.add(run("vane", 0.56, false));
        assertThat(reasoner.nextChecks(one, 12.3))
                .extracting(c -> c.check().id())
                .doesNotContain("run-vane");
    }
}
