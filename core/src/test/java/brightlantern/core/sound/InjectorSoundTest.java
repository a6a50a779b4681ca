package brightlantern.core.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Clicks of known loudness and pitch, found and compared. */
class InjectorSoundTest {
    private static final double APART = 0.3;

    private record Tone(double loud, double hertz) {}

    private static Wav wav(int rate, double noise, List<Tone> tones) {
        Random random = new Random(3);
        double[] samples = new double[(int) ((tones.size() + 1) * APART * rate)];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = noise * random.nextGaussian();
        }
        for (int k = 0; k < tones.size(); k++) {
            int from = (int) ((k + 0.5) * APART * rate);
            for (int i = 0; i < rate / 30; i++) {
                double t = i / (double) rate;
                samples[from + i] +=
                        tones.get(k).loud()
                                * Math.exp(-t / 0.008)
                                * Math.sin(2 * Math.PI * tones.get(k).hertz() * t);
            }
        }
        return new Wav(rate, samples, List.of());
    }

    private static List<Tone> alike(int n) {
        List<Tone> tones = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            tones.add(new Tone(0.4, 2500));
        }
        return tones;
    }

    @ParameterizedTest
    @ValueSource(ints = {8000, 22_050, 48_000, 192_000})
    void onsetsLevelsAndPitchAreFoundAtAnyRate(int rate) {
        List<InjectorSound.Click> clicks = InjectorSound.clicks(wav(rate, 0.001, alike(6)));
        assertThat(clicks).hasSize(6);
        for (int k = 0; k < 6; k++) {
            assertThat(clicks.get(k).seconds()).isCloseTo((k + 0.5) * APART, within(0.004));
            assertThat(clicks.get(k).hertz()).isCloseTo(2500, within(250.0));
        }
    }

    @Test
    void twiceAsLoudIsSixDecibels() {
        List<InjectorSound.Click> clicks =
                InjectorSound.clicks(
                        wav(44_100, 0.0005, List.of(new Tone(0.2, 2500), new Tone(0.4, 2500))));
        assertThat(clicks.get(1).level() - clicks.get(0).level()).isCloseTo(6.02, within(0.2));
    }

    @Test
    void aQuieterOrALowerOneIsDullAndSeveralNameNobody() {
        List<Tone> tones = alike(4);
        tones.set(2, new Tone(0.2, 2500));
        InjectorSound.Verdict quiet =
                InjectorSound.judge(wav(44_100, 0.001, tones), List.of(1, 3, 4, 2));
        assertThat(quiet.dull()).contains(4);
        assertThat(quiet.reasons()).anyMatch(r -> r.startsWith("Cylinder 4: -6.0 dB"));
        tones.set(2, new Tone(0.4, 1700));
        assertThat(InjectorSound.judge(wav(44_100, 0.001, tones), List.of(1, 3, 4, 2)).dull())
                .contains(4);
        tones.set(0, new Tone(0.15, 1700));
        InjectorSound.Verdict several =
                InjectorSound.judge(wav(44_100, 0.001, tones), List.of(1, 3, 4, 2));
        assertThat(several.dull()).isEmpty();
        assertThat(several.sentence()).startsWith("Several injectors sound dull");
    }

    @Test
    void roundsAreToldApartAndAMissedClickIsNotJudged() {
        InjectorSound.Verdict rounds =
                InjectorSound.judge(wav(44_100, 0.001, alike(9)), List.of(1, 2, 3));
        assertThat(rounds.cylinders()).allMatch(c -> c.clicks() == 3 && !c.dull());
        assertThat(rounds.sentence()).isEqualTo("All injectors sound alike.");
        InjectorSound.Verdict missed =
                InjectorSound.judge(wav(44_100, 0.001, alike(8)), List.of(1, 2, 3));
        assertThat(missed.judged()).isFalse();
        assertThat(missed.sentence())
                .contains("8 clicks found, which cannot be judged: expected as many as 3");
        assertThat(InjectorSound.together(missed, rounds)).contains("could not be judged");
        assertThat(InjectorSound.together(rounds, rounds))
                .isEqualTo("All injectors sound alike, cold and warm.");
    }

    @Test
    void aClippedRecordingIsNotJudged() {
        List<Tone> tones = alike(4);
        tones.set(2, new Tone(0.2, 2500));
        Wav wav = wav(44_100, 0.001, tones);
        double[] loud = new double[wav.samples().length];
        for (int i = 0; i < loud.length; i++) {
            loud[i] = Math.max(-0.05, Math.min(0.05, wav.samples()[i]));
        }
        Wav clipped = Wav.read(new Wav(44_100, loud, List.of()).write());
        InjectorSound.Verdict verdict = InjectorSound.judge(clipped, List.of(1, 3, 4, 2));
        assertThat(verdict.judged()).isFalse();
        assertThat(verdict.sentence()).startsWith("Cannot be judged: the recording is clipped");
    }

    @Test
    void offsetAndHumDoNotDragTheCentreDown() {
        List<Tone> tones = alike(4);
        tones.set(2, new Tone(0.2, 2500));
        Wav wav = wav(44_100, 0.001, tones);
        double[] humming = wav.samples().clone();
        for (int i = 0; i < humming.length; i++) {
            humming[i] = 0.2 + humming[i] + 0.1 * Math.sin(2 * Math.PI * 50 * i / 44_100);
        }
        InjectorSound.Verdict clean = InjectorSound.judge(wav, List.of(1, 3, 4, 2));
        InjectorSound.Verdict hum =
                InjectorSound.judge(new Wav(44_100, humming, List.of()), List.of(1, 3, 4, 2));
        assertThat(hum.dull()).isEqualTo(clean.dull()).contains(4);
        for (int i = 0; i < 4; i++) {
            assertThat(hum.cylinders().get(i).hertz())
                    .isCloseTo(clean.cylinders().get(i).hertz(), within(100.0));
        }
    }
}
