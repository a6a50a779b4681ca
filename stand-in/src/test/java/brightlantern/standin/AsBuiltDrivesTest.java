package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.study.target.Follow;
import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.study.trim.TrimSet;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Driver.Program;
import java.net.InetAddress;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Twenty drives of each vehicle as built: no study may accuse it. */
class AsBuiltDrivesTest {
    private static final int DRIVES = 20;
    private static final Program[][] WAYS = {
        {Program.STAND, Program.CRUISE},
        {Program.STAND, Program.CLIMB, Program.CLIMB},
        {Program.STOP_AND_GO, Program.PULL},
        {Program.STAND, Program.OVERRUN},
    };

    @ParameterizedTest
    @ValueSource(
            strings = {
                "oriel-finch",
                "velmont-cairn",
                "quillon-ember",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void noStudyAccusesIt(String id) throws Exception {
        VehicleDescription d = Shipped.vehicle(id);
        int judged = 0;
        for (int n = 0; n < DRIVES; n++) {
            judged +=
                    judged(
                            d,
                            DrivenTake.of(
                                    StandIns.of(d, StandIns.AS_BUILT, 100 + n),
                                    WAYS[n % WAYS.length]),
                            id + ", drive " + n);
        }
        assertThat(judged).as("verdicts").isGreaterThanOrEqualTo(DRIVES);
    }

    @Test
    void norTheVanOnItsHill() throws Exception {
        VehicleDescription d = Shipped.vehicle("tamarack-portage");
        int judged = 0;
        for (int n = 0; n < DRIVES; n++) {
            try (StandInVehicle van =
                    StandIns.open(
                            d, InetAddress.getByName("127.0.71.20"), StandIns.AS_BUILT, 600 + n)) {
                judged += judged(d, DrivenTake.of(van, WAYS[n % 2]), "van, drive " + n);
            }
        }
        assertThat(judged).as("verdicts").isGreaterThanOrEqualTo(DRIVES);
    }

    /** How many verdicts there are; none of them may accuse. */
    private static int judged(VehicleDescription d, Take take, String told) {
        int judged = 0;
        for (Follow follow : d.follows()) {
            var verdict =
                    TargetStudy.study(
                            take,
                            follow,
                            d.finding(follow.finding()).orElseThrow(),
                            d.signals(),
                            Map.of());
            judged += verdict.isPresent() ? 1 : 0;
            verdict.ifPresent(
                    v -> assertThat(v.outcome()).as("%s: %s", told, v).isEqualTo("follows"));
        }
        for (TrimSet set : d.trims()) {
            var verdict = TrimStudy.study(take, set);
            judged += verdict.isPresent() ? 1 : 0;
            verdict.ifPresent(
                    v -> assertThat(v.outcome()).as("%s: %s", told, v).isEqualTo(TrimStudy.NORMAL));
        }
        var cylinders = CylinderStudy.study(take, d.cylinders().orElseThrow());
        judged += cylinders.isPresent() ? 1 : 0;
        cylinders.ifPresent(v -> assertThat(v.outcome()).as("%s: %s", told, v).isEqualTo("even"));
        return judged;
    }
}
