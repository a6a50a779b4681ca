package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Of hundreds of parts those are weighed that stand in a circuit in question. */
class ReasonersTest {
    private static final Evidence DARK = new Evidence.SymptomTold("circuit-low-left");

    private final VehicleDescription heron = Vehicles.derived("oriel-heron");
    private final Reasoners reasoners = new Reasoners(heron);

    private List<String> weighed(List<Evidence> evidence) {
        return reasoners.of(evidence).rank(evidence).standings().stream()
                .map(Standing::suspectId)
                .toList();
    }

    /** A relay's coil, a fuse, a splice stand on several sheets, and are one part all the same. */
    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void whatSeveralSheetsShareIsThereOnce(String vehicle) {
        VehicleDescription d = Vehicles.derived(vehicle);
        assertThat(d.findings()).extracting(Finding::id).doesNotHaveDuplicates();
        assertThat(d.suspects()).extracting(Suspect::id).doesNotHaveDuplicates();
        assertThat(d.symptoms()).extracting(Symptom::id).doesNotHaveDuplicates();
        assertThat(d.checks()).extracting(Check::id).doesNotHaveDuplicates();
    }

    @Test
    void anotherComplaintLeavesTheLampsOut() {
        assertThat(reasoners.inQuestion(List.of(new Evidence.SymptomTold("buying")))).isEmpty();
        assertThat(weighed(List.of(new Evidence.SymptomTold("buying"))))
                .contains("cluster-set-back")
                .noneMatch(s -> s.startsWith("circuit-"));
    }

    @Test
    void aDarkLampBringsItsCircuitInWithAllThatFeedsIt() {
        assertThat(reasoners.inQuestion(List.of(DARK))).containsExactly("low-beam");
        assertThat(weighed(List.of(DARK)))
                .contains(
                        "circuit-low-left",
                        "circuit-F41",
                        "circuit-K41",
                        "circuit-G101",
                        "circuit-STRAP",
                        "circuit-C-X30.2")
                .doesNotContain("circuit-high-left", "circuit-F42");
    }

    @Test
    void aStoredCodeAReadingAndAWrongLookBringTheirsInAndARightLookDoesNot() {
        assertThat(reasoners.inQuestion(List.of(new Evidence.CodeSeen("P0118-15", true))))
                .containsExactly("engine-temperatures");
        assertThat(reasoners.inQuestion(List.of(new Evidence.CodeSeen("P0118-15", false))))
                .isEmpty();
        assertThat(
                        reasoners.inQuestion(
                                List.of(
                                        new Evidence.Reading(
                                                "horn", "F44", "nothing", List.of(), 12, 12.4,
                                                true))))
                .containsExactly("horn");
        assertThat(reasoners.inQuestion(List.of(new Evidence.Outcome("gauge-horn-low", "dead"))))
                .containsExactly("horn");
        assertThat(reasoners.inQuestion(List.of(new Evidence.Outcome("gauge-horn-low", "well"))))
                .isEmpty();
    }

    @Test
    void whatMayBeEnteredGrowsWithWhatIsInQuestion() {
        Set<String> before = ids(List.of());
        Set<String> after = ids(List.of(DARK));
        assertThat(before).contains("odometer").noneMatch(f -> f.startsWith("gauge-"));
        assertThat(after)
                .containsAll(before)
                .contains("gauge-low-left", "gauge-low-right", "pins-X30", "gauge-high-left");
    }

    private Set<String> ids(List<Evidence> evidence) {
        return reasoners.findings(evidence).stream().map(Finding::id).collect(Collectors.toSet());
    }

    @Test
    void whatShowsStandingIsToldFromWhatNeedsADrive() {
        Set<String> lamp = Set.of("circuit-low-left");
        assertThat(Reasoners.showStanding(heron, lamp, Set.of())).isTrue();
        assertThat(Reasoners.showStanding(heron, Set.of(), Set.of("P0118-15"))).isTrue();
        assertThat(Reasoners.showStanding(heron, lamp, Set.of("P0401-00"))).isFalse();
        assertThat(Reasoners.showStanding(heron, Set.of("buying"), Set.of())).isFalse();
        assertThat(Reasoners.showStanding(heron, Set.of(), Set.of())).isFalse();
    }
}
