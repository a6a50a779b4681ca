package brightlantern.standin.plant;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.sound.InjectorSound;
import brightlantern.core.sound.Wav;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Injectors that a microphone heard, judged by their sound. */
class InjectorClicksTest {
    private static final List<Integer> ORDER = List.of(1, 5, 3, 6, 2, 4);

    private static InjectorSound.Verdict heard(int stiff, double celsius, long seed) {
        Wav wav = InjectorClicks.heard(ORDER, 3, stiff, celsius, seed);
        return InjectorSound.judge(Wav.read(wav.write()), ORDER);
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
    void theStiffOneIsDullColdAndClearedWarm(long seed) {
        InjectorSound.Verdict cold = heard(2, 12, seed);
        assertThat(cold.dull()).as(cold.reasons().toString()).contains(2);
        InjectorSound.Verdict warm = heard(2, 85, seed);
        assertThat(warm.judged()).isTrue();
        assertThat(warm.dull()).isEmpty();
        assertThat(warm.sentence()).isEqualTo("All injectors sound alike.");
        assertThat(InjectorSound.together(cold, warm))
                .isEqualTo(
                        "Injector 2 is stiff when cold and sounds like its fellows when warm: it is not the fault.");
        assertThat(heard(0, 12, seed).sentence()).isEqualTo("All injectors sound alike.");
        assertThat(InjectorSound.together(cold, cold)).contains("sticking or worn");
    }
}
