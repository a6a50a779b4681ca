package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What checks may come to, where that leads, and how long it takes. */
class PlanTest {
    private static final double VOLTS = 12.5;

    private final VehicleDescription heron = Vehicles.derived("oriel-heron");
    private final Reasoners reasoners = new Reasoners(heron);
    private final Plan plan = new Plan(reasoners, heron);
    private final List<Evidence> told =
            List.of(new Evidence.SymptomTold(CircuitSuspects.PREFIX + "turn-front-left"));

    private List<NextCheck> next(List<Evidence> found) {
        return reasoners.of(found).nextChecks(found, VOLTS);
    }

    private Check first(Class<? extends Check> kind) {
        return next(told).stream()
                .map(NextCheck::check)
                .filter(kind::isInstance)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatExplainsNothingThatWasToldIsNotAskedAfter() {
        // pads wear in any vehicle: as long as nothing is told of one they are worth a look
        assertThat(bits("check-pads-thickness", List.of())).isGreaterThan(NextStep.LEAST_BITS);
        assertThat(bits("check-pads-thickness", told)).isLessThan(NextStep.LEAST_BITS / 10);
        List<Evidence> grinds = List.of(new Evidence.SymptomTold("brake-noise"));
        assertThat(bits("check-pads-thickness", grinds)).isGreaterThan(NextStep.LEAST_BITS);
        // how far it was driven makes wear likelier, and explains nothing
        List<Evidence> driven = new ArrayList<>(told);
        driven.add(new Evidence.Driven(190_000, 12));
        assertThat(bits("check-pads-thickness", driven)).isLessThan(NextStep.LEAST_BITS / 10);
    }

    private double bits(String check, List<Evidence> found) {
        return next(found).stream()
                .filter(n -> n.check().id().equals(check))
                .mapToDouble(NextCheck::bits)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void theOutcomesOfALookAddUp() {
        List<Possible> all = plan.possible(first(Check.Look.class), told, VOLTS);
        assertThat(all).hasSizeGreaterThan(1);
        assertThat(all.stream().mapToDouble(Possible::chance).sum()).isCloseTo(1, within(0.03));
        assertThat(all).isSortedAccordingTo((a, b) -> Double.compare(b.chance(), a.chance()));
    }

    @Test
    void aReadingMayBeThatOfAHealthyOneOrNothing() {
        List<Possible> all = plan.possible(first(Check.Reading.class), told, VOLTS);
        assertThat(all)
                .extracting(p -> ((Evidence.Reading) p.piece()).right())
                .contains(true, false);
        // what is fainter than a hundredth each is left out
        assertThat(all.stream().mapToDouble(Possible::chance).sum()).isBetween(0.9, 1.0);
    }

    @Test
    void aBranchIsWhatTheReasonerSaysOnceItWasFound() {
        Branch likeliest = plan.of(first(Check.Look.class), told, VOLTS).get(0);
        List<Evidence> then = new ArrayList<>(told);
        then.add(likeliest.possible().piece());
        assertThat(likeliest.known()).isEqualTo(reasoners.of(then).rank(then).sentence());
        assertThat(likeliest.next()).isEqualTo(next(then).get(0).check().name());
    }

    @Test
    void minutesAreSpentOnWhatWasDone() {
        Reasoner reasoner = reasoners.of(told);
        Ranking ranking = reasoner.rank(told);
        Budget bare = reasoner.budget(60, told, ranking, next(told));
        assertThat(bare.spent()).isZero();
        assertThat(bare.needed()).isPositive();
        NextCheck first = next(told).get(0);
        List<Evidence> found = new ArrayList<>(told);
        found.add(plan.possible(first.check(), told, VOLTS).get(0).piece());
        Reasoner then = reasoners.of(found);
        assertThat(then.budget(60, found, then.rank(found), next(found)).spent())
                .isCloseTo(first.check().minutes() + CheckPlanner.MINUTES_ASIDE, within(1e-9));
    }

    @Test
    void whatOneCaptureTellsOfSeveralIsTakenOnce() {
        List<Evidence> found = new ArrayList<>(List.of(new Evidence.SymptomTold("shakes")));
        for (int n = 1; n <= 4; n++) {
            found.add(
                    new Evidence.Outcome(
                            Gauge.findingOf(Gauge.ampsOf("injector-coil-" + n)),
                            n == 2 ? "none" : "right"));
        }
        Reasoner reasoner = reasoners.of(found);
        assertThat(reasoner.budget(60, found, reasoner.rank(found), List.of()).spent())
                .isBetween(8.0, 12.0);
    }

    /** Many faint suspects keep much open, and yet one look may name the cause. */
    @Test
    void aCheckThatAsOftenAsNotNamesTheCauseIsEnough() {
        Reasoner reasoner = reasoners.of(told);
        Ranking ranking = reasoner.rank(told);
        NextCheck first = next(told).get(0);
        NextCheck naming = new NextCheck(first.check(), 0.1, 0.6, 1, List::of);
        assertThat(reasoner.budget(60, told, ranking, List.of(naming)).needed())
                .isCloseTo(first.check().minutes() + CheckPlanner.MINUTES_ASIDE, within(1e-9));
        NextCheck seldom = new NextCheck(first.check(), 0.1, 0.3, 1, List::of);
        assertThat(reasoner.budget(60, told, ranking, List.of(seldom)).needed()).isNaN();
    }

    @Test
    void howOftenACheckNamesTheCauseIsThatOfItsBranches() {
        NextCheck look =
                next(told).stream()
                        .filter(n -> n.check() instanceof Check.Look)
                        .findFirst()
                        .orElseThrow();
        double named = 0;
        for (Branch b : plan.of(look.check(), told, VOLTS)) {
            List<Evidence> then = new ArrayList<>(told);
            then.add(b.possible().piece());
            named +=
                    reasoners.of(then).rank(then).lead().sureness() >= Ranking.ACCUSED
                            ? b.possible().chance()
                            : 0;
        }
        assertThat(look.naming()).isCloseTo(named, within(0.1));
    }

    @Test
    void tooLittleTimeIsSaid() {
        Reasoner reasoner = reasoners.of(told);
        Budget budget = reasoner.budget(1, told, reasoner.rank(told), next(told));
        assertThat(budget.words()).contains("no check fits").contains("Agree on more time");
        Budget none = reasoner.budget(60, told, reasoner.rank(told), List.of());
        assertThat(none.needed()).isNaN();
        assertThat(none.words()).contains("may not tell it apart");
    }
}
