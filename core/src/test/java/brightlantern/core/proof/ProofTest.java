package brightlantern.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.proof.Proof.DatedDrive;
import brightlantern.core.proof.Proof.DatedEvidence;
import brightlantern.core.proof.Proof.DatedSweep;
import brightlantern.core.proof.Proof.State;
import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.suspect.Evidence;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class ProofTest {
    private final List<DatedEvidence> evidence = new ArrayList<>(List.of(run(1, false)));
    private final List<Instant> clears = new ArrayList<>();
    private final List<Instant> keys = new ArrayList<>();
    private final List<DatedSweep> sweeps = new ArrayList<>();
    private final List<DatedDrive> drives = new ArrayList<>();

    private static Instant at(int second) {
        return Instant.ofEpochSecond(second);
    }

    private static DatedEvidence run(int second, boolean passed) {
        return new DatedEvidence(
                at(second),
                new Evidence.Run("vane", List.of("vane"), 0.5, 0.01, 12.4, passed),
                "run at " + second);
    }

    private static DatedDrive drive(int second, String outcome, double frameSeconds) {
        return new DatedDrive(
                at(second),
                new TargetStudy.Verdict(
                        outcome, 0, 20, 3, "kPa", 0, 1, frameSeconds, outcome, List.of()));
    }

    private Proof.Verdict judge() {
        return Proof.judge(
                new Proof.Record(
                        at(10),
                        Optional.of("P0299-00"),
                        true,
                        evidence,
                        clears,
                        keys,
                        sweeps,
                        drives,
                        true));
    }

    private void everything() {
        evidence.add(run(11, true));
        clears.add(at(12));
        keys.add(at(13));
        sweeps.add(new DatedSweep(at(14), true, Set.of()));
        drives.add(drive(15, "follows", 12));
        sweeps.add(new DatedSweep(at(16), true, Set.of()));
    }

    @Test
    void allThatIsNeededAndNothingElse() {
        assertThat(judge().state()).isEqualTo(State.OPEN);
        everything();
        assertThat(judge().state()).isEqualTo(State.PROVEN);
    }

    @Test
    void aFailedCheckThatFailsAgainFailsTheProof() {
        everything();
        evidence.add(run(20, false));
        assertThat(judge().state()).isEqualTo(State.FAILED);
        assertThat(judge().sentence()).contains("did not hold");
    }

    @Test
    void theCodeComingBackFailsTheProof() {
        everything();
        sweeps.add(new DatedSweep(at(17), true, Set.of("P0299-00")));
        assertThat(judge().state()).isEqualTo(State.FAILED);
    }

    @Test
    void orderMatters() {
        everything();
        keys.set(0, at(11));
        assertThat(judge().state()).as("key cycle before the clear").isEqualTo(State.OPEN);
    }

    @Test
    void aMildDriveProvesNothingAndAStoppedSweepNeither() {
        everything();
        drives.set(0, drive(15, "follows", 2));
        assertThat(judge().state()).isEqualTo(State.OPEN);
        drives.set(0, drive(15, "short", 12));
        assertThat(judge().state()).isEqualTo(State.FAILED);
        drives.set(0, drive(15, "follows", 12));
        sweeps.set(1, new DatedSweep(at(16), false, Set.of()));
        assertThat(judge().state()).isEqualTo(State.OPEN);
    }
}
