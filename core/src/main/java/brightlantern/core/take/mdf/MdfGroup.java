package brightlantern.core.take.mdf;

import brightlantern.core.signal.Words;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import java.util.List;

/**
 * A channel group (ASAM MDF 4, CGBLOCK): where its records are in the data.
 *
 * @param width bytes of a record without its invalidation bytes; −1 for records of varying length
 * @param invalid invalidation bytes of a record
 */
record MdfGroup(long recordId, long cycles, int width, int invalid, List<MdfChannel> channels) {
    /**
     * Where its records begin within the data.
     *
     * @param idSize bytes before each record that name its group; 0 where there is one group
     * @param groups all whose records lie in the data, this one among them
     * @param remarks takes what is wrong with the data
     */
    int[] records(ByteBuffer bytes, int idSize, List<MdfGroup> groups, List<String> remarks) {
        int width = this.width + invalid;
        if (width <= 0) {
            return new int[0];
        }
        if (idSize == 0) {
            int n = (int) Math.min(Math.max(0, cycles), bytes.limit() / width);
            if (n < cycles) {
                remarks.add(
                        Words.counted(
                                cycles - n + " record(s) missing at the end; the file is torn."));
            }
            int[] at = new int[n];
            Arrays.setAll(at, i -> i * width);
            return at;
        }
        ByteBuffer data = bytes.order(ByteOrder.LITTLE_ENDIAN);
        int[] found = new int[bytes.limit() / (width + idSize) + 1];
        int n = 0;
        int at = 0;
        while (at + idSize <= bytes.limit()) {
            long id =
                    switch (idSize) {
                        case 1 -> data.get(at) & 0xFF;
                        case 2 -> data.getShort(at) & 0xFFFF;
                        case 4 -> data.getInt(at) & 0xFFFFFFFFL;
                        default -> data.getLong(at);
                    };
            at += idSize;
            MdfGroup its = groups.stream().filter(g -> g.recordId() == id).findFirst().orElse(null);
            if (its == null) {
                remarks.add(
                        "A record of an unknown group " + id + "; what follows it was left out.");
                break;
            }
            int length =
                    its.width() >= 0
                            ? its.width() + its.invalid()
                            : at + 4 <= bytes.limit() ? 4 + data.getInt(at) : 4;
            if (length < 0 || at + length > bytes.limit()) {
                break;
            }
            if (its == this) {
                found[n++] = at;
            }
            at += length;
        }
        return Arrays.copyOf(found, n);
    }
}
