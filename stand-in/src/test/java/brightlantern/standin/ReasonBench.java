package brightlantern.standin;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.Plan;
import brightlantern.core.reason.Possible;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoner;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

/**
 * How long the reasoning takes on the vehicle with most suspects, after each finding of a long job,
 * and how that grows with the circuits that are in question. A line a figure; milliseconds are
 * medians of this machine, growth is a ratio within the run.
 */
class ReasonBench {
    private static final String LARGEST = "quillon-ember";
    private static final double VOLTS = 12.4;
    private static final int FINDINGS = 40;
    private static final int WARM = 4;
    private static final int TIMES = 11;

    private final VehicleDescription vehicle = Shipped.derived(LARGEST);

    private interface Work {
        void done(List<Evidence> found);
    }

    /**
     * Median over lists that each lack another piece: nothing that is remembered of one list is
     * known of the next.
     */
    private static double[] millis(List<Evidence> found, Work... works) {
        double[][] took = new double[works.length][TIMES];
        for (int i = -WARM; i < TIMES; i++) {
            List<Evidence> its = new ArrayList<>(found);
            its.remove(found.size() - 1 - (i + WARM));
            for (int w = 0; w < works.length; w++) {
                long began = System.nanoTime();
                works[w].done(its);
                if (i >= 0) {
                    took[w][i] = (System.nanoTime() - began) / 1e6;
                }
            }
        }
        return Arrays.stream(took)
                .mapToDouble(t -> Arrays.stream(t).sorted().toArray()[TIMES / 2])
                .toArray();
    }

    /** A complaint about the first thing of each of so many circuits. */
    private List<Evidence> told(int circuits) {
        List<Evidence> told = new ArrayList<>();
        Set<String> known = new HashSet<>();
        vehicle.symptoms().stream().map(Symptom::id).forEach(known::add);
        for (Circuit c : vehicle.circuits()) {
            if (told.size() < circuits) {
                c.gauges().stream()
                        .filter(Gauge::told)
                        .map(g -> "circuit-" + g.id())
                        .filter(known::contains)
                        .findFirst()
                        .ifPresent(s -> told.add(new Evidence.SymptomTold(s)));
            }
        }
        return told;
    }

    /** What the most telling looks would likeliest show, one after another, up to so many. */
    private List<Evidence> found(Reasoners reasoners, List<Evidence> told) {
        List<Evidence> found = new ArrayList<>(told);
        Plan plan = new Plan(reasoners, vehicle);
        List<Check> checks =
                reasoners.of(told).nextChecks(told, VOLTS).stream()
                        .map(NextCheck::check)
                        .filter(c -> c instanceof Check.Look || c instanceof Check.Reading)
                        .toList();
        for (Check c : checks) {
            if (found.size() < FINDINGS) {
                plan.possible(c, told, VOLTS).stream()
                        .max(Comparator.comparingDouble(Possible::chance))
                        .ifPresent(p -> found.add(p.piece()));
            }
        }
        return found;
    }

    @Test
    void afterEachFinding() {
        long before = used();
        Reasoners reasoners = new Reasoners(vehicle);
        List<Evidence> told = told(12);
        List<Evidence> found = found(reasoners, told);
        Reasoner reasoner = reasoners.of(found);
        Ranking ranking = reasoner.rank(found);
        List<NextCheck> next = reasoner.nextChecks(found, VOLTS);
        // as a page asks for them: the ranking, then what to do next
        double[] took =
                millis(
                        found,
                        f -> reasoners.of(f).rank(f),
                        f -> reasoners.of(f).nextChecks(f, VOLTS));
        double rank = took[0];
        double plan = took[1];
        double memory = (used() - before) / 1e6;
        String of =
                String.format(
                        "of %d suspects after %d findings",
                        ranking.standings().size(), found.size());
        Yard.line("reason", "ranking " + of + ", ms", rank, "at most 50", rank <= 50);
        Yard.line(
                "reason",
                "next of " + next.size() + " checks " + of + ", ms",
                plan,
                "at most 300",
                plan <= 300);
        Yard.line("reason", "memory held, MB", memory, "at most 100", memory <= 100);
        List<Evidence> few = told(3);
        List<Evidence> foundOfFew = found(reasoners, few);
        double suspects = reasoners.of(foundOfFew).rank(foundOfFew).standings().size();
        double rankOfFew = millis(foundOfFew, f -> reasoners.of(f).rank(f))[0];
        double grown = ranking.standings().size() / suspects;
        double slower = rank / rankOfFew;
        Yard.line(
                "reason",
                String.format("%.1f times the suspects, times as long", grown),
                slower,
                String.format("at most %.1f", 1.5 * grown),
                slower <= 1.5 * grown);
    }

    private static long used() {
        System.gc();
        Runtime r = Runtime.getRuntime();
        return r.totalMemory() - r.freeMemory();
    }
}
