package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Touched;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.network.NetworkBreaker;
import brightlantern.standin.plant.Part;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whatever can break in any vehicle is somebody's suspect: what nobody suspects nobody finds. */
class EveryFailureTest {
    private final Yard yard = Yard.common();

    @ParameterizedTest
    @ValueSource(
            strings = {
                "tamarack-portage",
                "oriel-finch",
                "velmont-cairn",
                "quillon-ember",
                "stonebarrow-wl9",
                "oriel-heron"
            })
    void hasASuspect(String id) {
        VehicleDescription d = yard.vehicle(id);
        StandInVehicle v = yard.built(id);
        List<Part.Failure> all = new Breaker(v).breakable();
        assertThat(all).hasSizeGreaterThan(100);
        assertThat(all.stream().filter(f -> suspect(d, v, f).isEmpty()))
                .extracting(f -> f.mode() + " " + f.of() + ", " + f.name())
                .isEmpty();
    }

    private static Optional<Suspect> suspect(
            VehicleDescription d, StandInVehicle v, Part.Failure failure) {
        return d.suspects().stream().filter(s -> stands(s, v, failure)).findFirst();
    }

    /** Whether a suspect stands for a failure: by what mends it, or by part and way. */
    private static boolean stands(Suspect s, StandInVehicle v, Part.Failure f) {
        String of = f.of();
        Optional<Effect> effect = s.effect();
        return switch (f.mode()) {
            case "mechanical" ->
                    v.simulation().damage().failing(of).repair().equals(s.repair().id());
            case NetworkBreaker.MODE ->
                    effect.filter(e -> e instanceof Effect.OfElement o && o.element().equals(of))
                            .isPresent();
            case "series" ->
                    effect.filter(
                                    e ->
                                            e instanceof Effect.Series r
                                                    && r.of().equals(of)
                                                    && (r.breaks() || r.to() >= f.least()))
                            .isPresent();
            case "chafed", "live" ->
                    effect.filter(
                                    e ->
                                            e instanceof Effect.Chafed c
                                                    && c.of().equals(of)
                                                    && (c.touched() == Touched.LIVE)
                                                            == f.mode().equals("live"))
                            .isPresent();
            case "shorted" ->
                    effect.filter(e -> e instanceof Effect.Shorted c && c.of().equals(of))
                            .isPresent();
            case "biased", "misread" ->
                    effect.filter(
                                    e ->
                                            e instanceof Effect.Off o
                                                    && o.of().equals(of)
                                                    && o.misread() == f.mode().equals("misread"))
                            .isPresent();
            case "loose" ->
                    effect.filter(e -> e instanceof Effect.Loose o && o.of().equals(of))
                            .isPresent();
            case "stuck" ->
                    effect.filter(e -> e instanceof Effect.Stuck o && o.of().equals(of))
                            .isPresent();
            case "drag" ->
                    effect.filter(e -> e instanceof Effect.Drag g && g.of().equals(of)).isPresent();
            case "hose-leak" -> s.id().equals(of);
            default -> throw new IllegalArgumentException("A mode of its own: " + f.mode());
        };
    }
}
