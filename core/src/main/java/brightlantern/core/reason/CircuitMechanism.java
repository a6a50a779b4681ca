package brightlantern.core.reason;

import brightlantern.core.circuit.Fault;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleFunction;
import java.util.function.Function;

/**
 * Faults in circuits: spread over sizes, each of which foretells how fast an actuator moves and
 * what a meter reads, so that readings which must agree on the size are held against each other.
 */
final class CircuitMechanism implements Mechanism {
    private static final int SIZES = 13;

    private final VehicleDescription description;
    private final Predictions predictions;

    /** Suspect → its fault at each size. */
    private final Map<String, List<Fault>> faults = new HashMap<>();

    CircuitMechanism(VehicleDescription description) {
        this.description = description;
        this.predictions = new Predictions(description);
        for (Suspect suspect : description.suspects()) {
            suspect.effect().ifPresent(e -> faults.put(suspect.id(), faults(e)));
        }
    }

    private static List<Fault> faults(Effect effect) {
        if (effect instanceof Effect.Series series) {
            return spread(series.from(), series.to(), ohm -> new Fault.Series(series.of(), ohm));
        }
        return effect instanceof Effect.Drag drag
                ? spread(drag.from(), drag.to(), by -> new Fault.Drag(drag.of(), by))
                : List.of();
    }

    /** Evenly on a logarithmic scale: a tenth of an ohm is as likely as one. */
    private static List<Fault> spread(double from, double to, DoubleFunction<Fault> of) {
        List<Fault> sizes = new ArrayList<>();
        for (int i = 0; i < SIZES; i++) {
            sizes.add(of.apply(from * Math.pow(to / from, i / (SIZES - 1.0))));
        }
        return sizes;
    }

    private Optional<Fault> fault(Hypothesis h) {
        List<Fault> its = faults.getOrDefault(h.suspectId(), List.of());
        return its.isEmpty() ? Optional.empty() : Optional.of(its.get(h.size()));
    }

    @Override
    public int sizes(Suspect suspect) {
        return Math.max(1, faults.getOrDefault(suspect.id(), List.of()).size());
    }

    @Override
    public boolean weighs(Evidence piece) {
        return piece instanceof Evidence.Run || piece instanceof Evidence.Reading;
    }

    @Override
    public double[] logLikelihoods(Evidence piece, Hypotheses under) {
        Optional<Function<Hypothesis, Normal>> figure = figure(piece);
        if (figure.isEmpty()) {
            // no circuit sheet says how fast any fault would let it move
            return new double[under.size()];
        }
        double x =
                piece instanceof Evidence.Run run
                        ? Math.min(seconds(run), Predictions.NEVER_SECONDS)
                        : ((Evidence.Reading) piece).volts();
        double blur = piece instanceof Evidence.Run run ? run.deviation() : 0;
        return under.each(
                h -> Math.log(figure.get().apply(h).blurred(blur).density(x, Odds.anything(h))));
    }

    private static double seconds(Evidence.Run run) {
        return run.moveSeconds() < 0 ? Predictions.NEVER_SECONDS : run.moveSeconds();
    }

    private Optional<Function<Hypothesis, Normal>> figure(Evidence piece) {
        if (piece instanceof Evidence.Reading r) {
            return Optional.of(
                    h ->
                            predictions.reading(
                                    r.circuitId(),
                                    r.pointId(),
                                    r.load(),
                                    r.moving(),
                                    r.supplyVolts(),
                                    fault(h)));
        }
        Evidence.Run run = (Evidence.Run) piece;
        return predictions.knows(run.actuatorId())
                ? Optional.of(
                        h ->
                                predictions.run(
                                        run.actuatorId(),
                                        run.together(),
                                        run.supplyVolts(),
                                        fault(h)))
                : Optional.empty();
    }

    @Override
    public String foretold(Evidence piece, String suspectId, Hypotheses under, double[] weights) {
        String unit = piece instanceof Evidence.Run ? "s" : "V";
        return figure(piece).map(f -> band(weights, suspectId, unit, under, f)).orElse("");
    }

    @Override
    public String size(String suspectId, Hypotheses under, double[] weights) {
        double log = 0;
        double weight = 0;
        String unit = "";
        for (int i = 0; i < weights.length; i++) {
            Optional<Fault> fault = fault(under.get(i));
            if (under.get(i).suspectId().equals(suspectId) && fault.isPresent()) {
                log += weights[i] * Math.log(fault.get().size());
                weight += weights[i];
                unit = fault.get().unit();
            }
        }
        return weight <= 0
                ? ""
                : String.format(Locale.ROOT, "about %.2g %s", Math.exp(log / weight), unit);
    }

    @Override
    public List<Check> checks(List<Evidence> known) {
        return description.checks().stream()
                .filter(c -> c instanceof Check.Run || c instanceof Check.Reading)
                .toList();
    }

    @Override
    public Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts) {
        if (check instanceof Check.Run run) {
            return Optional.of(
                    new FigureForecast(
                            under,
                            weights,
                            "s",
                            h -> predictions.run(run.actuator(), run.of(), supplyVolts, fault(h))));
        }
        if (check instanceof Check.Reading r) {
            return Optional.of(
                    new FigureForecast(
                            under,
                            weights,
                            "V",
                            h ->
                                    predictions.reading(
                                            r.circuit(),
                                            r.point(),
                                            r.load(),
                                            r.moving(),
                                            supplyVolts,
                                            fault(h))));
        }
        return Optional.empty();
    }

    /** Where a figure lies under a suspect, over the sizes that the evidence has left. */
    static String band(
            double[] weights,
            String suspect,
            String unit,
            Hypotheses under,
            Function<Hypothesis, Normal> figure) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        double most = 0;
        for (int i = 0; i < weights.length; i++) {
            if (under.get(i).suspectId().equals(suspect)) {
                most = Math.max(most, weights[i]);
            }
        }
        for (int i = 0; i < weights.length; i++) {
            // sizes that the evidence has all but excluded would only widen the band
            if (under.get(i).suspectId().equals(suspect) && weights[i] >= 0.1 * most) {
                double mean = figure.apply(under.get(i)).mean();
                low = Math.min(low, mean);
                high = Math.max(high, mean);
            }
        }
        return high - low < 0.02
                ? String.format(Locale.ROOT, "%.2f %s", high, unit)
                : String.format(Locale.ROOT, "%.2f to %.2f %s", low, high, unit);
    }
}
