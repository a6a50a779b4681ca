package brightlantern.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.RepairWay;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Ways to mend parts of several kinds, as a customer chooses between them. */
class RepairWaysTest {
    private final VehicleDescription heron = Vehicles.derived("oriel-heron");

    private List<RepairWay> ways(String suspect) {
        return RepairWays.of(heron.suspect(suspect).orElseThrow(), heron.circuits(), 1.6);
    }

    @Test
    void aWireCanBeJoinedLedAnewOrReplacedWithItsHarness() {
        String wire =
                heron.suspects().stream()
                        .map(Suspect::id)
                        .filter(s -> s.startsWith("circuit-W-") && !s.endsWith("-shorted"))
                        .findFirst()
                        .orElseThrow();
        List<RepairWay> ways = ways(wire);
        assertThat(ways).hasSize(3);
        assertThat(ways.get(0).lasts()).contains("dry");
        assertThat(ways.get(2).name()).isEqualTo("Replace the harness");
        assertThat(ways.get(2).price()).isGreaterThan(ways.get(1).price());
        assertThat(ways.get(1).minutes()).isGreaterThan(ways.get(0).minutes());
    }

    @Test
    void aDearPartIsToBeHadUsedAndACheapOneIsNot() {
        assertThat(ways("alternator")).extracting(RepairWay::parts).contains("used");
        assertThat(ways("balance")).hasSize(1);
    }

    @Test
    void everySuspectCanBeMendedInSomeWay() {
        assertThat(heron.suspects())
                .allSatisfy(
                        s ->
                                assertThat(RepairWays.of(s, heron.circuits(), 1.6))
                                        .isNotEmpty()
                                        .allMatch(w -> w.minutes() > 0 && !w.name().isBlank()));
    }
}
