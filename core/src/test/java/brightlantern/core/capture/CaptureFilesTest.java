package brightlantern.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.capture.comtrade.ComtradeReader;
import brightlantern.core.capture.comtrade.ComtradeWriter;
import brightlantern.core.signal.Value;
import brightlantern.core.take.mdf.MdfReader;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What is written comes back, and what others write is read or refused with the place. */
class CaptureFilesTest {
    private static final Instant BEGAN = Instant.parse("2026-03-04T05:06:07.25Z");

    @TempDir private Path folder;

    private static Capture two() {
        double[] volts = new double[500];
        double[] amps = new double[500];
        for (int i = 0; i < volts.length; i++) {
            volts[i] = 6 + 6 * Math.sin(i / 9.0);
            amps[i] = i % 50 < 20 ? 3.5 : -0.01;
        }
        return new Capture(
                2e-5,
                List.of(
                        Lane.of("Coil, feed", LaneRole.COIL, "V", "X10.1", volts),
                        Lane.of("Clamp", LaneRole.OTHER, "A", "", amps)));
    }

    private static void same(Capture read, Capture written, double within) {
        assertThat(read.interval()).isCloseTo(written.interval(), within(1e-12));
        assertThat(read.lanes()).hasSameSizeAs(written.lanes());
        for (int l = 0; l < read.lanes().size(); l++) {
            double[] its = read.lanes().get(l).samples();
            double[] were = written.lanes().get(l).samples();
            assertThat(its).hasSameSizeAs(were);
            for (int i = 0; i < its.length; i++) {
                assertThat(its[i]).isCloseTo(were[i], within(within));
            }
        }
    }

    @Test
    void aRecordOfC37111ComesBackAsItWas() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ComtradeWriter.write(two(), "Coil, under load", BEGAN, out);
        assertThat(ComtradeReader.isWhole(out.toByteArray())).isTrue();
        Capture read = ComtradeReader.read(out.toByteArray());
        same(read, two(), 3e-4);
        assertThat(read.lanes().get(0).name()).isEqualTo("Coil  feed");
        assertThat(read.lanes().get(1).unit()).isEqualTo("A");
        assertThat(out.toString(StandardCharsets.ISO_8859_1))
                .contains("04/03/2026,05:06:07.250000")
                .contains("Bright Lantern,2013");
    }

    private static String configuration(String kind) {
        return """
                YARD,7
                3,2A,1D
                1,Ua,A,,V,0.5,1,0,-32767,32767
                2,Ia,A,,A,0.01,0,0,-32767,32767
                1,Relay,0
                50
                1
                1000,3
                04/03/26,05:06:07.000000
                04/03/26,05:06:07.000000
                %s
                """
                .formatted(kind);
    }

    private static void threeSamples(Capture read) {
        assertThat(read.interval()).isEqualTo(1e-3);
        double[][] expected = {{6, -4, -4}, {1, 2, 3}, {0, 1, 1}};
        for (int l = 0; l < 3; l++) {
            for (int i = 0; i < 3; i++) {
                assertThat(read.lanes().get(l).samples()[i])
                        .as("lane %d, sample %d", l, i)
                        .isCloseTo(expected[l][i], within(1e-3));
            }
        }
    }

    @Test
    void textWithAMissingSampleHoldsTheOneBefore() {
        threeSamples(
                ComtradeReader.read(
                        configuration("ASCII"),
                        "1,0,10,100,0\r\n2,1000,-10,200,1\r\n3,2000,,300,1\r\n\u001A"
                                .getBytes(StandardCharsets.US_ASCII)));
    }

    @ParameterizedTest
    @CsvSource({"BINARY, 2", "BINARY32, 4", "FLOAT32, 4"})
    void numbersOfEachKindAreRead(String kind, int bytes) {
        int[][] raw = {{10, 100, 0}, {-10, 200, 1}, {Integer.MIN_VALUE, 300, 1}};
        ByteBuffer data =
                ByteBuffer.allocate(3 * (8 + 2 * bytes + 2)).order(ByteOrder.LITTLE_ENDIAN);
        for (int n = 0; n < 3; n++) {
            data.putInt(n + 1).putInt(1000 * n);
            for (int c = 0; c < 2; c++) {
                boolean none = raw[n][c] == Integer.MIN_VALUE;
                switch (kind) {
                    case "BINARY" -> data.putShort(none ? Short.MIN_VALUE : (short) raw[n][c]);
                    case "BINARY32" -> data.putInt(raw[n][c]);
                    default -> data.putFloat(none ? Float.NaN : raw[n][c]);
                }
            }
            data.putShort((short) raw[n][2]);
        }
        threeSamples(ComtradeReader.read(configuration(kind), data.array()));
        // what was cut off is left out
        assertThat(
                        ComtradeReader.read(
                                        configuration(kind),
                                        Arrays.copyOf(data.array(), data.capacity() - 1))
                                .length())
                .isEqualTo(2);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "3,2A,1D | 3,2A,xD | Line 2 of the configuration: expected a number for digital",
                "0.5,1,0 | half,1,0 | Line 3 of the configuration: expected a number for a, found 'half'",
                "ASCII | EBCDIC | Line 11 of the configuration: expected ASCII, BINARY",
                "1000,3 | 1000 | expected a rate and its last sample, found 1 field",
                "3,2A,1D | 20,19A,1D | Line 5 of the configuration",
            })
    void aMistakeIsToldWithItsLine(String right, String wrong, String told) {
        assertThatThrownBy(
                        () ->
                                ComtradeReader.read(
                                        configuration("ASCII").replace(right, wrong), new byte[0]))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(told);
    }

    @Test
    void samplesThatAreNoneAreTold() {
        assertThatThrownBy(
                        () -> ComtradeReader.read(configuration("ASCII"), "1,0,x,2,3".getBytes()))
                .hasMessage("Line 1 of the data: expected a number, found 'x'");
        assertThatThrownBy(() -> ComtradeReader.read(configuration("ASCII"), "1,0,1".getBytes()))
                .hasMessage("Line 1 of the data: expected 5 fields, found 3");
        assertThatThrownBy(() -> ComtradeReader.read(configuration("BINARY"), new byte[9]))
                .hasMessageContaining("0 samples");
        assertThatThrownBy(() -> ComtradeReader.read("--- file type: HDR ---\nx".getBytes()))
                .hasMessageContaining("found no CFG");
    }

    @Test
    void soundHasAChannelForEachLane() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        CaptureFiles.wav(two(), out);
        Capture read = SoundReader.read(out.toByteArray());
        assertThat(read.rate()).isCloseTo(50_000, within(1e-6));
        for (int l = 0; l < 2; l++) {
            Lane its = read.lanes().get(l);
            Lane was = two().lanes().get(l);
            assertThat(its.steps()).isEqualTo(was.steps());
            assertThat(its.scale()).isEqualTo(1 / 32768.0);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {8, 16, 24, 32})
    void soundOfEachWidthWithEitherEndFirstIsRead(int bits) throws IOException {
        byte[] bytes = new byte[1000 * bits / 8];
        for (int i = 0; i < 1000; i++) {
            long its = Math.round(0.5 * Math.pow(2, bits - 1) * Math.sin(i / 20.0));
            for (int b = 0; b < bits / 8; b++) {
                bytes[i * bits / 8 + b] = (byte) (its >> bits - 8 - 8 * b);
            }
        }
        for (AudioFileFormat.Type type :
                List.of(AudioFileFormat.Type.AIFF, AudioFileFormat.Type.WAVE)) {
            AudioFormat format = new AudioFormat(44_100, bits, 1, true, true);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            AudioSystem.write(
                    new AudioInputStream(new ByteArrayInputStream(bytes), format, 1000), type, out);
            Lane read = SoundReader.read(out.toByteArray()).lanes().get(0);
            for (int i = 0; i < 1000; i++) {
                assertThat(read.at(i))
                        .as("%s, %d", type, i)
                        .isCloseTo(0.5 * Math.sin(i / 20.0), within(0.009));
            }
        }
    }

    @Test
    void aTornFileOfSoundIsTold() {
        assertThatThrownBy(() -> SoundReader.read("RIFF1234WAVEfmt".getBytes()))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("expected a file of sound");
    }

    @Test
    void lanesGoOutAsMdfInTheirUnits() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        CaptureFiles.mdf(two(), BEGAN, out);
        MdfReader.Read read =
                MdfReader.read(Files.write(folder.resolve("two.mf4"), out.toByteArray()));
        Map<String, Value> byId =
                read.values().stream().collect(Collectors.toMap(Value::id, Function.identity()));
        Capture back = CaptureOfTake.of(read.take(), byId::get);
        same(back, two(), 3e-4);
        assertThat(back.lanes()).extracting(Lane::unit).containsExactly("V", "A");
    }
}
