package brightlantern.core.study.map;

import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * A value averaged in a grid over two others. Each cell tells its mean, its spread, how many
 * samples and how many visits it rests on; samples of one visit are not independent of each other,
 * so the confidence of a mean counts visits (batch means, Student's t at 95 %).
 */
public final class OperatingMap {
    private static final double CONFIDENCE = 0.95;

    /** Relative error of a sum of many samples. */
    private static final double SUMMING = 1e-9;

    private final String value;
    private final Axis x;
    private final Axis y;
    private final Cell[] cells;
    private final List<int[]> path;

    private OperatingMap(String value, Axis x, Axis y, Cell[] cells, List<int[]> path) {
        this.value = value;
        this.x = x;
        this.y = y;
        this.cells = cells;
        this.path = List.copyOf(path);
    }

    /**
     * @param spread one standard deviation of the samples
     * @param atX and atY: where in the cell the samples lie on average
     * @param within half width of the 95 % confidence interval of the mean; NaN with fewer than two
     *     visits
     */
    public record Cell(
            long samples,
            int visits,
            double mean,
            double spread,
            double atX,
            double atY,
            double within) {
        static final Cell EMPTY =
                new Cell(0, 0, Double.NaN, Double.NaN, Double.NaN, Double.NaN, Double.NaN);

        /** Whether too few samples lie in it to tell anything. */
        public boolean thin() {
            return visits < 3;
        }
    }

    /** Samples of three values at the same moments, one drive. */
    public record Drive(double[] x, double[] y, double[] z) {
        public Drive {
            if (x.length != y.length || y.length != z.length) {
                throw new IllegalArgumentException(
                        x.length + ", " + y.length + " and " + z.length + " samples");
            }
        }

        /**
         * The three values of a take at the samples of {@code z}; the other two are the newest ones
         * then, if no older than {@code hold} seconds.
         */
        public static Drive of(Take take, String x, String y, String z, double hold) {
            Take.Column clock = take.columns().get(z);
            double[] xs = take.columns().get(x).held(clock, hold);
            double[] ys = take.columns().get(y).held(clock, hold);
            double[] zs = IntStream.range(0, clock.size()).mapToDouble(clock::value).toArray();
            return new Drive(xs, ys, zs);
        }
    }

    /** Sums of one cell; visits are told apart by the cells entered between. */
    private static final class Sums {
        final long[] n;
        final double[] z;
        final double[] zz;
        final double[] sx;
        final double[] sy;
        final int[] visits;
        final double[] batchSquares;

        Sums(int cells) {
            n = new long[cells];
            z = new double[cells];
            zz = new double[cells];
            sx = new double[cells];
            sy = new double[cells];
            visits = new int[cells];
            batchSquares = new double[cells];
        }
    }

    /** Computes the map of drives. */
    public static OperatingMap of(String value, Axis x, Axis y, List<Drive> drives) {
        int count = x.cells() * y.cells();
        Sums all = new Sums(count);
        List<int[]> path = new ArrayList<>();
        // means of visits are needed for their spread, so each drive is walked once
        List<double[]> batches = new ArrayList<>();
        for (Drive drive : drives) {
            walk(drive, x, y, all, path, batches);
        }
        for (double[] batch : batches) {
            int cell = (int) batch[0];
            double mean = all.z[cell] / all.n[cell];
            all.batchSquares[cell] += batch[1] * batch[1] * (batch[2] - mean) * (batch[2] - mean);
        }
        Cell[] cells = new Cell[count];
        for (int i = 0; i < count; i++) {
            cells[i] = all.n[i] == 0 ? Cell.EMPTY : cell(all, i);
        }
        return new OperatingMap(value, x, y, cells, path);
    }

    private static Cell cell(Sums s, int i) {
        double n = s.n[i];
        double mean = s.z[i] / n;
        double spread = Math.sqrt(Math.max(0, s.zz[i] / n - mean * mean));
        int v = s.visits[i];
        double within = Double.NaN;
        if (v > 1) {
            // variance of a mean of batches of unequal weight
            double variance = s.batchSquares[i] / n / n * v / (v - 1);
            within =
                    new TDistribution(v - 1).inverseCumulativeProbability((1 + CONFIDENCE) / 2)
                            * Math.sqrt(variance);
        }
        return new Cell(s.n[i], v, mean, spread, s.sx[i] / n, s.sy[i] / n, within);
    }

    private static void walk(
            Drive drive, Axis x, Axis y, Sums all, List<int[]> path, List<double[]> batches) {
        int i = 0;
        while (i < drive.z.length) {
            int cx = x.cell(drive.x[i]);
            int cy = y.cell(drive.y[i]);
            if (cx < 0 || cy < 0 || !Double.isFinite(drive.z[i])) {
                i++;
                continue;
            }
            int cell = cy * x.cells() + cx;
            i = visit(drive, i, x.from(cx), x.to(cx), y.from(cy), y.to(cy), cell, all, batches);
            path.add(new int[] {cx, cy});
        }
    }

    /** Stays in a cell from a sample on as long as the drive does; the first sample elsewhere. */
    private static int visit(
            Drive drive,
            int first,
            double left,
            double right,
            double low,
            double high,
            int cell,
            Sums all,
            List<double[]> batches) {
        double z = 0;
        double zz = 0;
        double sx = 0;
        double sy = 0;
        int i = first;
        for (; i < drive.z.length; i++) {
            double vx = drive.x[i];
            double vy = drive.y[i];
            double v = drive.z[i];
            if (!(vx >= left && vx < right && vy >= low && vy < high) || !Double.isFinite(v)) {
                break;
            }
            z += v;
            zz += v * v;
            sx += vx;
            sy += vy;
        }
        long n = i - first;
        all.n[cell] += n;
        all.z[cell] += z;
        all.zz[cell] += zz;
        all.sx[cell] += sx;
        all.sy[cell] += sy;
        all.visits[cell]++;
        batches.add(new double[] {cell, n, z / n});
        return i;
    }

    /** Id of the value that is averaged. */
    public String value() {
        return value;
    }

    /** The axis to the right. */
    public Axis x() {
        return x;
    }

    /** The axis upwards. */
    public Axis y() {
        return y;
    }

    /**
     * @param x and y: place of the cell, from 0
     */
    public Cell cell(int column, int row) {
        return cells[row * x.cells() + column];
    }

    /** Cells in the order in which they were entered, column and row. */
    public List<int[]> path() {
        return path;
    }

    /** How many samples lie in all cells together. */
    public long samples() {
        long n = 0;
        for (Cell c : cells) {
            n += c.samples();
        }
        return n;
    }

    /**
     * Differences of the means, this minus other, where both have one.
     *
     * @param significant whether it is larger than both confidences together (root of squares)
     */
    public record Difference(double by, double within, boolean significant) {}

    /**
     * @throws IllegalArgumentException when the grids differ
     */
    public Optional<Difference> minus(OperatingMap other, int column, int row) {
        if (!x.equals(other.x) || !y.equals(other.y)) {
            throw new IllegalArgumentException(
                    "Two maps are subtracted only on the same grid; their breakpoints differ");
        }
        Cell a = cell(column, row);
        Cell b = other.cell(column, row);
        if (a.samples() == 0 || b.samples() == 0) {
            return Optional.empty();
        }
        double by = a.mean() - b.mean();
        double within = Math.hypot(a.within(), b.within());
        // a value that never moves has no scatter, yet its means differ by how they were summed
        double summing = SUMMING * Math.max(Math.abs(a.mean()), Math.abs(b.mean()));
        return Optional.of(
                new Difference(
                        by, within, !Double.isNaN(within) && Math.abs(by) > within + summing));
    }

    /** Puts a cell that was read from a file in its place. */
    static OperatingMap read(String value, Axis x, Axis y, Cell[] cells) {
        return new OperatingMap(value, x, y, cells, List.of());
    }
}
