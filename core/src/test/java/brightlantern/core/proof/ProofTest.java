package brightlantern.core.proof;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.proof.Proof.Requirement;
import brightlantern.core.proof.Proof.State;
import brightlantern.core.proof.ProofRecord.DatedFinding;
import brightlantern.core.proof.ProofRecord.DatedSweep;
import brightlantern.core.proof.ProofRecord.DatedTake;
import brightlantern.core.reason.Remaining;
import brightlantern.core.signal.Condition;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Place;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ProofTest {
    private static final String CODE = "P0299-00";

    private final List<DatedFinding> findings = new ArrayList<>(List.of(check(1, "run", false)));
    private final List<Instant> clears = new ArrayList<>();
    private final List<Instant> keys = new ArrayList<>();
    private final List<DatedSweep> sweeps = new ArrayList<>();
    private final List<DatedTake> takes = new ArrayList<>();
    private boolean standing;
    private Remaining left =
            new Remaining(0.01, "Stuck", Map.of("run", 0.1, "code " + CODE, 0.2), Optional.empty());
    private DriveConditions conditions =
            new DriveConditions(
                    "the freeze frame",
                    List.of(
                            new Condition(
                                    "engine.load",
                                    Optional.of(70.0),
                                    Optional.empty(),
                                    "load 70 % or more",
                                    "")),
                    5);

    private static Instant at(int second) {
        return Instant.ofEpochSecond(second);
    }

    private static DatedFinding check(int second, String key, boolean passed) {
        return new DatedFinding(
                at(second),
                Place.of("exercise"),
                key,
                Optional.of(passed),
                key + " at " + second,
                Optional.empty());
    }

    private static DatedTake take(int second, double met) {
        return new DatedTake(at(second), "take", 90, new DriveConditions.Met(met, List.of()));
    }

    private static DatedSweep clean(int second) {
        return new DatedSweep(at(second), true, Set.of(), Set.of(), Set.of());
    }

    private Proof.Verdict judge() {
        return Proof.judge(record(), left);
    }

    private ProofRecord record() {
        return new ProofRecord(
                at(10),
                Set.of(CODE),
                Set.of("flat"),
                conditions,
                standing,
                Map.of(CODE, "engine load 60 to 100 %"),
                findings,
                clears,
                keys,
                sweeps,
                takes);
    }

    @Test
    void whatShowsWhileItStandsNeedsNoDriveButItsChecksAndItsSweep() {
        standing = true;
        findings.add(check(2, "gauge", false));
        everything();
        takes.clear();
        assertThat(judge().state()).isEqualTo(State.OPEN);
        findings.add(check(17, "gauge", true));
        findings.add(check(18, ProofRecord.COMPLAINT, true));
        assertThat(judge().state()).isEqualTo(State.PROVEN);
        sweeps.clear();
        assertThat(judge().state()).isEqualTo(State.OPEN);
    }

    private void everything() {
        findings.add(check(11, "run", true));
        clears.add(at(12));
        keys.add(at(13));
        sweeps.add(clean(14));
        takes.add(take(15, 12));
        sweeps.add(clean(16));
    }

    @Test
    void oneDriveShowsAllThatIsStillOpenAndARecordingShows() {
        findings.add(
                new DatedFinding(
                        at(2),
                        Place.of("watch"),
                        "boost",
                        Optional.of(false),
                        "boost is low",
                        Optional.empty()));
        ProofDrive drive = ProofDrive.of(record()).orElseThrow();
        assertThat(drive.first()).startsWith("Clear the codes");
        assertThat(drive.shows())
                .extracting(ProofDrive.Shown::id)
                .containsExactly("boost", "drive", "monitors");
        assertThat(drive.how())
                .containsExactly(
                        "As the freeze frame says: load 70 % or more, for 5 s together.",
                        "For the test of P0299-00: engine load 60 to 100 %.");
        everything();
        assertThat(ProofDrive.of(record()).orElseThrow())
                .satisfies(d -> assertThat(d.first()).isEmpty())
                .satisfies(
                        d ->
                                assertThat(d.shows())
                                        .extracting(ProofDrive.Shown::id)
                                        .containsExactly("boost"));
        findings.add(check(17, "boost", true));
        assertThat(ProofDrive.of(record())).isEmpty();
    }

    @Test
    void noDriveShowsWhatShowsWhileItStands() {
        standing = true;
        assertThat(ProofDrive.of(record())).isEmpty();
    }

    @Test
    void allThatIsNeededAndNothingElse() {
        assertThat(judge().state()).isEqualTo(State.OPEN);
        everything();
        assertThat(judge().state()).isEqualTo(State.PROVEN);
    }

    @Test
    void allThatIsNeededProvesNothingWhileTooMuchIsLeft() {
        everything();
        left = new Remaining(0.3, "Worn brushes", Map.of(), Optional.empty());
        assertThat(judge().state()).isEqualTo(State.OPEN);
        assertThat(judge().requirements())
                .filteredOn(r -> r.state() == State.OPEN)
                .singleElement()
                .satisfies(r -> assertThat(r.seen()).contains("30 %").contains("Worn brushes"));
    }

    @Test
    void whatWasShownSaysHowMuchItTells() {
        everything();
        assertThat(judge().requirements())
                .filteredOn(r -> List.of("run", "sweep").contains(r.id()))
                .extracting(Requirement::tells)
                .containsExactly(
                        "With something still broken it would come out so in 10 %.",
                        "With something still broken it would come out so in 20 %.");
    }

    @Test
    void onlyCodesWhoseTestsHaveRunWereShownToStayAway() {
        everything();
        assertThat(Proof.shown(record())).containsExactly(new Evidence.CodeSeen(CODE, false));
        sweeps.set(1, new DatedSweep(at(16), true, Set.of(), Set.of(CODE), Set.of()));
        assertThat(Proof.shown(record())).isEmpty();
        findings.add(check(18, ProofRecord.COMPLAINT, true));
        assertThat(Proof.shown(record())).containsExactly(new Evidence.SymptomGone("flat"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"outcome trims", "heard", "procedure cut-out", "injector sound"})
    void whateverFailedBeforeMustPassSince(String key) {
        findings.add(0, check(2, key, false));
        everything();
        assertThat(judge().state()).isEqualTo(State.OPEN);
        findings.add(check(11, key, true));
        assertThat(judge().state()).isEqualTo(State.PROVEN);
    }

    @Test
    void whatPassedBeforeTheRepairAlreadyNeedNotBeRepeated() {
        findings.add(check(2, "smoke", false));
        findings.add(check(3, "smoke", true));
        everything();
        assertThat(judge().state()).isEqualTo(State.PROVEN);
    }

    @Test
    void aFailedCheckThatFailsAgainFailsTheProof() {
        everything();
        findings.add(check(20, "run", false));
        assertThat(judge().state()).isEqualTo(State.FAILED);
        assertThat(judge().sentence()).contains("did not hold");
    }

    @Test
    void theCodeComingBackFailsTheProof() {
        everything();
        sweeps.add(new DatedSweep(at(17), true, Set.of(CODE), Set.of(), Set.of()));
        assertThat(judge().state()).isEqualTo(State.FAILED);
    }

    @Test
    void aTestThatHasNotRunSinceTheClearProvesNothing() {
        everything();
        sweeps.set(1, new DatedSweep(at(16), true, Set.of(), Set.of(CODE), Set.of()));
        Proof.Verdict verdict = judge();
        assertThat(verdict.state()).isEqualTo(State.OPEN);
        assertThat(verdict.requirements())
                .filteredOn(r -> r.state() == State.OPEN)
                .singleElement()
                .satisfies(
                        r ->
                                assertThat(r.seen())
                                        .contains(CODE + " came at engine load 60 to 100 %."));
    }

    /** A plug that was left off after the repair sets codes of its own. */
    @Test
    void whatWentOutWithTheRepairIsNotProven() {
        everything();
        sweeps.set(1, new DatedSweep(at(16), true, Set.of(), Set.of(), Set.of("B1234-13")));
        assertThat(judge().state()).isEqualTo(State.OPEN);
        assertThat(judge().requirements())
                .filteredOn(r -> r.id().equals("beside"))
                .singleElement()
                .satisfies(r -> assertThat(r.seen()).startsWith("New: B1234-13."));
        sweeps.add(new DatedSweep(at(17), true, Set.of(), Set.of(), Set.of()));
        assertThat(judge().state()).as("pushed home, swept again").isEqualTo(State.PROVEN);
    }

    /** Clear, key cycle and a sweep with the engine never started. */
    @Test
    void doingNothingProvesNothing() {
        findings.clear();
        clears.add(at(12));
        keys.add(at(13));
        sweeps.add(new DatedSweep(at(14), true, Set.of(), Set.of(CODE), Set.of()));
        assertThat(judge().state()).isEqualTo(State.OPEN);
        conditions = DriveConditions.none();
        assertThat(judge().state()).isEqualTo(State.OPEN);
    }

    @Test
    void orderMatters() {
        everything();
        keys.set(0, at(11));
        assertThat(judge().state()).as("key cycle before the clear").isEqualTo(State.OPEN);
        keys.set(0, at(13));
        takes.set(0, take(11, 12));
        assertThat(judge().state()).as("drive before the clear").isEqualTo(State.OPEN);
    }

    @Test
    void aMildDriveProvesNothingAndAStoppedSweepNeither() {
        everything();
        takes.set(0, take(15, 2));
        assertThat(judge().state()).isEqualTo(State.OPEN);
        takes.set(0, take(15, 12));
        sweeps.set(1, new DatedSweep(at(16), false, Set.of(), Set.of(), Set.of()));
        assertThat(judge().state()).isEqualTo(State.OPEN);
    }

    @Test
    void withoutMeasurableConditionsTheTechnicianSaysWhatWasFound() {
        conditions = DriveConditions.none();
        everything();
        assertThat(judge().state()).isEqualTo(State.OPEN);
        findings.add(check(18, ProofRecord.COMPLAINT, true));
        assertThat(judge().state()).isEqualTo(State.PROVEN);
        findings.add(check(19, ProofRecord.COMPLAINT, false));
        assertThat(judge().state()).isEqualTo(State.FAILED);
    }
}
