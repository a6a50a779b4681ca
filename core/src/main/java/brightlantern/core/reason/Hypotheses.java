package brightlantern.core.reason;

import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.ToDoubleBiFunction;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;

/**
 * All that may be so: every described suspect at every size of its fault, "something not on this
 * list" and "nothing broken at present". Arrays over hypotheses have their order.
 */
public final class Hypotheses {
    /**
     * A list of causes is never complete: one complaint in twenty turns out to be something new.
     */
    private static final double PRIOR_SOMETHING_ELSE = 0.05;

    /**
     * One complaint in four is not reproduced: misuse, a passing condition, or mended on the way.
     */
    private static final double PRIOR_NOTHING = 0.25;

    /** One described cause stands for so much of all causes at most. */
    private static final double COVERED_BY_ONE = 0.2;

    private final List<Hypothesis> all = new ArrayList<>();
    private final List<String> suspects;
    private final Map<String, String> names = new HashMap<>();

    /** Hypothesis → place of its suspect in {@link #suspects}. */
    private final int[] suspectOf;

    private final Map<String, Integer> index = new HashMap<>();

    /** Where the hypotheses of each suspect begin; they stand together. */
    private final int[] begins;

    /**
     * @param described the suspects of a vehicle
     * @param mechanisms each spreads those that are its own over their sizes; none spreads
     *     another's
     */
    Hypotheses(List<Suspect> described, List<Mechanism> mechanisms) {
        double total = described.stream().mapToDouble(Suspect::common).sum();
        double covered = covered(described, mechanisms);
        // what a short list leaves open goes to both others alike
        double open = (1 - PRIOR_SOMETHING_ELSE - PRIOR_NOTHING - covered) / 2;
        double share = total > 0 ? covered / total : 0;
        for (Suspect suspect : described) {
            int sizes = mechanisms.stream().mapToInt(m -> m.sizes(suspect)).max().orElse(1);
            for (int i = 0; i < sizes; i++) {
                all.add(
                        new Hypothesis(
                                suspect.id(),
                                i,
                                suspect.common() * share / sizes,
                                Optional.of(suspect)));
            }
        }
        described.forEach(s -> names.put(s.id(), s.name()));
        names.put(Hypothesis.SOMETHING_ELSE, "Something not on this list");
        names.put(Hypothesis.NOTHING, "Nothing broken at present");
        // these two are the last
        all.add(undescribed(Hypothesis.SOMETHING_ELSE, PRIOR_SOMETHING_ELSE + open));
        all.add(undescribed(Hypothesis.NOTHING, PRIOR_NOTHING + open));
        suspects = all.stream().map(Hypothesis::suspectId).distinct().toList();
        suspects.forEach(id -> index.put(id, index.size()));
        suspectOf = all.stream().mapToInt(h -> index.get(h.suspectId())).toArray();
        begins = new int[suspects.size() + 1];
        for (int k : suspectOf) {
            begins[k + 1]++;
        }
        Arrays.parallelPrefix(begins, Integer::sum);
    }

    private static Hypothesis undescribed(String id, double prior) {
        return new Hypothesis(id, 0, prior, Optional.empty());
    }

    /** Share of all causes that the description covers: a list of one cause is not complete. */
    private static double covered(List<Suspect> described, List<Mechanism> mechanisms) {
        if (described.isEmpty()) {
            return 0;
        }
        long counted =
                described.stream()
                        .filter(s -> mechanisms.stream().noneMatch(m -> m.isComplete(s)))
                        .count();
        double most = 1 - PRIOR_SOMETHING_ELSE - PRIOR_NOTHING;
        return counted == 0 ? most : Math.min(most, COVERED_BY_ONE * counted);
    }

    /** How many there are. */
    public int size() {
        return all.size();
    }

    /**
     * @param index its place in all arrays over hypotheses
     */
    public Hypothesis get(int index) {
        return all.get(index);
    }

    /** Place of a hypothesis' suspect in {@link #suspects}. */
    int suspectOf(int index) {
        return suspectOf[index];
    }

    /** Place of the cause that nobody listed. */
    int unlisted() {
        return all.size() - 2;
    }

    /** Place of the vehicle that is well. */
    int healthy() {
        return all.size() - 1;
    }

    /** All of them, in their order. */
    public List<Hypothesis> all() {
        return List.copyOf(all);
    }

    /** Ids of the suspects, the two that nobody described last. */
    public List<String> suspects() {
        return suspects;
    }

    /** What a suspect is called; its id when nobody described it. */
    public String name(String suspectId) {
        return names.getOrDefault(suspectId, suspectId);
    }

    /** The described suspects, the surest first. */
    public List<String> leading(double[] weights) {
        double[] sure = bySuspect(weights);
        return IntStream.range(0, sure.length)
                .boxed()
                .sorted(Comparator.comparingDouble((Integer k) -> -sure[k]))
                .map(suspects::get)
                .filter(id -> !id.equals(Hypothesis.NOTHING))
                .filter(id -> !id.equals(Hypothesis.SOMETHING_ELSE))
                .toList();
    }

    /** Probability of each before anything was found; they sum to 1. */
    public double[] priors() {
        return each(Hypothesis::prior);
    }

    /** A figure for each hypothesis. */
    public double[] each(ToDoubleFunction<Hypothesis> figure) {
        double[] figures = new double[all.size()];
        for (int i = 0; i < figures.length; i++) {
            figures[i] = figure.applyAsDouble(all.get(i));
        }
        return figures;
    }

    /** A figure for each hypothesis that is the same whatever the size of its fault. */
    double[] eachSuspect(ToDoubleFunction<Hypothesis> figure) {
        double[] figures = new double[all.size()];
        for (int k = 0; k < suspects.size(); k++) {
            double one = figure.applyAsDouble(all.get(begins[k]));
            Arrays.fill(figures, begins[k], begins[k + 1], one);
        }
        return figures;
    }

    /**
     * Outcomes whose probabilities are the same whatever the size of a suspect's fault.
     *
     * @param chance of an outcome under a hypothesis
     */
    <T> Outcomes bySuspect(List<T> outcomes, ToDoubleBiFunction<Hypothesis, T> chance) {
        double[][] chances = new double[outcomes.size()][suspects.size()];
        for (int o = 0; o < chances.length; o++) {
            for (int k = 0; k < chances[o].length; k++) {
                chances[o][k] = chance.applyAsDouble(all.get(begins[k]), outcomes.get(o));
            }
        }
        return new Outcomes(suspectOf, chances);
    }

    /** Places of the hypotheses of a suspect; none for one that is not among them. */
    IntStream of(String suspectId) {
        Integer k = index.get(suspectId);
        return k == null ? IntStream.empty() : IntStream.range(begins[k], begins[k + 1]);
    }

    /** Sums over the hypotheses of each suspect, in the order of {@link #suspects}. */
    public double[] bySuspect(double[] of) {
        double[] sums = new double[suspects.size()];
        for (int i = 0; i < of.length; i++) {
            sums[suspectOf[i]] += of[i];
        }
        return sums;
    }
}
