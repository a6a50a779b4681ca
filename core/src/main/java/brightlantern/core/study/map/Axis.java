package brightlantern.core.study.map;

import java.util.Arrays;

/**
 * One axis of a map: its breakpoints are the edges of its cells.
 *
 * @param edges rising, at least two; a cell holds its lower edge and not its upper one
 */
public record Axis(String value, double[] edges) {
    private static final int MOST_CELLS = 60;

    public Axis {
        edges = edges.clone();
        if (edges.length < 2 || edges.length > MOST_CELLS + 1) {
            throw new IllegalArgumentException(
                    "Breakpoints: expected 2 to " + (MOST_CELLS + 1) + ", found " + edges.length);
        }
        for (int i = 0; i < edges.length; i++) {
            if (!Double.isFinite(edges[i]) || i > 0 && !(edges[i] > edges[i - 1])) {
                throw new IllegalArgumentException(
                        "Breakpoint "
                                + (i + 1)
                                + ": expected a number above the one before, found "
                                + edges[i]);
            }
        }
    }

    @Override
    public double[] edges() {
        return edges.clone();
    }

    /** How many cells it has. */
    public int cells() {
        return edges.length - 1;
    }

    /** Lower edge of a cell. */
    public double from(int cell) {
        return edges[cell];
    }

    /** Upper edge of a cell. */
    public double to(int cell) {
        return edges[cell + 1];
    }

    /** Number of the cell, -1 outside and for NaN. */
    public int cell(double v) {
        if (!(v >= edges[0] && v < edges[edges.length - 1])) {
            return -1;
        }
        int found = Arrays.binarySearch(edges, v);
        return found >= 0 ? found : -found - 2;
    }

    /**
     * As many cells as asked for between round numbers that enclose the data.
     *
     * @throws IllegalArgumentException when there is no finite number among them
     */
    public static Axis over(String value, double[] data, int cells) {
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (double v : data) {
            if (Double.isFinite(v)) {
                least = Math.min(least, v);
                most = Math.max(most, v);
            }
        }
        if (least > most) {
            throw new IllegalArgumentException("No number to lay a grid over");
        }
        double step = round(Math.max(1e-9, (most - least) / cells));
        double from = Math.floor(least / step) * step;
        int count = Math.min(MOST_CELLS, (int) Math.floor((most - from) / step) + 1);
        double[] edges = new double[count + 1];
        for (int i = 0; i <= count; i++) {
            edges[i] = from + i * step;
        }
        return new Axis(value, edges);
    }

    /** The next of 1, 2, 2.5, 5 or 10 times a power of ten. */
    private static double round(double v) {
        double power = Math.pow(10, Math.floor(Math.log10(v)));
        for (double m : new double[] {1, 2, 2.5, 5}) {
            if (v <= m * power * (1 + 1e-9)) {
                return m * power;
            }
        }
        return 10 * power;
    }

    /**
     * Breakpoints as typed, apart by spaces, commas between numbers or semicolons.
     *
     * @throws IllegalArgumentException names the word that is no number
     */
    public static Axis typed(String value, String text) {
        String[] words = text.trim().split("[\\s,;]+");
        double[] edges = new double[words.length];
        for (int i = 0; i < words.length; i++) {
            try {
                edges[i] = Double.parseDouble(words[i]);
            } catch (NumberFormatException wrong) {
                throw new IllegalArgumentException(
                        "Breakpoint " + (i + 1) + ": expected a number, found '" + words[i] + "'");
            }
        }
        return new Axis(value, edges);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Axis axis
                && value.equals(axis.value)
                && Arrays.equals(edges, axis.edges);
    }

    @Override
    public int hashCode() {
        return 31 * value.hashCode() + Arrays.hashCode(edges);
    }
}
