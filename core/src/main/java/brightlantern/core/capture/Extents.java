package brightlantern.core.capture;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Least and most steps of a lane at ever coarser levels, so that a picture of any stretch of it
 * costs some thousand comparisons, however long it is. More can come to its end while it is looked
 * at.
 */
public final class Extents {
    /** Each level is so many times coarser than the one before. */
    private static final int COARSER = 16;

    private short[] steps;
    private int length;
    private final List<Level> levels = new ArrayList<>();

    /** Least and most of so many steps in a row, as far as there are any. */
    private static final class Level {
        private short[] least = {};
        private short[] most = {};

        /** Takes anew what the level below has from a place on. */
        void reduce(short[] low, short[] high, int from, int length) {
            int count = (length + COARSER - 1) / COARSER;
            if (count > least.length) {
                int room = from == 0 ? count : 2 * count;
                least = Arrays.copyOf(least, room);
                most = Arrays.copyOf(most, room);
            }
            for (int i = from / COARSER; i < count; i++) {
                int end = Math.min(length, (i + 1) * COARSER);
                int lowest = low[i * COARSER];
                int highest = high[i * COARSER];
                for (int k = i * COARSER + 1; k < end; k++) {
                    lowest = Math.min(lowest, low[k]);
                    highest = Math.max(highest, high[k]);
                }
                least[i] = (short) lowest;
                most[i] = (short) highest;
            }
        }
    }

    /**
     * @param steps it is not copied
     */
    public Extents(short[] steps) {
        this.steps = steps;
        length = steps.length;
        reduce(0);
    }

    /** Takes what comes next. */
    public synchronized void append(short[] more) {
        int from = length;
        if (length + more.length > steps.length) {
            steps = Arrays.copyOf(steps, Math.max(2 * steps.length, length + more.length));
        }
        System.arraycopy(more, 0, steps, length, more.length);
        length += more.length;
        reduce(from);
    }

    /** Steps that there are. */
    public synchronized int length() {
        return length;
    }

    private void reduce(int since) {
        short[] low = steps;
        short[] high = steps;
        int from = since;
        int below = length;
        for (int level = 0; below > COARSER; level++) {
            if (level == levels.size()) {
                levels.add(new Level());
                from = 0;
            }
            Level its = levels.get(level);
            its.reduce(low, high, from, below);
            low = its.least;
            high = its.most;
            from /= COARSER;
            below = (below + COARSER - 1) / COARSER;
        }
    }

    /**
     * Least and most step of each column of a picture.
     *
     * @param from and to: samples, 0 ≤ from < to ≤ length
     * @param columns at least 1
     * @return least and most in turn, two for each column; columns narrower than a sample repeat it
     */
    public synchronized short[] of(int from, int to, int columns) {
        if (from < 0 || to > length || from >= to || columns < 1) {
            throw new IllegalArgumentException(
                    "Asked for samples "
                            + from
                            + " to "
                            + to
                            + " in "
                            + columns
                            + " columns; expected a part of 0 to "
                            + length);
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
            while (level + 1 < levels.size()
                    && at % (size * COARSER) == 0
                    && at + size * COARSER <= to) {
                level++;
                size *= COARSER;
            }
            low = (short) Math.min(low, level < 0 ? steps[at] : levels.get(level).least[at / size]);
            high =
                    (short)
                            Math.max(
                                    high,
                                    level < 0 ? steps[at] : levels.get(level).most[at / size]);
            at += size;
        }
        out[2 * c] = low;
        out[2 * c + 1] = high;
    }
}
