package brightlantern.core.watch;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class StudyNeedsTest {
    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void whatStudiesNeedIsDescribedAndHoldsWhatIsLookedAt(String id) {
        VehicleDescription d = Vehicles.named(id);
        Set<String> all = StudyNeeds.all(d);
        assertThat(all).isNotEmpty().containsAll(StudyNeeds.looked(d));
        assertThat(all).allSatisfy(v -> assertThat(d.value(v)).as(v).isPresent());
    }

    @Test
    void theCylindersOfALoaderAreLookedAtAsItHasNothingElse() {
        VehicleDescription loader = Vehicles.named("stonebarrow-wl9");
        assertThat(StudyNeeds.all(loader)).contains("deviation.5", "misfires.5");
        VehicleDescription van = Vehicles.portage();
        assertThat(StudyNeeds.looked(van)).contains("boost.target").doesNotContain("deviation.1");
        assertThat(StudyNeeds.of(van.follows().get(0))).contains("vane.command", "vane.position");
    }

    /** A range is judged under conditions, whose values are read with it. */
    @Test
    void rangesBringTheirConditionsAndAreCountedByModule() {
        VehicleDescription van = Vehicles.portage();
        String ranged =
                van.values().stream()
                        .filter(v -> v.ranges().stream().anyMatch(r -> !r.when().isEmpty()))
                        .findFirst()
                        .orElseThrow()
                        .id();
        Set<String> with = StudyNeeds.withRanges(van, List.of(ranged));
        assertThat(with).hasSizeGreaterThan(1).contains(ranged);
        assertThat(
                        StudyNeeds.byModule(van, List.of(ranged)).values().stream()
                                .mapToInt(n -> n)
                                .sum())
                .isEqualTo(with.size());
        assertThat(StudyNeeds.byModule(van, List.of("no such value"))).isEmpty();
    }
}
