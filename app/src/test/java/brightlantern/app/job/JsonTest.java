package brightlantern.app.job;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.sweep.Sweep;
import java.io.StringReader;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** What was kept before things had ends is read as far as it can be shown. */
class JsonTest {
    private final Json json = new Json();

    private Json.Short<Sweep> read(int modules, int most, String name) {
        List<Sweep.ModuleResult> all =
                IntStream.range(0, modules)
                        .mapToObj(i -> Sweep.ModuleResult.notAsked("m" + i, name, "chassis"))
                        .toList();
        String text =
                json.write(
                        new Sweep(
                                Instant.parse("2026-11-30T08:00:00Z"),
                                Optional.of(Instant.parse("2026-11-30T08:01:00Z")),
                                all));
        return json.readShort(new StringReader(text), "modules", most, 100, Sweep.class);
    }

    @Test
    void aSweepThatHoldsEveryAddressIsReadUpToItsEnd() {
        Json.Short<Sweep> its = read(32_255, 600, "At an address");
        assertThat(its.leftOut()).isEqualTo(31_655);
        assertThat(its.read().modules()).hasSize(600);
        assertThat(its.read().modules().get(599).moduleId()).isEqualTo("m599");
        assertThat(its.read().finished()).contains(Instant.parse("2026-11-30T08:01:00Z"));
    }

    @Test
    void aSweepOfAVehicleIsReadAsItIs() {
        Json.Short<Sweep> its = read(42, 42, "Brake");
        assertThat(its.leftOut()).isZero();
        assertThat(its.read().modules())
                .hasSize(42)
                .contains(Sweep.ModuleResult.notAsked("m41", "Brake", "chassis"));
    }

    @Test
    void aTextWithoutAnEndIsCutWithASign() {
        assertThat(read(1, 5, "F".repeat(60_000)).read().modules().get(0).name())
                .hasSizeLessThanOrEqualTo(100)
                .endsWith("characters left out)");
    }
}
