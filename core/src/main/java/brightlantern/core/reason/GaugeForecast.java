package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.reason.CircuitFigures.OfGauge;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** A gauge that is going to be looked at. */
final class GaugeForecast implements Mechanism.Forecast {
    /** What is so likely under a suspect is told as what it may show. */
    private static final double MAY_WELL = 0.25;

    private final CircuitFigures figures;
    private final OfGauge its;
    private final Hypotheses under;
    private final double[] weights;

    GaugeForecast(CircuitFigures figures, OfGauge its, Hypotheses under, double[] weights) {
        this.figures = figures;
        this.its = its;
        this.under = under;
        this.weights = weights;
    }

    @Override
    public Unlisted.Shows unlisted() {
        return Unlisted.Shows.THE_LIKE;
    }

    @Override
    public Outcomes outcomes() {
        return figures.outcomes(its, under);
    }

    @Override
    public List<String> expectations() {
        List<String> texts = new ArrayList<>();
        for (String id : under.leading(weights).stream().limit(Mechanism.SHOWN).toList()) {
            texts.add(under.name(id) + ": " + shows(id));
        }
        return texts;
    }

    /** What it shows most likely over the sizes of a suspect, and what else it may well. */
    String shows(String suspectId) {
        int[] sizes = under.of(suspectId).toArray();
        double all = Arrays.stream(sizes).mapToDouble(i -> weights[i]).sum();
        Map<Band, Double> likely = new LinkedHashMap<>();
        for (Band band : its.gauge().bands()) {
            double[] chances = figures.chances(its, band, under, sizes);
            likely.put(
                    band,
                    IntStream.range(0, sizes.length)
                            .mapToDouble(i -> weights[sizes[i]] * chances[i])
                            .sum());
        }
        return likely.entrySet().stream()
                .filter(e -> e.getValue() >= MAY_WELL * all)
                .sorted(Map.Entry.<Band, Double>comparingByValue().reversed())
                .map(e -> e.getKey().name())
                .collect(Collectors.joining(" or "));
    }
}
