package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.offset;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ShownBySizeTest {
    private static final VehicleDescription LOADER = Vehicles.derived("stonebarrow-wl9");
    private static final String EARTH = "circuit-W-X1.42";

    private final CircuitFigures figures =
            new CircuitFigures(LOADER, new Predictions(LOADER), new NetworkFaults(LOADER));
    private final ShownBySize shown = new ShownBySize(figures);
    private final Suspect earth = LOADER.suspect(EARTH).orElseThrow();

    private OptionalDouble at(String code, int size) {
        return shown.of(code, new Hypothesis(EARTH, size, 0.01, Optional.of(earth)));
    }

    /** An earth that is poor lifts what its sensors tell; one that is open ends it. */
    @Test
    void aPoorEarthSetsOtherCodesThanAnOpenOne() {
        int sizes = figures.faults(EARTH).size();
        int open = sizes - 1;
        assertThat(at("P0191-64", open).orElseThrow()).isLessThan(0.1);
        assertThat(
                        IntStream.range(0, sizes)
                                .mapToDouble(i -> at("P0191-64", i).orElseThrow())
                                .max())
                .hasValueCloseTo(Shows.SHOWS, offset(Shows.SHOWS / 100));
        String atOpen =
                earth.codes().keySet().stream()
                        .filter(c -> at(c, open).orElse(0) > 0.9)
                        .findFirst()
                        .orElseThrow();
        assertThat(at(atOpen, 0).orElseThrow()).isLessThan(0.1);
    }

    @Test
    void whatNoGaugeBringsIsAsItIsDescribed() {
        assertThat(at("P0300-00", 0)).isEmpty();
        assertThat(at("circuit-unheard-of", 0)).isEmpty();
    }

    /** That none of the codes of an open earth is set says one thing, not one for each of them. */
    @Test
    void codesThatAreMissingTogetherCountOnce() {
        List<Evidence> found = new ArrayList<>();
        found.add(new Evidence.CodeSeen("P0191-64", true));
        found.add(new Evidence.CodeSeen("P0521-64", true));
        earth.codes().keySet().stream()
                .filter(c -> !c.endsWith("-64"))
                .forEach(c -> found.add(new Evidence.CodeSeen(c, false)));
        Ranking ranking = new Reasoners(LOADER).of(found).rank(found);
        double its = ranking.of(EARTH).orElseThrow().sureness();
        double sensor = ranking.of("circuit-rail-sensor-biased").orElseThrow().sureness();
        assertThat(its).isGreaterThan(sensor);
    }
}
