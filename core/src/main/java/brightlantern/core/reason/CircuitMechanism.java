package brightlantern.core.reason;

import brightlantern.core.circuit.Fault;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
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

    /** So many figures that were read are remembered with what was foretold of them. */
    private static final int MOST_READ = 256;

    private final Map<Evidence, Normal[]> read =
            new LinkedHashMap<>() {
                private static final long serialVersionUID = 1L;

                @Override
                protected boolean removeEldestEntry(Map.Entry<Evidence, Normal[]> eldest) {
                    return size() > MOST_READ;
                }
            };

    /** Check and supply → what each hypothesis foretells. */
    private final Map<Foretold, Normal[]> foretold = new ConcurrentHashMap<>();

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
        Optional<Normal[]> normals = read(piece, under);
        double[] logs = new double[under.size()];
        if (normals.isEmpty()) {
            // no circuit sheet says how fast any fault would let it move
            return logs;
        }
        double x =
                piece instanceof Evidence.Run run
                        ? Math.min(seconds(run), Predictions.NEVER_SECONDS)
                        : ((Evidence.Reading) piece).volts();
        double blur = piece instanceof Evidence.Run run ? run.deviation() : 0;
        for (int i = 0; i < logs.length; i++) {
            double anything = Odds.anything(under.get(i));
            logs[i] = Math.log(normals.get()[i].blurred(blur).density(x, anything));
        }
        return logs;
    }

    /** What each hypothesis foretold of a figure that was read. */
    private Optional<Normal[]> read(Evidence piece, Hypotheses under) {
        synchronized (read) {
            Normal[] known = read.get(piece);
            if (known == null) {
                known = figure(piece).map(f -> normals(under, f)).orElse(null);
                if (known != null) {
                    read.put(piece, known);
                }
            }
            return Optional.ofNullable(known);
        }
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
        return read(piece, under)
                .map(normals -> band(weights, suspectId, unit, under, normals))
                .orElse("");
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
        if (!(check instanceof Check.Run) && !(check instanceof Check.Reading)) {
            return Optional.empty();
        }
        // what a check would read depends on nothing that is found
        Normal[] normals =
                foretold.computeIfAbsent(
                        new Foretold(check.key(), supplyVolts),
                        k -> normals(under, h -> figure(check, h, supplyVolts)));
        String unit = check instanceof Check.Run ? "s" : "V";
        return Optional.of(new FigureForecast(under, weights, unit, normals));
    }

    private record Foretold(String check, double supplyVolts) {}

    private Normal figure(Check check, Hypothesis h, double supplyVolts) {
        if (check instanceof Check.Run run) {
            return predictions.run(run.actuator(), run.of(), supplyVolts, fault(h));
        }
        Check.Reading r = (Check.Reading) check;
        return predictions.reading(
                r.circuit(), r.point(), r.load(), r.moving(), supplyVolts, fault(h));
    }

    private static Normal[] normals(Hypotheses under, Function<Hypothesis, Normal> figure) {
        return under.all().stream().map(figure).toArray(Normal[]::new);
    }

    /** Where a figure lies under a suspect, over the sizes that the evidence has left. */
    static String band(
            double[] weights, String suspect, String unit, Hypotheses under, Normal[] normals) {
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
