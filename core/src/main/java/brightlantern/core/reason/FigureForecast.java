package brightlantern.core.reason;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;

/**
 * A figure that is going to be read: the scale is cut where the hypotheses differ, and each has its
 * chance to land between two cuts.
 */
final class FigureForecast implements Mechanism.Forecast {
    /** More cuts of the scale tell hardly more. */
    private static final int EDGES = 32;

    /** Hypotheses fainter than this do not decide where the scale is cut. */
    private static final double FAINT = 1e-4;

    /** Figures that lie within this, in its unit, are told as one. */
    private static final double APART = 0.8;

    private final Hypotheses under;
    private final double[] weights;
    private final String unit;

    /** What each hypothesis foretells. */
    private final Normal[] normals;

    /** What is to be known with the figures; empty for nothing. */
    private final String note;

    FigureForecast(Hypotheses under, double[] weights, String unit, Normal[] normals, String note) {
        this.note = note;
        this.under = under;
        this.weights = weights;
        this.unit = unit;
        this.normals = normals;
    }

    @Override
    public Unlisted.Shows unlisted() {
        return Unlisted.Shows.THE_LIKE;
    }

    @Override
    public Outcomes outcomes() {
        // many hypotheses expect the same, and the error function is what costs
        Map<Figure, Integer> kinds = new HashMap<>();
        int[] kind = new int[normals.length];
        for (int i = 0; i < kind.length; i++) {
            // most have nothing to do with it, and foretell the very same
            if (i > 0 && normals[i] == normals[i - 1] && isUsual(i) && isUsual(i - 1)) {
                kind[i] = kind[i - 1];
            } else {
                Figure one = new Figure(normals[i], Odds.anything(under.get(i)));
                kind[i] = kinds.computeIfAbsent(one, k -> kinds.size());
            }
        }
        Figure[] figures = new Figure[kinds.size()];
        kinds.forEach((one, k) -> figures[k] = one);
        List<Double> edges = edges();
        double[][] chances = new double[edges.size()][figures.length];
        for (int k = 0; k < figures.length; k++) {
            double below = 0;
            for (int e = 0; e < chances.length; e++) {
                double cumulated = figures[k].normal().below(edges.get(e), figures[k].anything());
                chances[e][k] = Math.max(0, cumulated - below);
                below = cumulated;
            }
        }
        return new Outcomes(kind, chances);
    }

    /** Whether as much is left to chance as under any that is described. */
    private boolean isUsual(int i) {
        return i != under.unlisted();
    }

    /** What is foretold, and how much of it is left to chance. */
    private record Figure(Normal normal, double anything) {}

    /** Edges where the figure is likely to lie, evenly by its probability over all hypotheses. */
    private List<Double> edges() {
        TreeMap<Double, Double> mass = new TreeMap<>();
        double all = 0;
        for (int i = 0; i < normals.length; i++) {
            Normal n = normals[i];
            if (weights[i] > FAINT) {
                for (double step = -2; step <= 2; step++) {
                    mass.merge(n.mean() + step * n.deviation(), weights[i], Double::sum);
                    all += weights[i];
                }
            }
        }
        List<Double> edges = new ArrayList<>();
        double sum = 0;
        for (Map.Entry<Double, Double> place : mass.entrySet()) {
            sum += place.getValue();
            if (sum >= all * (edges.size() + 1) / (EDGES + 1) && edges.size() < EDGES) {
                edges.add(place.getKey());
            }
        }
        edges.add(Double.POSITIVE_INFINITY);
        return edges;
    }

    /** What it may read: figures near to each other as one, at their mean, with their weight. */
    List<Reasoner.Figure> figures() {
        int[] order =
                IntStream.range(0, normals.length)
                        .boxed()
                        .sorted(Comparator.comparingDouble(i -> normals[i].mean()))
                        .mapToInt(i -> i)
                        .toArray();
        List<Reasoner.Figure> figures = new ArrayList<>();
        double weight = 0;
        double sum = 0;
        double first = Double.NaN;
        for (int i : order) {
            double mean = normals[i].mean();
            if (mean - first > APART) {
                figures.add(new Reasoner.Figure(sum / weight, weight));
                weight = 0;
                sum = 0;
                first = Double.NaN;
            }
            if (weights[i] > 0) {
                first = Double.isNaN(first) ? mean : first;
                weight += weights[i];
                sum += weights[i] * mean;
            }
        }
        if (weight > 0) {
            figures.add(new Reasoner.Figure(sum / weight, weight));
        }
        return figures;
    }

    /** Those under which it would show come first: a list of likes tells nobody why to do it. */
    @Override
    public List<String> expectations() {
        String healthy = band(Hypothesis.NOTHING);
        List<String> texts = new ArrayList<>(List.of("Healthy: " + healthy));
        List<String> leading = under.leading(weights);
        leading.stream()
                .map(id -> under.name(id) + ": " + band(id))
                .filter(text -> !text.endsWith(": " + healthy))
                .limit(Mechanism.SHOWN)
                .forEach(texts::add);
        if (leading.stream().limit(Mechanism.SHOWN).anyMatch(id -> band(id).equals(healthy))) {
            texts.add("The others: as when healthy");
        }
        if (!note.isEmpty()) {
            texts.add(note);
        }
        return texts;
    }

    private String band(String suspect) {
        return band(weights, suspect, unit, under, normals);
    }

    /** Where a figure lies under a suspect, over the sizes that the evidence has left. */
    static String band(
            double[] weights, String suspect, String unit, Hypotheses under, Normal[] normals) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        double most = 0;
        int[] sizes = under.of(suspect).toArray();
        for (int i : sizes) {
            most = Math.max(most, weights[i]);
        }
        for (int i : sizes) {
            // sizes that the evidence has all but excluded would only widen the band
            if (weights[i] >= 0.1 * most) {
                double mean = normals[i].mean();
                low = Math.min(low, mean);
                high = Math.max(high, mean);
            }
        }
        return high - low < 0.02
                ? String.format(Locale.ROOT, "%.2f %s", high, unit)
                : String.format(Locale.ROOT, "%.2f to %.2f %s", low, high, unit);
    }
}
