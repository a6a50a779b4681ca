package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.reason.NextStep.Situation;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class NextStepTest {
    private static final VehicleDescription LOADER = Vehicles.named("stonebarrow-wl9");

    private static Ranking named(String suspect, double sure) {
        return new Ranking(List.of(new Standing(suspect, suspect, sure, List.of(), "")), suspect);
    }

    private static NextCheck check(int number, double bits) {
        return new NextCheck(
                LOADER.checks().get(number),
                bits,
                0,
                bits / LOADER.checks().get(number).minutes(),
                List::of);
    }

    private static NextStep step(Ranking ranking, NextCheck... next) {
        return step(LOADER, ranking, next);
    }

    private static NextStep step(VehicleDescription of, Ranking ranking, NextCheck... next) {
        return NextStep.of(
                new Situation(
                        true, true, true, List.of(), false, ranking, List.of(), List.of(next)),
                of);
    }

    @Test
    void aComplaintInWordsIsAskedAboutUnlessCodesSpeak() {
        Symptom meant = LOADER.symptoms().get(0);
        Situation told =
                new Situation(
                        true,
                        true,
                        false,
                        List.of(meant),
                        false,
                        named("valve-5", 0.2),
                        List.of(),
                        List.of(check(1, 1)));
        assertThat(NextStep.of(told, LOADER)).isEqualTo(new NextStep.CodeComplaint(List.of(meant)));
        Situation codesSpeak =
                new Situation(
                        true,
                        true,
                        false,
                        List.of(meant),
                        false,
                        named("valve-5", 0.2),
                        List.of(new Evidence.CodeSeen("P0305-00", true)),
                        List.of(check(1, 1)));
        assertThat(NextStep.of(codesSpeak, LOADER)).isInstanceOf(NextStep.DoCheck.class);
    }

    @Test
    void aJobBeginsWithASweepAndEndsClosed() {
        Ranking any = named("valve-5", 0.95);
        assertThat(
                        NextStep.of(
                                new Situation(
                                        true,
                                        false,
                                        true,
                                        List.of(),
                                        false,
                                        any,
                                        List.of(),
                                        List.of(check(0, 1))),
                                LOADER))
                .isInstanceOf(NextStep.SweepFirst.class);
        NextStep uncoded =
                NextStep.of(
                        new Situation(
                                true, false, false, List.of(), false, any, List.of(), List.of()),
                        LOADER);
        assertThat(((NextStep.SweepFirst) uncoded).why()).contains("not coded");
        assertThat(
                        NextStep.of(
                                new Situation(
                                        true, true, true, List.of(), true, any, List.of(),
                                        List.of()),
                                LOADER))
                .isInstanceOf(NextStep.GoOnProving.class);
        assertThat(
                        NextStep.of(
                                new Situation(
                                        false, true, true, List.of(), true, any, List.of(),
                                        List.of()),
                                LOADER))
                .isInstanceOf(NextStep.Closed.class);
    }

    /** 14 % of doubt about 420 minutes and 1450 in parts is worth a check of some minutes. */
    @Test
    void aHeadDoesNotComeOffWhileACheckCostsLessThanTheDoubt() {
        NextStep step = step(named("valve-5", 0.86), check(2, 0.3));
        assertThat(step).isInstanceOf(NextStep.DoCheck.class);
        assertThat(((NextStep.DoCheck) step).beforeRepair().orElseThrow())
                .contains("named with 86 %");
        assertThat(step(named("valve-5", 0.999), check(2, 0.3)))
                .isInstanceOf(NextStep.Repair.class);
        assertThat(step(named("valve-5", 0.86), check(2, 0.001)))
                .isInstanceOf(NextStep.Repair.class);
    }

    @Test
    void aTrialThatDidNotHelpIsNotOfferedAgain() {
        Ranking leads = named("valve-5", 0.6);
        assertThat(step(leads)).isInstanceOf(NextStep.Trial.class);
        Situation tried =
                new Situation(
                        true,
                        true,
                        true,
                        List.of(),
                        false,
                        leads,
                        List.of(new Evidence.RepairFailed("valve-5")),
                        List.of());
        assertThat(NextStep.of(tried, LOADER))
                .isInstanceOfSatisfying(
                        NextStep.NothingLeft.class,
                        left -> assertThat(left.why()).contains("did not help"));
    }

    @Test
    void aComplaintThatNothingCoversIsToldAsSuchUntilSomethingIsFound() {
        List<Evidence> silent =
                List.of(
                        new Evidence.Driven(80_000, 5),
                        new Evidence.CodeSeen(LOADER.codes().get(0).code(), false));
        assertThat(uncoded(silent))
                .isInstanceOfSatisfying(
                        NextStep.Uncovered.class,
                        u -> assertThat(u.why()).contains("covers this one", "record a take"));
        List<Evidence> looked = new ArrayList<>(silent);
        looked.add(new Evidence.Reading("c", "p", "nothing", List.of(), 12, 12.4, true));
        assertThat(uncoded(looked)).isInstanceOf(NextStep.Uncovered.class);
        // two instruments that agree at an end of their range: that is no outcome of its own
        looked.add(new Evidence.Outcome(LOADER.findings().get(0).id(), "not-above"));
        assertThat(uncoded(looked)).isInstanceOf(NextStep.Uncovered.class);
        looked.add(new Evidence.Reading("c", "q", "nothing", List.of(), 0, 12.4, false));
        assertThat(uncoded(looked)).isInstanceOf(NextStep.DoCheck.class);
    }

    private static NextStep uncoded(List<Evidence> found) {
        return NextStep.of(
                new Situation(
                        true,
                        true,
                        false,
                        List.of(),
                        false,
                        named("valve-5", 0.2),
                        found,
                        List.of(check(1, 1))),
                LOADER);
    }

    @Test
    void aCheapPartThatIsLikelyIsTriedWhereItsChecksCostMore() {
        VehicleDescription wired = Vehicles.derived("stonebarrow-wl9");
        Suspect cheap =
                wired.suspects().stream()
                        .min(Comparator.comparingDouble(s -> TwoSteps.inMinutes(s.repair())))
                        .orElseThrow();
        Ranking likely = named(cheap.id(), 0.7);
        // three in ten are mended in vain, which counts twice
        double even =
                2 * 0.3 / 0.7 * (TwoSteps.inMinutes(cheap.repair()) + NextStep.MINUTES_OF_A_TRIAL);
        NextCheck dear = check(1, 0.4).costing(even * 1.01);
        assertThat(step(wired, likely, dear))
                .isInstanceOfSatisfying(
                        NextStep.Trial.class,
                        t -> assertThat(t.why()).contains("leads with 70 %", dear.check().name()));
        assertThat(step(wired, likely, check(1, 0.4).costing(even * 0.99)))
                .isInstanceOf(NextStep.DoCheck.class);
        assertThat(step(wired, named(cheap.id(), 0.49), dear)).isInstanceOf(NextStep.DoCheck.class);
    }

    @Test
    void thereIsAlwaysSomethingToSay() {
        for (String lead :
                List.of(Hypothesis.SOMETHING_ELSE, Hypothesis.NOTHING, "pressure-pump")) {
            NextStep step = step(named(lead, 0.36));
            assertThat(step).isInstanceOf(NextStep.NothingLeft.class);
            assertThat(((NextStep.NothingLeft) step).why()).isNotBlank();
        }
        assertThat(step(named("pressure-pump", 0.7))).isInstanceOf(NextStep.Trial.class);
        List<NextCheck> some = new ArrayList<>(List.of(check(0, 0.01), check(1, 0.4)));
        assertThat(step(named("pressure-pump", 0.36), some.toArray(new NextCheck[0])))
                .isEqualTo(new NextStep.DoCheck(some.get(1), Optional.empty()));
    }

    /** Rare causes make a look tell little on the mean; a complaint is not given up unseen. */
    @Test
    void whatWasComplainedOfIsLookedAtBeforeNothingIsLeft() {
        VehicleDescription loader = Vehicles.derived("stonebarrow-wl9");
        Check look =
                loader.checks().stream()
                        .filter(c -> c.key().equals("outcome gauge-work-1"))
                        .findFirst()
                        .orElseThrow();
        NextCheck faint = new NextCheck(look, 0.003, 0, 0.003, List::of);
        Ranking nothing = named(Hypothesis.NOTHING, 0.9);
        Evidence told = new Evidence.SymptomTold("circuit-work-1");
        Evidence seen = new Evidence.Outcome("gauge-work-1", "well");
        assertThat(step(loader, nothing, List.of(told), faint))
                .isEqualTo(new NextStep.DoCheck(faint, Optional.empty()));
        assertThat(step(loader, nothing, List.of(told, seen), faint))
                .as("it was seen")
                .isInstanceOf(NextStep.NothingLeft.class);
        assertThat(step(loader, nothing, List.of(), faint))
                .as("nobody complained of it")
                .isInstanceOf(NextStep.NothingLeft.class);
    }

    private static NextStep step(
            VehicleDescription d, Ranking ranking, List<Evidence> found, NextCheck next) {
        return NextStep.of(
                new Situation(true, true, true, List.of(), false, ranking, found, List.of(next)),
                d);
    }

    /** A look may have been wrong; seen twice, it stands. */
    @Test
    void whatAloneSpeaksAgainstACauseIsLookedAtOnceMore() {
        Check check =
                LOADER.checks().stream().filter(Check.Look.class::isInstance).findFirst().get();
        Evidence look = new Evidence.Outcome(((Check.Look) check).finding(), "good");
        assertThat(look.key()).isEqualTo(check.key());
        Ranking named = named("valve-5", 0.95);
        Ranking against =
                new Ranking(
                        named.standings(), named.alike(), 0, Optional.of(look), named.sentence());
        assertThat(against.accused()).isEmpty();
        NextStep first =
                NextStep.of(
                        new Situation(
                                true,
                                true,
                                true,
                                List.of(),
                                false,
                                against,
                                List.of(look),
                                List.of()),
                        LOADER);
        assertThat(first)
                .isInstanceOfSatisfying(
                        NextStep.DoCheck.class,
                        todo -> {
                            assertThat(todo.again()).isTrue();
                            assertThat(todo.check().check()).isEqualTo(check);
                            assertThat(todo.beforeRepair().get())
                                    .startsWith("valve-5 leads with 95 %, and only what was seen");
                        });
        assertThat(
                        NextStep.of(
                                new Situation(
                                        true,
                                        true,
                                        true,
                                        List.of(),
                                        false,
                                        against,
                                        List.of(look, look),
                                        List.of()),
                                LOADER))
                .isNotInstanceOf(NextStep.DoCheck.class);
    }
}
