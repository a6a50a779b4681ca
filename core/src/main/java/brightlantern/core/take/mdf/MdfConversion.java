package brightlantern.core.take.mdf;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;

/** Conversions of raw numbers: one to one, linear, rational, value to text, range to text. */
final class MdfConversion {
    private final MdfBlocks blocks;
    private final Consumer<String> remarks;

    /**
     * @param remarks takes what is not read, in words
     */
    MdfConversion(MdfBlocks blocks, Consumer<String> remarks) {
        this.blocks = blocks;
        this.remarks = remarks;
    }

    /** Raw numbers become physical ones in place; the words for numbers, when they are states. */
    Map<Integer, String> convert(MdfChannel channel, double[] y) {
        if (channel.conversion() == 0) {
            return Map.of();
        }
        MdfBlocks.Block cc = blocks.block(channel.conversion(), "CC");
        int d = cc.data();
        int kind = blocks.file().get(d);
        int references = blocks.file().getShort(d + 4) & 0xFFFF;
        int count = blocks.file().getShort(d + 6) & 0xFFFF;
        if (24 + 8L * count > cc.dataLength()) {
            throw new IllegalArgumentException(
                    "Byte "
                            + d
                            + ": expected "
                            + count
                            + " numbers of a conversion, but the block ends");
        }
        double[] p = new double[count];
        for (int i = 0; i < count; i++) {
            p[i] = blocks.file().getDouble(d + 24 + 8 * i);
        }
        switch (kind) {
            case 0 -> {
                // one to one
            }
            case 1 -> {
                for (int i = 0; i < y.length && count >= 2; i++) {
                    y[i] = p[0] + p[1] * y[i];
                }
            }
            case 2 -> {
                for (int i = 0; i < y.length && count >= 6; i++) {
                    double x = y[i];
                    y[i] = (p[0] * x * x + p[1] * x + p[2]) / (p[3] * x * x + p[4] * x + p[5]);
                }
            }
            case 7 -> {
                Map<Integer, String> words = new LinkedHashMap<>();
                for (int i = 0; i < count && i < references; i++) {
                    int number = (int) p[i];
                    blocks.text(blocks.link(cc, 4 + i)).ifPresent(word -> words.put(number, word));
                }
                return words;
            }
            case 8 -> {
                return ranges(cc, p, references, y);
            }
            default ->
                    remarks.accept(
                            channel.name()
                                    + ": conversion "
                                    + kind
                                    + " is not read; raw numbers are shown.");
        }
        return Map.of();
    }

    /** Value range to text: each range is a state, and one more for what lies in none. */
    private Map<Integer, String> ranges(
            MdfBlocks.Block cc, double[] p, int references, double[] y) {
        int count = Math.min(p.length / 2, references);
        Map<Integer, String> words = new LinkedHashMap<>();
        for (int i = 0; i < count; i++) {
            words.put(i, blocks.text(blocks.link(cc, 4 + i)).orElse("state " + i));
        }
        words.put(count, blocks.text(blocks.link(cc, 4 + count)).orElse("other"));
        for (int k = 0; k < y.length; k++) {
            int state = count;
            for (int i = 0; i < count && state == count; i++) {
                state = y[k] >= p[2 * i] && y[k] <= p[2 * i + 1] ? i : count;
            }
            y[k] = Double.isNaN(y[k]) ? Double.NaN : state;
        }
        return words;
    }
}
