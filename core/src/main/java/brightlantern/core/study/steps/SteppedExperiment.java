package brightlantern.core.study.steps;

import brightlantern.core.signal.Units;
import brightlantern.core.signal.Words;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.hipparchus.stat.regression.SimpleRegression;

/**
 * An input is set by hand, left to settle, read, and set again. Readings that have not settled are
 * refused; through the others a line of least squares is laid, told with its sureness and with the
 * inputs at which it leaves the permitted band.
 */
public record SteppedExperiment(List<Reading> readings, Optional<Fit> fit) {
    public SteppedExperiment {
        readings = List.copyOf(readings);
    }

    /**
     * One step.
     *
     * @param input as set or measured
     * @param answer mean of the last part of the settling time
     * @param spread one standard deviation in it
     */
    public record Reading(double input, double answer, double spread, int samples) {}

    /**
     * answer = slope·input + intercept.
     *
     * @param within half width of the slope's 95 % interval; NaN with two readings
     * @param worst largest distance of a reading from the line
     */
    public record Fit(double slope, double intercept, double within, double worst) {
        /** Input at which the line crosses a limit; NaN when it is level. */
        public double crosses(double limit) {
            return slope == 0 ? Double.NaN : (limit - intercept) / slope;
        }
    }

    /**
     * How a step settles.
     *
     * @param seconds over which it must hold still
     * @param drift largest change of the mean from the first to the second half of that time
     */
    public record Settling(double seconds, double drift) {
        public Settling {
            if (!(seconds > 0) || !(drift > 0)) {
                throw new IllegalArgumentException(
                        "Settling: expected seconds and drift above zero, found "
                                + seconds
                                + " s and "
                                + drift);
            }
        }
    }

    /** What a reading came to: settled, or why not yet. */
    public record Attempt(Optional<Reading> reading, String why) {}

    /** Reads the newest part of a column that ends at a moment. */
    public static Attempt read(Take.Column column, double until, double input, Settling settling) {
        double from = until - settling.seconds();
        double middle = until - settling.seconds() / 2;
        double[] first = part(column, from, middle);
        double[] second = part(column, middle, until);
        if (first.length < 2 || second.length < 2) {
            return new Attempt(
                    Optional.empty(),
                    text(
                            "%d reading(s) in the last %.0f s; wait until there are more.",
                            first.length + second.length, settling.seconds()));
        }
        double drift = mean(second) - mean(first);
        if (Math.abs(drift) > settling.drift()) {
            return new Attempt(
                    Optional.empty(),
                    text(
                            "Still moving: %+.3g over %.0f s, %.3g is allowed.",
                            drift, settling.seconds(), settling.drift()));
        }
        double m = mean(second);
        double squares = 0;
        for (double v : second) {
            squares += (v - m) * (v - m);
        }
        return new Attempt(
                Optional.of(
                        new Reading(
                                input, m, Math.sqrt(squares / (second.length - 1)), second.length)),
                "settled");
    }

    private static double[] part(Take.Column column, double from, double to) {
        List<Double> found = new ArrayList<>();
        for (int i = 0; i < column.size(); i++) {
            if (column.seconds(i) > from
                    && column.seconds(i) <= to
                    && Double.isFinite(column.value(i))) {
                found.add(column.value(i));
            }
        }
        return found.stream().mapToDouble(v -> v).toArray();
    }

    private static double mean(double[] values) {
        double sum = 0;
        for (double v : values) {
            sum += v;
        }
        return sum / values.length;
    }

    /** An experiment of readings, in the order in which they were taken. */
    public static SteppedExperiment of(List<Reading> readings) {
        SimpleRegression line = new SimpleRegression();
        readings.forEach(r -> line.addData(r.input(), r.answer()));
        if (readings.size() < 2 || Double.isNaN(line.getSlope())) {
            return new SteppedExperiment(readings, Optional.empty());
        }
        double worst = 0;
        for (Reading r : readings) {
            worst = Math.max(worst, Math.abs(r.answer() - line.predict(r.input())));
        }
        return new SteppedExperiment(
                readings,
                Optional.of(
                        new Fit(
                                line.getSlope(),
                                line.getIntercept(),
                                readings.size() > 2
                                        ? line.getSlopeConfidenceInterval()
                                        : Double.NaN,
                                worst)));
    }

    /**
     * In words: slope with sureness, and where it leaves the band.
     *
     * @param low and high: the permitted band of the answer; NaN where there is none
     * @param inputUnit and answerUnit: empty where nobody told them
     */
    public String sentence(double low, double high, String inputUnit, String answerUnit) {
        if (fit.isEmpty()) {
            return readings.size() < 2
                    ? "Two readings at different inputs make a line."
                    : "All inputs are alike; set another one.";
        }
        Fit f = fit.get();
        StringBuilder told =
                new StringBuilder(
                        text(
                                "The answer changes by %.4g%s for each %s of the input",
                                f.slope(),
                                after(answerUnit),
                                inputUnit.isEmpty() ? "unit" : inputUnit));
        told.append(
                Double.isNaN(f.within())
                        ? "; a third reading tells how sure that is."
                        : text(", give or take %.2g (95 %%).", f.within()));
        for (double limit : new double[] {low, high}) {
            if (!Double.isNaN(limit) && f.slope() != 0) {
                told.append(
                        text(
                                " It %s %s%s at an input of %s%s.",
                                limit == low ? "falls below" : "rises above",
                                Units.told(limit),
                                after(answerUnit),
                                Units.told(f.crosses(limit)),
                                after(inputUnit)));
            }
        }
        return told.toString();
    }

    private static String after(String unit) {
        return unit.isEmpty() ? "" : " " + unit;
    }

    private static String text(String format, Object... args) {
        return Words.counted(String.format(Locale.ROOT, format, args));
    }
}
