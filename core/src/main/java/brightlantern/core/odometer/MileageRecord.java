package brightlantern.core.odometer;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;

/**
 * One thing that a module knows of how far the vehicle has run.
 *
 * @param name what it is, with its module, in words
 * @param kind km, hours, or a count of something
 * @param value in that kind's unit
 * @param epochSeconds Unix time at which it was written down; empty for a counter that runs on
 * @param least and most km that an hour or a count stands for; 1 for km
 * @param independent whether the module counted by itself
 * @param vin stored in the module; empty when it tells none
 */
public record MileageRecord(
        String id,
        String name,
        String module,
        Kind kind,
        double value,
        OptionalDouble epochSeconds,
        double least,
        double most,
        boolean independent,
        String vin) {
    /** What is counted. */
    public enum Kind {
        DISTANCE("km"),
        HOURS("h"),
        COUNT("times");

        private final String unit;

        Kind(String unit) {
            this.unit = unit;
        }

        /** In which it counts. */
        public String unit() {
            return unit;
        }
    }

    private static final int ENTRY_BYTES = 8;

    /**
     * Records in a module's answer: one counter, or a history of entries with 4 bytes Unix time and
     * 4 bytes value each, their number first.
     *
     * @throws IllegalArgumentException names the byte when the answer has another length
     */
    public static List<MileageRecord> read(
            Mileage described, String moduleName, String vin, byte[] answer) {
        Kind kind = Kind.valueOf(described.kind().toUpperCase(Locale.ROOT));
        List<MileageRecord> records = new ArrayList<>();
        if (!described.history()) {
            if (answer.length != described.bytes()) {
                throw new IllegalArgumentException(
                        "%s: expected %d bytes, found %d"
                                .formatted(described.name(), described.bytes(), answer.length));
            }
            long raw = 0;
            for (byte b : answer) {
                raw = raw << 8 | b & 0xFF;
            }
            records.add(
                    new MileageRecord(
                            described.id(),
                            described.name(),
                            described.module(),
                            kind,
                            raw * described.scale(),
                            OptionalDouble.empty(),
                            described.least(),
                            described.most(),
                            described.independent(),
                            vin));
            return records;
        }
        int count = answer.length == 0 ? 0 : answer[0] & 0xFF;
        if (answer.length != 1 + count * ENTRY_BYTES) {
            throw new IllegalArgumentException(
                    "%s: byte 0 tells %d entries, expected %d bytes, found %d"
                            .formatted(
                                    described.name(),
                                    count,
                                    1 + count * ENTRY_BYTES,
                                    answer.length));
        }
        ByteBuffer in = ByteBuffer.wrap(answer, 1, answer.length - 1);
        for (int i = 0; i < count; i++) {
            long when = in.getInt() & 0xFFFFFFFFL;
            long raw = in.getInt() & 0xFFFFFFFFL;
            records.add(
                    new MileageRecord(
                            described.id() + "-" + (i + 1),
                            described.name(),
                            described.module(),
                            kind,
                            raw * described.scale(),
                            OptionalDouble.of(when),
                            described.least(),
                            described.most(),
                            described.independent(),
                            vin));
        }
        return records;
    }
}
