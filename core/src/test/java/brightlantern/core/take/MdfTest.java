package brightlantern.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.take.mdf.MdfReader;
import brightlantern.core.take.mdf.MdfWriter;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class MdfTest {
    private static final Instant START = Instant.parse("2026-11-20T10:15:30.250Z");

    private VehicleDescription van;
    private Take take;
    private byte[] file;

    @BeforeEach
    void write() throws Exception {
        van = Vehicles.portage();
        take =
                new Take(
                        Map.of(
                                "engine.speed", Columns.of(20, t -> 800 + 10 * t),
                                "boost.actual",
                                        new Take.Column(
                                                new double[] {0.25, 0.75, 1.5},
                                                new double[] {101.3, Double.NaN, 140.25}),
                                "engine.state", Columns.of(20, t -> t > 3 ? 2 : 1)),
                        List.of(new Take.Mark(2.5, "bump"), new Take.Mark(7, "Steigung 12 %")));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        MdfWriter.write(take, van.signals(), START, out);
        file = out.toByteArray();
    }

    @Test
    void whatIsWrittenIsReadBack() {
        MdfReader.Read read = MdfReader.read(file);
        assertThat(read.remarks()).isEmpty();
        assertThat(read.start()).isEqualTo(START);
        assertThat(read.take().marks()).isEqualTo(take.marks());
        assertThat(read.take().columns().keySet()).isEqualTo(take.columns().keySet());
        take.columns()
                .forEach(
                        (id, column) -> {
                            Take.Column its = read.take().columns().get(id);
                            assertThat(its.size()).isEqualTo(column.size());
                            for (int i = 0; i < its.size(); i++) {
                                assertThat(its.seconds(i)).isEqualTo(column.seconds(i));
                                assertThat(Double.doubleToLongBits(its.value(i)))
                                        .isEqualTo(Double.doubleToLongBits(column.value(i)));
                            }
                        });
        assertThat(read.values())
                .anySatisfy(
                        v -> {
                            assertThat(v.name()).isEqualTo("Engine state");
                            assertThat(v.states()).containsEntry(2, "running");
                        })
                .anySatisfy(
                        v -> {
                            assertThat(v.name()).isEqualTo("Boost pressure");
                            assertThat(v.unit()).isEqualTo("kPa");
                        });
    }

    /** Layout by the standard: identification, then the header block at byte 64. */
    @Test
    void theFileIsLaidOutAsTheStandardSays() {
        ByteBuffer b = ByteBuffer.wrap(file).order(ByteOrder.LITTLE_ENDIAN);
        assertThat(new String(file, 0, 16, StandardCharsets.US_ASCII))
                .isEqualTo("MDF     4.10    ");
        assertThat(b.getShort(28)).isEqualTo((short) 410);
        assertThat(new String(file, 64, 4, StandardCharsets.US_ASCII)).isEqualTo("##HD");
        assertThat(b.getLong(72)).isEqualTo(104);
        assertThat(b.getLong(80)).isEqualTo(6);
        int group = (int) b.getLong(88);
        assertThat(new String(file, group, 4, StandardCharsets.US_ASCII)).isEqualTo("##DG");
        assertThat(b.getLong(group + 8)).isEqualTo(64);
        int cg = (int) b.getLong(group + 32);
        assertThat(new String(file, cg, 4, StandardCharsets.US_ASCII)).isEqualTo("##CG");
        int cn = (int) b.getLong(cg + 32);
        assertThat(new String(file, cn, 4, StandardCharsets.US_ASCII)).isEqualTo("##CN");
        assertThat(b.getLong(cn + 8)).isEqualTo(160);
        assertThat(b.get(cn + 88)).as("the first channel is the master").isEqualTo((byte) 2);
        assertThat(file.length % 8).isZero();
    }

    @Test
    void anEarlyEndCostsWhatIsMissingOrIsNamed() {
        for (int length = 0; length < file.length; length += 37) {
            byte[] torn = Arrays.copyOf(file, length);
            assertThatThrownBy(() -> MdfReader.read(torn))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageStartingWith("Byte ");
        }
    }

    @Test
    void damageIsToldAndNeverLoopsOrRunsWild() {
        Random random = new Random(5);
        int told = 0;
        for (int i = 0; i < 3000; i++) {
            byte[] damaged = file.clone();
            for (int k = 0; k < 1 + random.nextInt(6); k++) {
                damaged[random.nextInt(damaged.length)] = (byte) random.nextInt();
            }
            try {
                MdfReader.read(damaged);
            } catch (IllegalArgumentException wrong) {
                told++;
                assertThat(wrong.getMessage()).isNotBlank();
            }
        }
        assertThat(told).isPositive();
    }

    /** A block at the very end of a file without the bytes that its kind has. */
    @Test
    void aBlockThatIsTooShortForItsKindIsNamed() {
        String letters = new String(file, StandardCharsets.ISO_8859_1);
        for (String kind : List.of("HD", "DG", "CG", "CN")) {
            byte[] cut = file.clone();
            int at = letters.indexOf("##" + kind);
            ByteBuffer bytes = ByteBuffer.wrap(cut).order(ByteOrder.LITTLE_ENDIAN);
            bytes.putLong(at + 8, 24 + 8 * bytes.getLong(at + 16));
            assertThatThrownBy(() -> MdfReader.read(cut))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageStartingWith("Byte " + at)
                    .hasMessageContaining("##" + kind)
                    .hasMessageEndingWith("of its own, found 0");
        }
    }

    @Test
    void whatIsNoMdfIsSaidToBeNone() {
        assertThatThrownBy(
                        () -> MdfReader.read("time;speed\n1;2\n".getBytes(StandardCharsets.UTF_8)))
                .hasMessageContaining("expected an MDF file");
        byte[] old = file.clone();
        ByteBuffer.wrap(old).order(ByteOrder.LITTLE_ENDIAN).putShort(28, (short) 330);
        assertThatThrownBy(() -> MdfReader.read(old)).hasMessageContaining("found 3.30");
    }

    @Test
    void aTargetAndItsActualLeaveInOneUnitAndComeBackInTheirOwn() throws Exception {
        Take both =
                new Take(
                        Map.of(
                                "boost.target", Columns.of(3, t -> 1800),
                                "boost.actual", Columns.of(3, t -> 180)),
                        List.of());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        MdfWriter.write(both, van.signals(), START, out);
        MdfReader.Read read = MdfReader.read(out.toByteArray());
        assertThat(read.values()).extracting(v -> v.unit()).containsOnly("kPa");
        assertThat(read.take().columns().get("boost.target").value(0)).isEqualTo(180);
        MdfReader.Read here = read.in(van.signals());
        assertThat(here.take().columns().get("boost.target").value(0)).isEqualTo(1800);
        assertThat(here.take().columns().get("boost.actual").value(0)).isEqualTo(180);
        assertThat(here.values()).isEmpty();
    }

    @Test
    void whatWasNeverFinishedIsToldAsThat() {
        byte[] torn = file.clone();
        System.arraycopy("UnFinMF ".getBytes(StandardCharsets.US_ASCII), 0, torn, 0, 8);
        assertThatThrownBy(() -> MdfReader.read(torn)).hasMessageContaining("never finished");
    }

    @Test
    void samplesThatAreMarkedAsNotValidAreGaps() {
        byte[] marked = file.clone();
        ByteBuffer b = ByteBuffer.wrap(marked).order(ByteOrder.LITTLE_ENDIAN);
        // the last data byte of each record serves as the bits, as the writer has none of its own
        int group = (int) b.getLong(88);
        int cg = (int) b.getLong(group + 32);
        int width = b.getInt(cg + 24 + 48 + 24);
        b.putInt(cg + 24 + 48 + 24, width - 1);
        b.putInt(cg + 24 + 48 + 28, 1);
        int cn = (int) b.getLong((int) b.getLong(cg + 32) + 24);
        int data = cn + 24 + 64;
        b.putInt(data + 12, 2);
        b.putInt(data + 16, 6);
        MdfReader.Read read = MdfReader.read(marked);
        assertThat(read.remarks()).anyMatch(r -> r.contains("marked as not valid"));
    }
}
