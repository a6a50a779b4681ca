package brightlantern.core.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Recordings of every kind that may come, and of those that should not. */
class WavTest {
    private static final int RATE = 16_000;

    /** A tone of 440 Hz, half as loud as can be. */
    private static double tone(int i, int rate) {
        return 0.5 * Math.sin(2 * Math.PI * 440 * i / rate);
    }

    private static byte[] file(int rate, int bits, int channels, int count) {
        int wide = bits / 8;
        ByteBuffer out =
                ByteBuffer.allocate(44 + count * wide * channels).order(ByteOrder.LITTLE_ENDIAN);
        out.put("RIFF".getBytes()).putInt(36 + count * wide * channels).put("WAVEfmt ".getBytes());
        out.putInt(16).putShort((short) 1).putShort((short) channels).putInt(rate);
        out.putInt(rate * wide * channels).putShort((short) (wide * channels));
        out.putShort((short) bits).put("data".getBytes()).putInt(count * wide * channels);
        for (int i = 0; i < count; i++) {
            for (int c = 0; c < channels; c++) {
                double v = tone(i, rate);
                switch (bits) {
                    case 8 -> out.put((byte) Math.round(128 + 127 * v));
                    case 16 -> out.putShort((short) Math.round(32767 * v));
                    default -> {
                        int whole = (int) Math.round(8388607 * v);
                        out.put((byte) whole).put((byte) (whole >> 8)).put((byte) (whole >> 16));
                    }
                }
            }
        }
        return out.array();
    }

    @ParameterizedTest
    @CsvSource({
        "8000, 8, 1, 0.01",
        "44100, 16, 1, 0.0001",
        "192000, 24, 2, 0.00001",
        "22050, 16, 2, 0.0001",
        "96000, 8, 2, 0.01",
        "48000, 24, 1, 0.00001"
    })
    void everyWidthRateAndChannelReadsAlike(int rate, int bits, int channels, double close) {
        Wav wav = Wav.read(file(rate, bits, channels, rate));
        assertThat(wav.rate()).isEqualTo(rate);
        assertThat(wav.seconds()).isEqualTo(1);
        for (int i = 0; i < 200; i++) {
            assertThat(wav.samples()[i]).isCloseTo(tone(i, rate), within(close));
        }
        assertThat(wav.remarks()).isEmpty();
    }

    @Test
    void whatWasWrittenReadsBack() {
        double[] samples = new double[RATE];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = tone(i, RATE);
        }
        Wav back = Wav.read(new Wav(RATE, samples, List.of()).write());
        assertThat(back.samples()).hasSize(RATE);
        assertThat(back.samples()[100]).isCloseTo(samples[100], within(1e-4));
    }

    @Test
    void tornSilentClippedAndForeignFilesAreTold() {
        byte[] whole = file(RATE, 16, 1, RATE);
        byte[] torn = Arrays.copyOf(whole, whole.length / 2);
        assertThat(Wav.read(torn).remarks())
                .containsExactly("The file ends early; what was there was read.");
        assertThatThrownBy(() -> Wav.read(Arrays.copyOf(whole, 40)))
                .hasMessageContaining("expected the part 'data'");
        assertThatThrownBy(() -> Wav.read(Arrays.copyOf(whole, 1000)))
                .hasMessageContaining("at least 0.2 s");
        assertThatThrownBy(() -> Wav.read("MThd, music".getBytes())).hasMessageContaining("Byte 0");
        assertThatThrownBy(() -> Wav.read(new byte[0])).hasMessageContaining("expected a WAV");
        assertThatThrownBy(() -> Wav.read(new Wav(RATE, new double[RATE], List.of()).write()))
                .hasMessageContaining("silent");
        double[] loud = new double[RATE];
        for (int i = 0; i < RATE; i++) {
            loud[i] = Math.max(-1, Math.min(1, 5 * tone(i, RATE)));
        }
        assertThat(Wav.read(new Wav(RATE, loud, List.of()).write()).remarks().get(0))
                .contains("clipped");
        byte[] strange = whole.clone();
        strange[20] = 3;
        assertThatThrownBy(() -> Wav.read(strange))
                .hasMessageContaining("found format 3 with 16 bit");
        strange[20] = 1;
        strange[22] = 6;
        assertThatThrownBy(() -> Wav.read(strange)).hasMessageContaining("found 6");
        strange[22] = 1;
        strange[25] = 0;
        assertThatThrownBy(() -> Wav.read(strange)).hasMessageContaining("samples a second");
    }

    @Test
    void noBytesAreTooStrange() {
        Random random = new Random(8);
        byte[] whole = file(RATE, 16, 1, RATE / 2);
        for (int i = 0; i < 3000; i++) {
            byte[] bent = Arrays.copyOf(whole, random.nextInt(whole.length + 1));
            for (int k = 0; k < 4 && bent.length > 0; k++) {
                bent[random.nextInt(Math.min(60, bent.length))] = (byte) random.nextInt(256);
            }
            try {
                assertThat(Wav.read(bent).samples()).isNotEmpty();
            } catch (IllegalArgumentException told) {
                assertThat(told).hasMessageMatching("(?s).*(Byte|xpected|silent|lasts).*");
            }
        }
    }

    @Test
    void aWrongNumberOfClicksIsNotJudged() {
        InjectorSound.Verdict verdict =
                InjectorSound.judge(
                        Wav.read(file(RATE, 16, 1, RATE)), List.of(1, 2, 3, 4, 5, 6, 7));
        assertThat(verdict.judged()).isFalse();
        assertThat(verdict.sentence()).contains("expected as many as 7");
    }

    @ParameterizedTest
    @CsvSource({"1, 32", "3, 32", "3, 64"})
    void wideSamplesAndFloatsReadAlike(int format, int bits) {
        int wide = bits / 8;
        ByteBuffer out = ByteBuffer.allocate(44 + RATE * wide).order(ByteOrder.LITTLE_ENDIAN);
        out.put("RIFF".getBytes()).putInt(36 + RATE * wide).put("WAVEfmt ".getBytes()).putInt(16);
        out.putShort((short) format).putShort((short) 1).putInt(RATE).putInt(RATE * wide);
        out.putShort((short) wide).putShort((short) bits);
        out.put("data".getBytes()).putInt(RATE * wide);
        for (int i = 0; i < RATE; i++) {
            double v = tone(i, RATE);
            if (format == 1) {
                out.putInt((int) Math.round(Integer.MAX_VALUE * v));
            } else if (bits == 32) {
                out.putFloat((float) v);
            } else {
                out.putDouble(v);
            }
        }
        Wav wav = Wav.read(out.array());
        assertThat(wav.samples()[100]).isCloseTo(tone(100, RATE), within(1e-6));
        assertThat(wav.clipped()).isFalse();
    }

    @Test
    void channelsAgainstEachOtherAreTurnedOver() {
        byte[] stereo = file(RATE, 16, 2, RATE);
        ByteBuffer b = ByteBuffer.wrap(stereo).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < RATE; i++) {
            b.putShort(44 + 4 * i + 2, (short) -b.getShort(44 + 4 * i + 2));
        }
        Wav wav = Wav.read(stereo);
        assertThat(wav.samples()[100]).isCloseTo(tone(100, RATE), within(1e-3));
        assertThat(wav.remarks()).anyMatch(r -> r.contains("against each other"));
    }
}
