package brightlantern.core.odometer;

import brightlantern.core.odometer.MileageRecord.Kind;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;

/**
 * Weighs "the odometer is honest" against "it was set back by so many kilometres" by Bayes' rule. A
 * counter that counts by itself should show the true distance, unless its module was renewed; hours
 * and counts stand for a range of distance; entries with times may never run backwards, save once,
 * when it was set back.
 */
public final class OdometerCheck {
    /** One used vehicle in eight or so that comes with this question was set back. */
    private static final double PRIOR_SET_BACK = 0.12;

    private static final double LEAST_SET_BACK_KM = 1500;
    private static final double MOST_SET_BACK_KM = 500_000;
    private static final int STEPS = 1500;

    /** Counters of one vehicle differ by rolling circumference and by when they were written. */
    private static final double COUNTER_SHARE = 0.004;

    private static final double COUNTER_KM = 40;

    /** A module was renewed or reset at some time, so it has seen less than the whole way. */
    private static final double RENEWED = 0.08;

    /** A record is simply wrong. */
    private static final double WRONG = 0.01;

    private static final double LARGEST_KM = 1_500_000;

    /** Entries may lie this much off their order: written at key off, rounded, clock corrected. */
    private static final double ENTRY_KM = 60;

    /** Nobody drives further in a year. */
    private static final double MOST_KM_A_YEAR = 160_000;

    private static final double YEAR_SECONDS = 31_557_600;

    /** From here on the verdict is told as one. */
    public static final double SURE = 0.8;

    private OdometerCheck() {}

    /** What a record says about the shown distance. */
    public enum Says {
        AGREES("agrees"),
        CONTRADICTS("contradicts"),
        NOTHING("says nothing"),
        EXCLUDED("left out");

        private final String words;

        Says(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }
    }

    /**
     * @param leastKm and mostKm true distance that the record stands for
     */
    public record Row(MileageRecord record, Says says, double leastKm, double mostKm, String why) {}

    /**
     * @param setBack probability that it was set back, 0..1
     * @param kilometres by how much, if it was: best estimate; then lowest and highest of 90 %
     * @param independent how many records could have told
     */
    public record Verdict(
            double setBack,
            double kilometres,
            double lowest,
            double highest,
            int independent,
            String sentence,
            List<Row> rows) {
        /** Whether the odometer is held to be set back. */
        public boolean accused() {
            return setBack >= SURE && independent > 0;
        }
    }

    /**
     * @param shownKm by the odometer now
     * @param nowSeconds Unix time, for entries that lie in the future
     * @param vin of the vehicle; records of modules with another one are left out
     */
    public static Verdict check(
            double shownKm, double nowSeconds, String vin, List<MileageRecord> records) {
        List<MileageRecord> counters = new ArrayList<>();
        List<MileageRecord> entries = new ArrayList<>();
        List<Row> rows = new ArrayList<>();
        for (MileageRecord r : records) {
            String why = excluded(r, vin, nowSeconds);
            if (!why.isEmpty()) {
                rows.add(new Row(r, Says.EXCLUDED, Double.NaN, Double.NaN, why));
            } else if (r.epochSeconds().isPresent()) {
                entries.add(r);
            } else if (r.independent()) {
                counters.add(r);
            } else {
                rows.add(
                        new Row(
                                r,
                                Says.NOTHING,
                                r.value(),
                                r.value(),
                                "It is told by the odometer itself, so it agrees with it either way."));
            }
        }
        entries.sort(Comparator.comparingDouble(e -> e.epochSeconds().orElseThrow()));
        double[] amounts = new double[STEPS + 1];
        double[] logs = new double[STEPS + 1];
        double top = Double.NEGATIVE_INFINITY;
        for (int i = 0; i <= STEPS; i++) {
            double x =
                    i == 0
                            ? 0
                            : LEAST_SET_BACK_KM
                                    * Math.pow(
                                            MOST_SET_BACK_KM / LEAST_SET_BACK_KM,
                                            (i - 1.0) / (STEPS - 1));
            amounts[i] = x;
            double log = i == 0 ? Math.log(1 - PRIOR_SET_BACK) : Math.log(PRIOR_SET_BACK / STEPS);
            for (MileageRecord r : counters) {
                log += Math.log(counter(r, shownKm + x));
            }
            log += history(entries, shownKm, x, nowSeconds);
            logs[i] = log;
            top = Math.max(top, log);
        }
        double sum = 0;
        for (double log : logs) {
            sum += Math.exp(log - top);
        }
        double setBack = 1 - Math.exp(logs[0] - top) / sum;
        double[] band = quantiles(amounts, logs, top);
        double truth = setBack >= 0.5 ? shownKm + band[1] : shownKm;
        counters.forEach(r -> rows.add(counterRow(r, shownKm, truth)));
        rows.addAll(entryRows(entries, shownKm));
        return new Verdict(
                setBack,
                band[1],
                band[0],
                band[2],
                counters.size() + entries.size(),
                sentence(setBack, band, shownKm, counters.size() + entries.size()),
                List.copyOf(rows));
    }

    private static String excluded(MileageRecord r, String vin, double nowSeconds) {
        if (!r.vin().isEmpty() && !r.vin().equals(vin)) {
            return "Its module came from another vehicle (" + r.vin() + ").";
        }
        if (!Double.isFinite(r.value()) || r.value() < 0) {
            return "No distance can be " + r.value() + ".";
        }
        if (r.epochSeconds().isPresent()
                && r.epochSeconds().getAsDouble() > nowSeconds + 2 * 86_400) {
            return "It was written in the future: a clock was wrong.";
        }
        return "";
    }

    private static double counter(MileageRecord r, double truth) {
        double fits;
        double renewed;
        if (r.kind() == Kind.DISTANCE) {
            double deviation = COUNTER_KM + COUNTER_SHARE * truth;
            fits = normal((r.value() - truth) / deviation) / deviation;
            renewed = r.value() <= truth ? 1 / truth : 0;
        } else {
            // the range of km for each is taken as two standard deviations of a lognormal
            double mean = Math.log(truth / Math.sqrt(r.least() * r.most()));
            double deviation = Math.log(r.most() / r.least()) / 4;
            double value = Math.max(r.value(), 0.5);
            fits = normal((Math.log(value) - mean) / deviation) / deviation / value;
            double most = truth / r.least();
            renewed = value <= most ? 1 / most : 0;
        }
        return (1 - RENEWED - WRONG) * fits + RENEWED * renewed + WRONG / LARGEST_KM;
    }

    private static double normal(double z) {
        return Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);
    }

    /**
     * The best place in time for a set-back of x; entries out of order each cost a wrong record.
     */
    private static double history(
            List<MileageRecord> entries, double shownKm, double x, double nowSeconds) {
        if (entries.isEmpty()) {
            return 0;
        }
        double best = Double.NEGATIVE_INFINITY;
        // with x = 0 it does not matter when
        int last = x == 0 ? 0 : entries.size();
        for (int at = 0; at <= last; at++) {
            double log = 0;
            double before = 0;
            double when = Double.NaN;
            for (int i = 0; i <= entries.size(); i++) {
                boolean now = i == entries.size();
                double km = now ? shownKm : entries.get(i).value();
                double time = now ? nowSeconds : entries.get(i).epochSeconds().orElseThrow();
                double truth = km + (i >= at ? x : 0);
                if (truth < before - ENTRY_KM) {
                    log += Math.log(WRONG);
                } else {
                    double room =
                            Double.isNaN(when)
                                    ? Double.POSITIVE_INFINITY
                                    : (time - when) / YEAR_SECONDS * MOST_KM_A_YEAR + 2000;
                    if (truth - before > room) {
                        log += Math.log(10 * WRONG);
                    }
                    before = truth;
                    when = time;
                }
            }
            best = Math.max(best, log);
        }
        return best - (x == 0 ? 0 : Math.log(entries.size() + 1.0));
    }

    private static double[] quantiles(double[] amounts, double[] logs, double top) {
        double whole = 0;
        for (int i = 1; i < amounts.length; i++) {
            whole += Math.exp(logs[i] - top);
        }
        double[] wanted = {0.05, 0.5, 0.95};
        double[] found = {0, 0, 0};
        double sum = 0;
        int next = 0;
        for (int i = 1; i < amounts.length && whole > 0; i++) {
            sum += Math.exp(logs[i] - top) / whole;
            while (next < wanted.length && sum >= wanted[next] - 1e-12) {
                found[next++] = amounts[i];
            }
        }
        return found;
    }

    private static Row counterRow(MileageRecord r, double shownKm, double truth) {
        double least = r.value() * r.least();
        double most = r.value() * r.most();
        double slack = COUNTER_KM + 3 * COUNTER_SHARE * shownKm;
        if (r.kind() == Kind.DISTANCE) {
            if (r.value() > shownKm + slack) {
                return new Row(
                        r,
                        Says.CONTRADICTS,
                        least,
                        most,
                        text(
                                "It has seen %,.0f km more than the odometer shows.",
                                r.value() - shownKm));
            }
            return r.value() < truth - slack
                    ? new Row(
                            r,
                            Says.NOTHING,
                            least,
                            most,
                            "It has seen less than the whole way: renewed or reset at some time.")
                    : new Row(r, Says.AGREES, least, most, "It counted the same by itself.");
        }
        if (shownKm < least) {
            return new Row(
                    r,
                    Says.CONTRADICTS,
                    least,
                    most,
                    text("It stands for %,.0f km at the very least.", least));
        }
        return most < truth
                ? new Row(
                        r,
                        Says.NOTHING,
                        least,
                        most,
                        "Too little for the way: renewed or reset at some time.")
                : new Row(
                        r,
                        Says.AGREES,
                        least,
                        most,
                        text("It stands for %,.0f to %,.0f km.", least, most));
    }

    private static List<Row> entryRows(List<MileageRecord> entries, double shownKm) {
        List<Row> rows = new ArrayList<>();
        double highest = 0;
        for (MileageRecord e : entries) {
            if (e.value() > shownKm + ENTRY_KM) {
                rows.add(
                        new Row(
                                e,
                                Says.CONTRADICTS,
                                e.value(),
                                e.value(),
                                text(
                                        "Written down at %,.0f km more than are shown now.",
                                        e.value() - shownKm)));
            } else if (e.value() < highest - ENTRY_KM) {
                rows.add(
                        new Row(
                                e,
                                Says.CONTRADICTS,
                                e.value(),
                                e.value(),
                                text("An earlier entry has %,.0f km more.", highest - e.value())));
            } else {
                rows.add(
                        new Row(
                                e,
                                e.independent() ? Says.AGREES : Says.NOTHING,
                                e.value(),
                                e.value(),
                                e.independent()
                                        ? "In order."
                                        : "In order, but whoever sets a cluster back can make its entries fit."));
            }
            highest = Math.max(highest, e.value());
        }
        return rows;
    }

    private static String sentence(double setBack, double[] band, double shownKm, int independent) {
        if (independent == 0) {
            return "Cannot tell: no module counts by itself.";
        }
        if (setBack >= SURE) {
            return text(
                    "Set back by about %,.0f km (%,.0f to %,.0f km); some %,.0f km were driven. %s sure.",
                    band[1], band[0], band[2], shownKm + band[1], capital(Words.percent(setBack)));
        }
        if (setBack <= 1 - SURE) {
            return text(
                    "The shown %,.0f km fit all that counts by itself (%s sure).",
                    shownKm, Words.percent(1 - setBack));
        }
        return text("Cannot tell: the records disagree. Set back with %s.", Words.percent(setBack));
    }

    private static String capital(String text) {
        return text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
    }

    private static String text(String format, Object... figures) {
        return String.format(Locale.ROOT, format, figures);
    }
}
