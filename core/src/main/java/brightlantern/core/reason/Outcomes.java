package brightlantern.core.reason;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;

/**
 * What a check may come to: the probability of each outcome under each hypothesis. Most hypotheses
 * have nothing to do with a check and foretell the very same; those stand in one column, so that
 * what is asked of all of them is computed once.
 */
final class Outcomes {
    /** By hypothesis. */
    private final int[] column;

    /** By outcome, then by column. */
    private final double[][] chances;

    private final int columns;

    /**
     * @param column of each hypothesis
     * @param chances of each outcome, by column
     */
    Outcomes(int[] column, double[][] chances) {
        this.column = column;
        this.chances = chances;
        this.columns = chances.length == 0 ? 0 : chances[0].length;
    }

    /**
     * Neighbours that foretell the same share a column.
     *
     * @param each for each outcome an array over hypotheses
     */
    static Outcomes of(List<double[]> each) {
        int size = each.isEmpty() ? 0 : each.get(0).length;
        int[] column = new int[size];
        int[] first = new int[size];
        int columns = 0;
        for (int i = 0; i < size; i++) {
            if (i == 0 || !isAlike(each, i, i - 1)) {
                first[columns++] = i;
            }
            column[i] = columns - 1;
        }
        double[][] chances = new double[each.size()][columns];
        for (int o = 0; o < chances.length; o++) {
            for (int c = 0; c < columns; c++) {
                chances[o][c] = each.get(o)[first[c]];
            }
        }
        return new Outcomes(column, chances);
    }

    private static boolean isAlike(List<double[]> each, int one, int other) {
        for (double[] chance : each) {
            if (chance[one] != chance[other]) {
                return false;
            }
        }
        return true;
    }

    /** How many outcomes. */
    int size() {
        return chances.length;
    }

    /** How many columns. */
    int columns() {
        return columns;
    }

    /** Where a hypothesis stands. */
    int column(int hypothesis) {
        return column[hypothesis];
    }

    /** Chances of an outcome, by column. */
    double[] of(int outcome) {
        return chances[outcome];
    }

    /** Probability of an outcome under a hypothesis. */
    double at(int outcome, int hypothesis) {
        return chances[outcome][column[hypothesis]];
    }

    /** An array over hypotheses for each outcome. */
    List<double[]> each() {
        List<double[]> each = new ArrayList<>();
        for (double[] chance : chances) {
            each.add(Arrays.stream(column).mapToDouble(c -> chance[c]).toArray());
        }
        return each;
    }

    /** Sums of a figure over the hypotheses of each column. */
    double[] byColumn(double[] figures) {
        double[] sums = new double[columns];
        for (int i = 0; i < column.length; i++) {
            sums[column[i]] += figures[i];
        }
        return sums;
    }

    /** The same over some of them. */
    double[] byColumn(double[] figures, int[] some) {
        double[] sums = new double[columns];
        for (int i : some) {
            sums[column[i]] += figures[i];
        }
        return sums;
    }

    /** The same where one hypothesis foretells something of its own, by outcome. */
    Outcomes with(int hypothesis, double[] own) {
        int[] others = column.clone();
        others[hypothesis] = columns;
        double[][] all = new double[chances.length][];
        for (int o = 0; o < all.length; o++) {
            all[o] = Arrays.copyOf(chances[o], columns + 1);
            all[o][columns] = own[o];
        }
        return new Outcomes(others, all);
    }

    /**
     * What is seen beside a hypothesis that is there already: of the two the one decides that takes
     * the outcomes further away from those of another (total variation).
     *
     * @param first the one that is there
     * @param healthy what is measured from
     */
    Outcomes beside(int first, int healthy) {
        int from = column[healthy];
        double[] away =
                IntStream.range(0, columns)
                        .mapToDouble(
                                c ->
                                        Arrays.stream(chances)
                                                .mapToDouble(
                                                        chance ->
                                                                Math.abs(chance[c] - chance[from]))
                                                .sum())
                        .toArray();
        int there = column[first];
        return new Outcomes(
                Arrays.stream(column).map(c -> away[c] < away[there] ? there : c).toArray(),
                chances);
    }
}
