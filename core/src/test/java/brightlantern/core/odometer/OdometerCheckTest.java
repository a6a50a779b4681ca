package brightlantern.core.odometer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.odometer.MileageRecord.Kind;
import brightlantern.core.odometer.OdometerCheck.Says;
import brightlantern.core.odometer.OdometerCheck.Verdict;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.Random;
import org.junit.jupiter.api.Test;

class OdometerCheckTest {
    private static final String VIN = "ZZHRN16D0G1000001";
    private static final double NOW = 1_793_600_000;
    private static final double YEAR = 31_557_600;

    private static MileageRecord distance(String id, double km) {
        return new MileageRecord(
                id, id, id, Kind.DISTANCE, km, OptionalDouble.empty(), 1, 1, true, VIN);
    }

    private static MileageRecord hours(double h) {
        return new MileageRecord(
                "hours",
                "hours",
                "engine",
                Kind.HOURS,
                h,
                OptionalDouble.empty(),
                18,
                75,
                true,
                VIN);
    }

    private static MileageRecord entry(double yearsAgo, double km) {
        return new MileageRecord(
                "entry",
                "entry",
                "engine",
                Kind.DISTANCE,
                km,
                OptionalDouble.of(NOW - yearsAgo * YEAR),
                1,
                1,
                true,
                VIN);
    }

    @Test
    void agreeingCountersAreBelieved() {
        Verdict v =
                OdometerCheck.check(
                        112_000, NOW, VIN, List.of(distance("gearbox", 111_950), hours(2600)));
        assertThat(v.accused()).isFalse();
        assertThat(v.setBack()).isLessThan(0.02);
        assertThat(v.sentence()).contains("112,000 km fit");
        assertThat(v.rows()).extracting(OdometerCheck.Row::says).containsOnly(Says.AGREES);
    }

    @Test
    void countersThatKnowBetterTellByHowMuch() {
        Verdict v =
                OdometerCheck.check(
                        112_200,
                        NOW,
                        VIN,
                        List.of(distance("gearbox", 165_200), distance("filter", 165_180)));
        assertThat(v.accused()).isTrue();
        assertThat(v.kilometres()).isCloseTo(53_000, within(1500.0));
        assertThat(v.lowest()).isLessThanOrEqualTo(v.kilometres());
        assertThat(v.highest()).isGreaterThanOrEqualTo(v.kilometres());
        assertThat(v.sentence()).startsWith("Set back by about 5");
    }

    @Test
    void aRenewedModuleAccusesNobodyAndAForeignOneDoesNotCount() {
        MileageRecord foreign =
                new MileageRecord(
                        "audio",
                        "audio",
                        "audio",
                        Kind.HOURS,
                        9000,
                        OptionalDouble.empty(),
                        18,
                        75,
                        true,
                        "ZZHRN16D5F1770031");
        Verdict v =
                OdometerCheck.check(
                        90_000,
                        NOW,
                        VIN,
                        List.of(distance("gearbox", 31_000), hours(2100), foreign));
        assertThat(v.accused()).isFalse();
        assertThat(v.rows())
                .filteredOn(r -> r.says() == Says.EXCLUDED)
                .singleElement()
                .satisfies(r -> assertThat(r.why()).contains("another vehicle"));
    }

    @Test
    void anEntryThatRunsBackwardsTellsOfTheSetBack() {
        Verdict v =
                OdometerCheck.check(
                        80_000,
                        NOW,
                        VIN,
                        List.of(
                                entry(5, 60_000),
                                entry(3, 118_000),
                                entry(2, 61_000),
                                entry(1, 70_000)));
        assertThat(v.accused()).isTrue();
        assertThat(v.kilometres()).isGreaterThan(57_000);
        assertThat(v.rows().stream().filter(r -> r.says() == Says.CONTRADICTS)).isNotEmpty();
    }

    @Test
    void nonsenseIsLeftOutAndTold() {
        Verdict v =
                OdometerCheck.check(
                        50_000,
                        NOW,
                        VIN,
                        List.of(distance("a", Double.NaN), distance("b", -5), entry(-3, 900_000)));
        assertThat(v.rows()).extracting(OdometerCheck.Row::says).containsOnly(Says.EXCLUDED);
        assertThat(v.sentence()).startsWith("Cannot tell");
        assertThat(v.accused()).isFalse();
    }

    @Test
    void answersAreReadOrRefusedByName() {
        Mileage counter =
                new Mileage("g", "Gearbox", "gearbox", "distance", 1, 4, 0.1, 1, 1, true, false);
        assertThat(MileageRecord.read(counter, "Gearbox", VIN, new byte[] {0, 0, 4, 0}))
                .singleElement()
                .satisfies(r -> assertThat(r.value()).isCloseTo(102.4, within(1e-9)));
        assertThatThrownBy(() -> MileageRecord.read(counter, "Gearbox", VIN, new byte[3]))
                .hasMessageContaining("expected 4 bytes, found 3");
        Mileage history =
                new Mileage("h", "History", "cluster", "distance", 1, 4, 1, 1, 1, false, true);
        byte[] two =
                ByteBuffer.allocate(17)
                        .put((byte) 2)
                        .putInt(7)
                        .putInt(100)
                        .putInt(9)
                        .putInt(200)
                        .array();
        assertThat(MileageRecord.read(history, "Cluster", VIN, two))
                .extracting(MileageRecord::value)
                .containsExactly(100.0, 200.0);
        assertThatThrownBy(() -> MileageRecord.read(history, "Cluster", VIN, new byte[] {3, 1}))
                .hasMessageContaining("byte 0 tells 3 entries, expected 25 bytes, found 2");
    }

    /** 200 vehicles with lives of their own; half of them set back at some time. */
    @Test
    void noHonestHistoryIsAccusedAndNearlyAllSetBackOnesAreFound() {
        int found = 0;
        int setBack = 0;
        List<String> missed = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            Random random = new Random(15_485_863L * i + 3);
            double years = 3 + 12 * random.nextDouble();
            double yearly = 7000 + 25_000 * random.nextDouble();
            double truth = years * yearly;
            double back = i % 2 == 0 ? 0 : truth * (0.15 + 0.5 * random.nextDouble());
            double backYearsAgo = 0.1 + 0.5 * years * random.nextDouble();
            double backAt = truth - backYearsAgo * yearly;
            back = Math.min(back, backAt * 0.9);
            List<MileageRecord> records = new ArrayList<>();
            boolean independent = false;
            for (String module : List.of("gearbox", "brakes", "filter")) {
                if (random.nextInt(3) > 0) {
                    boolean renewed = random.nextInt(10) == 0;
                    double share = renewed ? random.nextDouble() : 1;
                    records.add(
                            distance(module, truth * share * (1 + 0.002 * random.nextGaussian())));
                    independent |= !renewed;
                }
            }
            double mean = 25 + 40 * random.nextDouble();
            records.add(hours(truth / mean));
            int frames = random.nextInt(4);
            for (int f = 0; f < frames; f++) {
                double ago = years * random.nextDouble();
                double then = truth - ago * yearly;
                records.add(entry(ago, ago < backYearsAgo ? then - back : then));
            }
            Verdict v = OdometerCheck.check(truth - back, NOW, VIN, records);
            if (back == 0) {
                assertThat(v.accused()).as("honest %d: %s %s", i, v.sentence(), records).isFalse();
            } else if (independent) {
                setBack++;
                found += v.accused() ? 1 : 0;
                if (!v.accused()) {
                    missed.add(i + ": " + back + " km, " + v.sentence());
                }
            }
        }
        System.out.printf(Locale.ROOT, "set back and knowable: %d, found %d%n", setBack, found);
        assertThat(found).as("%s", missed).isGreaterThanOrEqualTo(setBack * 95 / 100);
    }
}
