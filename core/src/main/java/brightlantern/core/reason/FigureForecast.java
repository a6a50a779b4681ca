package brightlantern.core.reason;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.Function;

/**
 * A figure that is going to be read: the scale is cut where the hypotheses differ, and each has its
 * chance to land between two cuts.
 */
final class FigureForecast implements Mechanism.Forecast {
    /** Hypotheses fainter than this do not decide where the scale is cut. */
    private static final double FAINT = 1e-4;

    private final Hypotheses under;
    private final double[] weights;
    private final String unit;
    private final Function<Hypothesis, Normal> figure;

    FigureForecast(
            Hypotheses under, double[] weights, String unit, Function<Hypothesis, Normal> figure) {
        this.under = under;
        this.weights = weights;
        this.unit = unit;
        this.figure = figure;
    }

    @Override
    public List<double[]> outcomes() {
        List<Normal> normals = under.all().stream().map(figure).toList();
        List<double[]> outcomes = new ArrayList<>();
        double[] below = new double[normals.size()];
        // many hypotheses expect the same, and the error function is what costs
        Map<Normal, Double> seen = new HashMap<>();
        for (double edge : edges(normals)) {
            double[] chance = new double[normals.size()];
            seen.clear();
            for (int i = 0; i < chance.length; i++) {
                Hypothesis h = under.get(i);
                Normal n = normals.get(i);
                double cumulated =
                        h.isUnknown()
                                ? n.below(edge, Odds.anything(h))
                                : seen.computeIfAbsent(n, x -> x.below(edge, Odds.anything(h)));
                chance[i] = Math.max(0, cumulated - below[i]);
                below[i] = cumulated;
            }
            outcomes.add(chance);
        }
        return outcomes;
    }

    private List<Double> edges(List<Normal> normals) {
        TreeSet<Double> cuts = new TreeSet<>();
        for (int i = 0; i < normals.size(); i++) {
            Normal n = normals.get(i);
            if (weights[i] > FAINT) {
                for (double step = -2; step <= 2; step++) {
                    cuts.add(Math.round((n.mean() + step * n.deviation()) * 1000) / 1000.0);
                }
            }
        }
        List<Double> edges = new ArrayList<>(cuts);
        edges.add(Double.POSITIVE_INFINITY);
        return edges;
    }

    /** Those under which it would show come first: a list of likes tells nobody why to do it. */
    @Override
    public List<String> expectations() {
        String healthy = band(Hypothesis.NOTHING);
        List<String> texts = new ArrayList<>(List.of("Healthy: " + healthy));
        Map<String, String> bands = new LinkedHashMap<>();
        List<String> leading = under.leading(weights);
        leading.forEach(id -> bands.put(id, band(id)));
        bands.entrySet().stream()
                .filter(e -> !e.getValue().equals(healthy))
                .limit(Mechanism.SHOWN)
                .forEach(e -> texts.add(under.name(e.getKey()) + ": " + e.getValue()));
        if (leading.stream().limit(Mechanism.SHOWN).anyMatch(id -> bands.get(id).equals(healthy))) {
            texts.add("The others: as when healthy");
        }
        return texts;
    }

    private String band(String suspect) {
        return CircuitMechanism.band(weights, suspect, unit, under, figure);
    }
}
