package brightlantern.standin;

import brightlantern.core.reason.Ranking;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Predicate;

/**
 * How far what was said lies from what was so: the expected calibration error, by tenths of
 * sureness. Each world counts by its share of the jobs, however many of it were run.
 */
final class Calibration {
    private static final int BINS = 10;

    /** What is wrong with a vehicle, and how many of 1300 jobs are such. */
    enum World {
        LISTED(600),
        HEALTHY(300),
        UNLISTED(200),
        PAIRS(200);

        private final double share;

        World(double share) {
            this.share = share;
        }
    }

    private record Said(World world, double sureness, boolean right) {}

    private final List<Said> atTheEnd = new ArrayList<>();
    private final List<Said> onTheWay = new ArrayList<>();

    /**
     * Of a job that ended: what was said at its end, and after each check.
     *
     * @param right whether what leads a ranking is so
     */
    synchronized void said(World world, Robot.Ended ended, Predicate<Ranking> right) {
        atTheEnd.add(said(world, ended.ranking(), right));
        ended.way().forEach(r -> onTheWay.add(said(world, r, right)));
    }

    private static Said said(World world, Ranking ranking, Predicate<Ranking> right) {
        return new Said(world, ranking.sureness(), right.test(ranking));
    }

    /**
     * @param most expected error at the end that is wanted
     */
    void print(String what, double most) {
        for (World world : World.values()) {
            List<Said> its = atTheEnd.stream().filter(s -> s.world() == world).toList();
            System.out.printf(
                    Locale.ROOT,
                    "truth: at the end, %d of %s were called %.3f sure on the mean, %.3f were right%n",
                    its.size(),
                    world,
                    its.stream().mapToDouble(Said::sureness).average().orElse(0),
                    its.stream().mapToDouble(s -> s.right() ? 1 : 0).average().orElse(0));
        }
        double end = error("at the end", atTheEnd);
        Yard.line("truth", what + ", expected error", end, "at most " + most, end <= most);
        System.out.printf(
                Locale.ROOT,
                "bench: truth %s, before each check: %.3f%n",
                what,
                error("on the way", onTheWay));
    }

    private static double error(String when, List<Said> all) {
        double error = 0;
        double weight = all.stream().mapToDouble(s -> weight(s, all)).sum();
        for (int b = 0; b < BINS; b++) {
            int bin = b;
            List<Said> in =
                    all.stream()
                            .filter(s -> Math.min(BINS - 1, (int) (s.sureness() * BINS)) == bin)
                            .toList();
            double its = in.stream().mapToDouble(s -> weight(s, all)).sum();
            if (its > 0) {
                double claimed =
                        in.stream().mapToDouble(s -> weight(s, all) * s.sureness()).sum() / its;
                double was =
                        in.stream().filter(Said::right).mapToDouble(s -> weight(s, all)).sum()
                                / its;
                System.out.printf(
                        Locale.ROOT,
                        "truth: %s, of %d that were called %.2f sure %.2f were right%n",
                        when,
                        in.size(),
                        claimed,
                        was);
                error += its * Math.abs(claimed - was) / weight;
            }
        }
        return error;
    }

    private static double weight(Said said, List<Said> all) {
        return said.world().share / all.stream().filter(s -> s.world() == said.world()).count();
    }
}
