package brightlantern.core.shelf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** How much a new job is like a closed one, worked by hand and by laws. */
class ShelfCaseTest {
    private static ShelfCase of(Set<String> symptoms, Set<String> codes) {
        return new ShelfCase(
                1,
                "tamarack-portage",
                "Tamarack Portage",
                "Goes flat",
                symptoms,
                codes,
                List.of("Earth stud G12: 1.8 V while it moves, right is up to 0.1 V"),
                "Earth stud G12 corroded",
                "Clean and remake it",
                "earth-g12",
                "",
                0,
                0,
                "");
    }

    private static double like(ShelfCase c, Set<String> symptoms, Set<String> codes) {
        return c.match("tamarack-portage", symptoms, codes).likeness();
    }

    @Test
    void codesCountTwice() {
        ShelfCase c = of(Set.of("flat"), Set.of("P0299-00"));
        // shared 1 of (1 + 2·1) and 2 of (1 + 2·1)
        assertThat(like(c, Set.of("flat"), Set.of())).isCloseTo(1 / 3.0, within(1e-12));
        assertThat(like(c, Set.of(), Set.of("P0299-00"))).isCloseTo(2 / 3.0, within(1e-12));
        // one code more on either side: 3 of (1 + 2·2)
        assertThat(like(c, Set.of("flat"), Set.of("P0299-00", "P0671-13")))
                .isCloseTo(3 / 5.0, within(1e-12));
    }

    @Test
    void nothingKnownIsLikeNothing() {
        assertThat(like(of(Set.of(), Set.of()), Set.of(), Set.of())).isZero();
        assertThat(like(of(Set.of("flat"), Set.of()), Set.of("shakes"), Set.of())).isZero();
    }

    @Test
    void whatMakesThemAlikeIsSaid() {
        ShelfCase c = of(Set.of("flat", "smoke"), Set.of("P0299-00"));
        assertThat(
                        c.match("tamarack-portage", Set.of("smoke", "flat"), Set.of("P0299-00"))
                                .reasons())
                .containsExactly(
                        "same kind of vehicle", "symptom flat", "symptom smoke", "code P0299-00");
        assertThat(c.match("oriel-finch", Set.of("flat"), Set.of()).reasons())
                .containsExactly("symptom flat");
    }

    private static Set<String> drawn(Random random, String prefix) {
        return IntStream.range(0, 6)
                .filter(i -> random.nextBoolean())
                .mapToObj(i -> prefix + i)
                .collect(Collectors.toSet());
    }

    @Test
    void likenessIsBetweenNothingAndAllAndTheSameBothWays() {
        Random random = new Random(29);
        for (int i = 0; i < 300; i++) {
            Set<String> symptoms = drawn(random, "s");
            Set<String> codes = drawn(random, "c");
            Set<String> otherSymptoms = drawn(random, "s");
            Set<String> otherCodes = drawn(random, "c");
            double there = like(of(symptoms, codes), otherSymptoms, otherCodes);
            assertThat(there).isBetween(0.0, 1.0);
            assertThat(like(of(otherSymptoms, otherCodes), symptoms, codes))
                    .isCloseTo(there, within(1e-12));
            if (!symptoms.isEmpty() || !codes.isEmpty()) {
                assertThat(like(of(symptoms, codes), symptoms, codes)).isEqualTo(1);
            }
        }
    }

    @Test
    void itsCauseStandingHighHereMakesItAlikeWhateverWasTold() {
        ShelfCase c = of(Set.of("flat"), Set.of("P0299-00"));
        ShelfCase.Match match = c.match("tamarack-portage", Set.of(), Set.of(), 0.64);
        assertThat(match.likeness()).isCloseTo(0.4, within(1e-12));
        assertThat(match.reasons()).contains("its cause stands at 64 % here");
        assertThat(c.match("oriel-finch", Set.of("flat"), Set.of(), Double.NaN).likeness())
                .isCloseTo(1 / 3.0, within(1e-12));
    }
}
