package brightlantern.core.take;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.zip.DeflaterOutputStream;
import org.junit.jupiter.api.Test;

/** How takes are kept and shown without losing what matters. */
class ThinnedTest {
    @Test
    void noSpikeIsLostHoweverSmallThePicture() {
        Take.Column column = Columns.of(600, t -> Math.abs(t - 301.3) < 0.01 ? 999 : Math.sin(t));
        Thinned thinned = Thinned.of(column, 0, 600, 50);
        assertThat(thinned.values().length).isLessThanOrEqualTo(110);
        assertThat(Arrays.stream(thinned.values()).max().orElseThrow()).isEqualTo(999);
        assertThat(thinned.seconds()).isSorted();
    }

    @Test
    void whatIsNoNumberHidesNoSpike() {
        Take.Column column =
                Columns.of(
                        600, t -> Math.abs(t - 301.3) < 0.01 ? 999 : t % 1 < 0.5 ? Double.NaN : 1);
        Thinned thinned = Thinned.of(column, 0, 600, 50);
        assertThat(Arrays.stream(thinned.values()).filter(v -> v == 999)).hasSize(1);
        assertThat(Arrays.stream(thinned.values()).filter(v -> v == 1)).hasSizeGreaterThan(40);
    }

    @Test
    void aGapStaysAGap() {
        double[] t = new double[200];
        double[] y = new double[200];
        for (int i = 0; i < t.length; i++) {
            t[i] = i < 100 ? i * 0.1 : 30 + i * 0.1;
        }
        for (int slices : new int[] {20, 500}) {
            Thinned thinned = Thinned.of(new Take.Column(t, y), 0, 50, slices);
            assertThat(Arrays.stream(thinned.values()).filter(Double::isNaN).count()).isEqualTo(1);
        }
        assertThat(Thinned.of(new Take.Column(new double[0], new double[0]), 0, 1, 10).values())
                .isEmpty();
    }

    @Test
    void scaledValuesAreKeptToTheBitAndSmall() {
        VehicleDescription van = Vehicles.portage();
        Random random = new Random(2);
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        int n = 20 * 600;
        double[] t = new double[n];
        Arrays.setAll(t, i -> i * 0.05);
        for (Value value : van.values()) {
            double[] y = new double[n];
            long raw = 100;
            for (int i = 0; i < n; i++) {
                raw = Math.max(0, Math.min(200, raw + random.nextInt(3) - 1));
                y[i] = value.isState() ? raw % 2 : raw * value.scale() + value.offset();
            }
            columns.put(value.id(), new Take.Column(t, y));
        }
        byte[] chunk = TakeChunk.write(columns, van::value);
        double perSample = chunk.length / (double) (n * columns.size());
        assertThat(perSample).as("bytes a sample").isLessThan(0.5);
        Map<String, Take.Column> back = TakeChunk.read(chunk);
        assertThat(back.keySet()).containsExactlyElementsOf(columns.keySet());
        columns.forEach(
                (id, column) -> {
                    for (int i = 0; i < n; i++) {
                        assertThat(back.get(id).value(i)).isEqualTo(column.value(i));
                        assertThat(back.get(id).seconds(i))
                                .isEqualTo(Math.round(t[i] * 1000) / 1000.0);
                    }
                });
    }

    @Test
    void whatTheWireNeverCarriedIsKeptAsItIs() {
        VehicleDescription van = Vehicles.portage();
        double[] odd = {1 / 3.0, Double.NaN, Double.POSITIVE_INFINITY, 1e300, -0.0};
        Take.Column column = new Take.Column(new double[] {0, 1, 2, 3, 4}, odd);
        Take.Column back =
                TakeChunk.read(TakeChunk.write(Map.of("boost.actual", column), van::value))
                        .get("boost.actual");
        for (int i = 0; i < odd.length; i++) {
            assertThat(Double.doubleToRawLongBits(back.value(i)))
                    .isEqualTo(Double.doubleToRawLongBits(odd[i]));
        }
        assertThat(TakeChunk.read(TakeChunk.write(Map.of(), id -> Optional.empty()))).isEmpty();
    }

    /** The first form, as takes of earlier versions have it. */
    @Test
    void chunksOfTheFirstVersionAreStillRead() throws Exception {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        bytes.write(1);
        try (DataOutputStream out = new DataOutputStream(new DeflaterOutputStream(bytes))) {
            out.writeInt(1);
            out.writeUTF("boost.actual");
            out.writeInt(2);
            out.writeInt(250);
            out.writeInt(500);
            out.writeDouble(101.5);
            out.writeDouble(140);
        }
        Take.Column column = TakeChunk.read(bytes.toByteArray()).get("boost.actual");
        assertThat(column.seconds(1)).isEqualTo(0.75);
        assertThat(column.value(0)).isEqualTo(101.5);
    }
}
