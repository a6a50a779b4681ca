package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

/** What nobody listed is neither excluded nor looked for where nobody suspects anything. */
class UnlistedTest {
    private final List<Evidence> found =
            new ArrayList<>(
                    List.of(
                            new Evidence.CodeSeen("P0192-11", true),
                            signal(0.1, false),
                            new Evidence.Outcome("pins-X87", "2")));
    private final Reasoner reasoner = new Reasoners(Vehicles.derived("tamarack-portage")).of(found);

    private static Evidence.Reading signal(double volts, boolean right) {
        return new Evidence.Reading(
                "engine-pressures", "X1.43", "nothing", List.of(), volts, 12.5, right);
    }

    private double unlisted() {
        return reasoner.rank(found).of(Hypothesis.SOMETHING_ELSE).orElseThrow().sureness();
    }

    @Test
    void aLookAtWhatNobodySuspectsHardlyMovesIt() {
        double before = unlisted();
        found.add(new Evidence.Outcome("gauge-load-lamp-front", "well"));
        found.add(new Evidence.Outcome("charging", "charges"));
        assertThat(unlisted()).isCloseTo(before, Offset.offset(0.1 * before));
    }

    @Test
    void whatFitsNoListedCauseRaisesIt() {
        double before = unlisted();
        found.add(
                new Evidence.Reading(
                        "engine-pressures", "X87.2", "nothing", List.of(), 4.2, 12.5, false));
        assertThat(unlisted()).isGreaterThan(2 * before);
    }

    @Test
    void checksStayWhereSomethingIsSuspected() {
        assertThat(reasoner.nextChecks(found, 12.5).subList(0, 5))
                .extracting(NextCheck::check)
                .allSatisfy(
                        c ->
                                assertThat(c)
                                        .isInstanceOfSatisfying(
                                                Check.Reading.class,
                                                r ->
                                                        assertThat(r.circuit())
                                                                .isEqualTo("engine-pressures")));
    }
}
