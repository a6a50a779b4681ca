package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.List;

/**
 * Least and most steps of a lane at ever coarser levels, so that a picture of any stretch of it
 * costs some thousand comparisons, however long it is.
 */
public final class Extents {
    /** Each level is so many times coarser than the one before. */
    private static final int COARSER = 16;

    private final short[] steps;
    private final List<short[]> least = new ArrayList<>();
    private final List<short[]> most = new ArrayList<>();

    public Extents(short[] steps) {
        this.steps = steps;
        short[] low = steps;
        short[] high = steps;
        while (low.length > COARSER) {
            low = reduced(low, true);
            high = reduced(high, false);
            least.add(low);
            most.add(high);
        }
    }

    private static short[] reduced(short[] of, boolean least) {
        short[] coarse = new short[(of.length + COARSER - 1) / COARSER];
        for (int i = 0; i < coarse.length; i++) {
            short found = of[i * COARSER];
            int end = Math.min(of.length, (i + 1) * COARSER);
            for (int k = i * COARSER; k < end; k++) {
                found = least == of[k] < found ? of[k] : found;
            }
            coarse[i] = found;
        }
        return coarse;
    }

    /**
     * Least and most step of each column of a picture.
     *
     * @param from and to: samples, 0 ≤ from < to ≤ length
     * @param columns at least 1
     * @return least and most in turn, two for each column; columns narrower than a sample repeat it
     */
    public short[] of(int from, int to, int columns) {
        if (from < 0 || to > steps.length || from >= to || columns < 1) {
            throw new IllegalArgumentException(
                    "Asked for samples "
                            + from
                            + " to "
                            + to
                            + " in "
                            + columns
                            + " columns; expected a part of 0 to "
                            + steps.length);
        }
        short[] out = new short[2 * columns];
        for (int c = 0; c < columns; c++) {
            int begin = (int) (from + (long) (to - from) * c / columns);
            int end = (int) (from + (long) (to - from) * (c + 1) / columns);
            column(begin, Math.max(begin + 1, end), out, c);
        }
        return out;
    }

    private void column(int from, int to, short[] out, int c) {
        short low = Short.MAX_VALUE;
        short high = Short.MIN_VALUE;
        int at = from;
        while (at < to) {
            int level = -1;
            int size = 1;
            while (level + 1 < least.size()
                    && at % (size * COARSER) == 0
                    && at + size * COARSER <= to) {
                level++;
                size *= COARSER;
            }
            low = (short) Math.min(low, level < 0 ? steps[at] : least.get(level)[at / size]);
            high = (short) Math.max(high, level < 0 ? steps[at] : most.get(level)[at / size]);
            at += size;
        }
        out[2 * c] = low;
        out[2 * c + 1] = high;
    }
}
