package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.NextStep;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.reason.Standing;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

/**
 * What it costs, in minutes and money, until the right part is mended: for a robot that does what
 * the card says, for one that does the same checks in random order, and for one that fits the parts
 * that explain the complaint, the commonest first. {@code -Dseed=N -Druns=N}, of which it takes a
 * tenth; a line a figure.
 */
class ThriftBench {
    /** Who has mended so many in vain gives up. */
    private static final int MOST_PARTS = 30;

    /** Each job is done three times over, and most parts in vain: of so many runs one is such. */
    private static final int OF_RUNS = 10;

    /** After each repair the complaint is tried again. */
    private static final double TRIED_MINUTES = 5;

    private final long seed = Long.getLong("seed", 1);
    private final int runs = Math.max(1, Integer.getInteger("runs", 600) / OF_RUNS);
    private final Yard yard = new Yard(new Random(seed));

    /** One way of working, and what it has cost in all runs. */
    private static final class Way {
        private final String name;
        private double minutes;
        private double money;
        private int parts;
        private int left;

        Way(String name) {
            this.name = name;
        }

        void mends(Repair repair) {
            minutes += repair.minutes() + TRIED_MINUTES;
            money += repair.price();
            parts++;
        }
    }

    /** A broken vehicle, and whose repair mends it. */
    private record Job(
            StandInVehicle vehicle, List<Evidence> told, Set<String> parts, String repair) {
        boolean isMendedBy(Suspect s) {
            return repair.isEmpty()
                    ? parts.contains(Robot.part(vehicle.description(), s.id()))
                    : repair.equals(s.repair().id());
        }
    }

    @Test
    void againstOtherWays() {
        Way card = new Way("the card");
        Way random = new Way("random order");
        Way fits = new Way("parts by how common they fail");
        for (int i = 0; i < runs; i++) {
            Job job = job(i);
            Reasoners reasoners = yard.reasoners(job.vehicle().description().id());
            checked(card, job, reasoners, i, UnaryOperator.identity());
            Random order = new Random(seed + i);
            checked(random, job, reasoners, i, next -> shuffled(next, order));
            fitted(fits, job, byHowCommon(job, reasoners));
        }
        for (Way w : List.of(card, random, fits)) {
            System.out.printf(
                    Locale.ROOT,
                    "bench: thrift %s: %.1f minutes, %.0f in money, %.2f parts a job; given up %d of %d%n",
                    w.name,
                    w.minutes / runs,
                    w.money / runs,
                    w.parts / (double) runs,
                    w.left,
                    runs);
        }
        ratios(card, random);
        ratios(card, fits);
        assertThat(card.parts).isPositive();
    }

    private static void ratios(Way card, Way other) {
        double minutes = card.minutes / other.minutes;
        double money = card.money / other.money;
        String against = ", the card against " + other.name;
        Yard.line("thrift", "minutes" + against, minutes, "below 1", minutes < 1);
        Yard.line("thrift", "money" + against, money, "at most 1", money <= 1);
    }

    private Job job(int i) {
        Random drawn = new Random(seed * 1000 + i);
        String id = yard.drawn();
        StandInVehicle v = yard.built(id);
        Breaker breaker = new Breaker(v);
        boolean mechanical = i % 4 == 3;
        List<Part.Failure> of = new ArrayList<>();
        of.addAll(mechanical ? breaker.mechanical() : breaker.inCircuits());
        Breaker.Broken broken = breaker.breakSomething(of, drawn, false);
        return new Job(
                v,
                new Robot(v, drawn).told(broken),
                yard.vehicle(id).wiring().alike(broken.part()),
                mechanical ? v.simulation().damage().failing(broken.part()).repair() : "");
    }

    private static List<NextCheck> shuffled(List<NextCheck> next, Random order) {
        List<NextCheck> all = new ArrayList<>(next);
        all.removeIf(c -> c.bits() < NextStep.LEAST_BITS);
        Collections.shuffle(all, order);
        return all;
    }

    /** Follows the checks, and mends by the ranking that they end in. */
    private void checked(
            Way way, Job job, Reasoners reasoners, int i, UnaryOperator<List<NextCheck>> order) {
        Robot robot = new Robot(job.vehicle(), new Random(seed + i));
        Robot.Ended ended = robot.follow(reasoners, job.told(), order);
        way.minutes += ended.minutes();
        Ranking ranking = ended.ranking();
        fitted(way, job, ranking.standings());
    }

    private static List<Standing> byHowCommon(Job job, Reasoners reasoners) {
        VehicleDescription d = job.vehicle().description();
        return reasoners.of(job.told()).rank(job.told()).standings().stream()
                .filter(Standing::isDescribed)
                .filter(s -> s.contributions().stream().anyMatch(c -> c.log10Odds() > 0))
                .sorted(
                        Comparator.comparingDouble(
                                s -> -d.suspect(s.suspectId()).map(Suspect::common).orElse(0.0)))
                .toList();
    }

    private static void fitted(Way way, Job job, List<Standing> order) {
        VehicleDescription d = job.vehicle().description();
        List<Suspect> those =
                order.stream()
                        .flatMap(s -> d.suspect(s.suspectId()).stream())
                        .limit(MOST_PARTS)
                        .toList();
        for (Suspect s : those) {
            way.mends(s.repair());
            if (job.isMendedBy(s)) {
                return;
            }
        }
        way.left++;
    }
}
