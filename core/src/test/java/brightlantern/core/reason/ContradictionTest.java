package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class ContradictionTest {
    private final Hypotheses hypotheses =
            new Hypotheses(Vehicles.named("oriel-heron").suspects(), List.of());

    private final String suspect = hypotheses.suspects().get(0);
    private final Evidence look = new Evidence.Outcome("along-wire", "clean");

    /**
     * @param itself and others: probability of what was seen under the suspect and under all else
     */
    private Learned seen(double itself, double others) {
        double[] logs = hypotheses.each(h -> Math.log(others));
        hypotheses.of(suspect).forEach(i -> logs[i] = Math.log(itself));
        return new Learned(look, logs);
    }

    private boolean isContradicted(String named, Learned... learned) {
        return against(List.of(named), learned).isPresent();
    }

    private Optional<Evidence> against(List<String> named, Learned... learned) {
        return Contradiction.of(
                named, hypotheses.priors(), List.of(learned), hypotheses, this::isSlip);
    }

    /** Of the suspect alone a reading is nowhere near what it foretells. */
    private boolean isSlip(Evidence piece, int hypothesis) {
        return hypotheses.get(hypothesis).suspectId().equals(suspect);
    }

    @Test
    void whatLookedSoundIsNotNamed() {
        assertThat(isContradicted(suspect, seen(0.08, 0.97))).isTrue();
        assertThat(isContradicted(suspect, seen(0.92, 0.02))).isFalse();
        assertThat(isContradicted(suspect, seen(0.97, 0.97))).isFalse();
    }

    /** Of those that no point tells apart each may have a look of its own. */
    @Test
    void aGroupIsNotNamedWhenEachOfItLookedSound() {
        String other = hypotheses.suspects().get(1);
        double[] logs = hypotheses.each(h -> Math.log(0.97));
        hypotheses.of(other).forEach(i -> logs[i] = Math.log(0.08));
        Learned another = new Learned(new Evidence.Outcome("along-another", "clean"), logs);
        assertThat(against(List.of(suspect, other), seen(0.08, 0.97))).isEmpty();
        assertThat(against(List.of(suspect, other), seen(0.08, 0.97), another)).contains(look);
    }

    @Test
    void somethingElseThatIsSeenToBeWrongIsNotExplainedByIt() {
        Learned wrongElsewhere = seen(0.02, 0.02);
        assertThat(isContradicted(suspect, wrongElsewhere)).isTrue();
        // what explains it may be named beside it
        String other = hypotheses.suspects().get(1);
        assertThat(against(List.of(suspect, other), seen(0.9, 0.02))).isEmpty();
    }

    @Test
    void aFigureThatACauseDoesNotLetBeKeepsItFromBeingNamed() {
        Learned reading =
                new Learned(
                        new Evidence.Reading("c", "p", "nothing", List.of(), 12.5, 12.5, false),
                        hypotheses.each(h -> -5));
        Learned repair = new Learned(new Evidence.RepairFailed("another"), hypotheses.each(h -> 0));
        assertThat(isContradicted(suspect, reading)).isTrue();
        assertThat(isContradicted(hypotheses.suspects().get(1), reading)).isFalse();
        assertThat(isContradicted(suspect, reading, repair)).isFalse();
        assertThat(isContradicted(suspect, repair, reading)).isTrue();
    }

    @Test
    void whatTwoTogetherDoNotLetBeSpeaksAgainstBoth() {
        Learned reading =
                new Learned(
                        new Evidence.Reading("c", "p", "nothing", List.of(), 4.7, 12.5, false),
                        hypotheses.each(h -> -5));
        Learned repair = new Learned(new Evidence.RepairFailed("another"), hypotheses.each(h -> 0));
        assertThat(Contradiction.ofTwo(List.of(seen(0.02, 0.02), reading), p -> true))
                .contains(reading.piece());
        assertThat(Contradiction.ofTwo(List.of(reading), p -> false)).isEmpty();
        assertThat(Contradiction.ofTwo(List.of(reading, repair), p -> true)).isEmpty();
    }

    @Test
    void aCodeIsWeighedAndContradictsNobodyFlatly() {
        Learned code =
                new Learned(
                        new Evidence.CodeSeen("P0299-00", false),
                        hypotheses.each(h -> h.suspectId().equals(suspect) ? -9 : 0));
        assertThat(isContradicted(suspect, code)).isFalse();
    }
}
