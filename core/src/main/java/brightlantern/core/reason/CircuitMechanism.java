package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Faults in circuits: spread over sizes, each of which foretells how fast an actuator moves and
 * what a meter reads, so that readings which must agree on the size are held against each other.
 */
final class CircuitMechanism implements Mechanism {
    /** What is seen of a lamp is not finer than this share of its voltage. */
    private static final double SEEN_SHARE = 0.06;

    /** What a module reads at a pin, as a share of its reference. */
    private static final double READ_SHARE = 0.012;

    /** What is so likely under a suspect is told as what it may show. */
    private static final double MAY_WELL = 0.25;

    /** What a meter reads across a wire, as a share of the reference. */
    private static final double METER_SHARE = 0.002;

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

    /** Less than this adds nothing, V. */
    private static final double ADDS_VOLTS = 0.02;

    /** From this share of the supply on the one decides what the other can still do. */
    private static final double ADDS_SHARE = 0.3;

    /** So often an unlisted cause leaves a point at either rail, and so near. */
    private static final double AT_A_RAIL = 0.2;

    private static final double RAIL_VOLTS = 0.1;

    /** So many checks are remembered with what was foretold of them. */
    private static final int MOST_FORETOLD = 1000;

    /** Check and supply → what each hypothesis foretells. */
    private final Map<Foretold, Normal[]> foretold = new ConcurrentHashMap<>();

    /** Suspect → its fault at each size. */
    private final Map<String, List<Fault>> faults = new HashMap<>();

    /** Finding → the gauge of which it tells. */
    private final Map<String, OfGauge> gauges = new HashMap<>();

    /** Circuit → whether a hypothesis is of a fault in it. */
    private final Map<String, boolean[]> standing = new ConcurrentHashMap<>();

    /** Finding → the share of its voltage that its gauge has under each hypothesis. */
    private final Map<String, double[]> shares = new ConcurrentHashMap<>();

    /**
     * @param predictions what the circuits of this vehicle foretell
     */
    CircuitMechanism(VehicleDescription description, Predictions predictions) {
        this.description = description;
        this.predictions = predictions;
        for (Suspect suspect : description.suspects()) {
            suspect.effect().ifPresent(e -> faults.put(suspect.id(), FaultSizes.of(e)));
        }
        for (Circuit circuit : description.circuits()) {
            circuit.gauges().forEach(g -> gauges.put(g.findingId(), new OfGauge(circuit, g)));
        }
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
        return piece instanceof Evidence.Run
                || piece instanceof Evidence.Reading
                || piece instanceof Evidence.Outcome o && gauges.containsKey(o.findingId());
    }

    @Override
    public Unlisted.Shows unlisted(Evidence piece) {
        return Unlisted.Shows.THE_LIKE;
    }

    /**
     * Two consumers that share a feed let it sag less when neither of them draws: as long as
     * neither takes most of the supply away by itself, what they do adds up (superposition, to
     * first order).
     */
    @Override
    public Optional<Together> together(Evidence piece, Hypotheses under) {
        if (!(piece instanceof Evidence.Reading r)) {
            return Optional.empty();
        }
        Normal[] foretold = read(piece, under).orElseThrow();
        double healthy = foretold[under.healthy()].mean();
        return Optional.of(
                (first, second) -> {
                    Normal one = foretold[first];
                    Normal other = foretold[second];
                    return addUp(one.mean() - healthy, other.mean() - healthy, r.supplyVolts())
                            ? OptionalDouble.of(
                                    Math.log(
                                            sum(one, other, healthy)
                                                    .density(
                                                            r.volts(),
                                                            Odds.anything(under.get(first)))))
                            : OptionalDouble.empty();
                });
    }

    private static Normal sum(Normal one, Normal other, double healthy) {
        return new Normal(
                Math.max(0, Math.min(one.top(), one.mean() + other.mean() - healthy)),
                Math.max(one.deviation(), other.deviation()),
                one.top());
    }

    private static boolean addUp(double one, double other, double supply) {
        double least = Math.min(Math.abs(one), Math.abs(other));
        double most = Math.max(Math.abs(one), Math.abs(other));
        return least > ADDS_VOLTS && most < ADDS_SHARE * supply;
    }

    /** What stands in the circuit in which it was read or seen. */
    @Override
    public Optional<boolean[]> near(Evidence piece, Hypotheses under) {
        return piece instanceof Evidence.Reading r
                ? Optional.of(near(r.circuitId(), under))
                : piece instanceof Evidence.Outcome o
                        ? Optional.of(near(gauges.get(o.findingId()).circuit().id(), under))
                        : Optional.empty();
    }

    private boolean[] near(String circuitId, Hypotheses under) {
        return standing.computeIfAbsent(
                circuitId,
                id -> {
                    Circuit circuit = description.circuit(id).orElseThrow();
                    boolean[] near = new boolean[under.size()];
                    for (int i = 0; i < near.length; i++) {
                        near[i] =
                                under.get(i)
                                        .described()
                                        .flatMap(Suspect::effect)
                                        .flatMap(Effect::part)
                                        .flatMap(circuit::component)
                                        .isPresent();
                    }
                    return near;
                });
    }

    @Override
    public double[] logLikelihoods(Evidence piece, Hypotheses under) {
        if (piece instanceof Evidence.Outcome o) {
            OfGauge its = gauges.get(o.findingId());
            Band band = its.gauge().band(o.outcomeId()).orElseThrow();
            double[] chances = chances(its, band, under);
            return Arrays.stream(chances).map(Math::log).toArray();
        }
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
            Normal foretold = normals.get()[i].blurred(blur);
            double density = foretold.density(x, anything);
            logs[i] =
                    Math.log(
                            under.get(i).isUnknown() && piece instanceof Evidence.Reading r
                                    ? broken(density, x, r.supplyVolts(), foretold.top())
                                    : density);
        }
        return logs;
    }

    /** What is broken in whatever way often has nothing, or all of the supply. */
    private static double broken(double density, double volts, double supply, double top) {
        double dead = new Normal(0, RAIL_VOLTS, top).density(volts, 0);
        double full = new Normal(supply, 2 * RAIL_VOLTS, top).density(volts, 0);
        return (1 - 2 * AT_A_RAIL) * density + AT_A_RAIL * (dead + full);
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

    /** Probability that a gauge shows a band. */
    private double[] chances(OfGauge its, Band band, Hypotheses under) {
        Gauge gauge = its.gauge();
        double even = 1.0 / gauge.bands().size();
        double blur = blur(gauge);
        double end = gauge.end(band);
        double begin = gauge.begin(band);
        double[] chances =
                shares.computeIfAbsent(gauge.findingId(), f -> shares(its, under)).clone();
        for (int i = 0; i < chances.length; i++) {
            double p =
                    Normal.cumulated((end - chances[i]) / blur)
                            - Normal.cumulated((begin - chances[i]) / blur);
            double anything = Odds.anything(under.get(i));
            chances[i] = (1 - anything) * p + anything * even;
        }
        return chances;
    }

    private static double blur(Gauge gauge) {
        return switch (gauge.by()) {
            case DRIVER, HANDS -> SEEN_SHARE;
            case MODULE, INSTRUMENT -> READ_SHARE;
            case METER -> METER_SHARE;
        };
    }

    private double[] shares(OfGauge its, Hypotheses under) {
        return under.each(h -> predictions.share(its.circuit(), its.gauge(), fault(h)));
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
        if (piece instanceof Evidence.Outcome o) {
            return shows(gauges.get(o.findingId()), suspectId, under, weights);
        }
        String unit = piece instanceof Evidence.Run ? "s" : "V";
        return read(piece, under)
                .map(normals -> band(weights, suspectId, unit, under, normals))
                .orElse("");
    }

    @Override
    public String size(String suspectId, Hypotheses under, double[] weights) {
        NavigableMap<Double, Double> sizes = new TreeMap<>();
        String unit = "";
        for (int i : under.of(suspectId).toArray()) {
            Optional<Fault> fault = fault(under.get(i));
            if (fault.isPresent()) {
                sizes.merge(fault.get().size(), weights[i], Double::sum);
                unit = fault.get().unit();
            }
        }
        return FaultSizes.told(sizes, unit);
    }

    @Override
    public List<Check> checks(List<Evidence> known) {
        return description.checks().stream()
                .filter(
                        c ->
                                c instanceof Check.Run
                                        || c instanceof Check.Reading
                                        || c instanceof Check.Look l
                                                && gauges.containsKey(l.finding()))
                .toList();
    }

    @Override
    public Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts) {
        if (check instanceof Check.Look look) {
            return Optional.ofNullable(gauges.get(look.finding()))
                    .map(its -> new Seeing(its, under, weights));
        }
        if (!(check instanceof Check.Run) && !(check instanceof Check.Reading)) {
            return Optional.empty();
        }
        // what a check would read depends on nothing that is found; a supply that drifts makes
        // ever new figures
        if (foretold.size() > MOST_FORETOLD) {
            foretold.clear();
        }
        Normal[] normals =
                foretold.computeIfAbsent(
                        new Foretold(check.key(), supplyVolts),
                        k -> normals(under, h -> figure(check, h, supplyVolts)));
        String unit = check instanceof Check.Run ? "s" : "V";
        return Optional.of(new FigureForecast(under, weights, unit, normals));
    }

    private record Foretold(String check, double supplyVolts) {}

    private record OfGauge(Circuit circuit, Gauge gauge) {}

    /** What a gauge shows most likely over the sizes of a suspect, and what else it may well. */
    private String shows(OfGauge its, String suspectId, Hypotheses under, double[] weights) {
        int[] sizes = under.of(suspectId).toArray();
        double all = Arrays.stream(sizes).mapToDouble(i -> weights[i]).sum();
        Map<Band, Double> likely = new LinkedHashMap<>();
        for (Band band : its.gauge().bands()) {
            double[] chances = chances(its, band, under);
            likely.put(band, Arrays.stream(sizes).mapToDouble(i -> weights[i] * chances[i]).sum());
        }
        return likely.entrySet().stream()
                .filter(e -> e.getValue() >= MAY_WELL * all)
                .sorted(Map.Entry.<Band, Double>comparingByValue().reversed())
                .map(e -> e.getKey().name())
                .collect(Collectors.joining(" or "));
    }

    private final class Seeing implements Forecast {
        private final OfGauge its;
        private final Hypotheses under;
        private final double[] weights;

        Seeing(OfGauge its, Hypotheses under, double[] weights) {
            this.its = its;
            this.under = under;
            this.weights = weights;
        }

        @Override
        public Unlisted.Shows unlisted() {
            return Unlisted.Shows.THE_LIKE;
        }

        @Override
        public List<double[]> outcomes() {
            return its.gauge().bands().stream().map(b -> chances(its, b, under)).toList();
        }

        @Override
        public List<String> expectations() {
            List<String> texts = new ArrayList<>();
            for (String id : under.leading(weights).stream().limit(SHOWN).toList()) {
                texts.add(under.name(id) + ": " + shows(its, id, under, weights));
            }
            return texts;
        }
    }

    private Normal figure(Check check, Hypothesis h, double supplyVolts) {
        if (check instanceof Check.Run run) {
            return predictions.run(run.actuator(), run.of(), supplyVolts, fault(h));
        }
        Check.Reading r = (Check.Reading) check;
        return predictions.reading(
                r.circuit(), r.point(), r.load(), r.moving(), supplyVolts, fault(h));
    }

    /** Hypotheses of the same fault, as all that is open, foretell the same. */
    private Normal[] normals(Hypotheses under, Function<Hypothesis, Normal> figure) {
        Normal[] normals = new Normal[under.size()];
        for (int i = 0; i < normals.length; i++) {
            boolean again = i > 0 && fault(under.get(i)).equals(fault(under.get(i - 1)));
            normals[i] = again ? normals[i - 1] : figure.apply(under.get(i));
        }
        return normals;
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
