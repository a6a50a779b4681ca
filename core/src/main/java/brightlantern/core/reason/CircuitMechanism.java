package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.reason.CircuitFigures.OfGauge;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Faults in circuits: spread over sizes, each of which foretells how fast an actuator moves and
 * what a meter reads, so that readings which must agree on the size are held against each other.
 */
final class CircuitMechanism implements Mechanism {
    /** So often an unlisted cause leaves a point at either rail, and so near. */
    private static final double AT_A_RAIL = 0.2;

    private static final double RAIL_VOLTS = 0.1;

    private static final String AT_REST =
            "All as at rest: it is held against what its module tells while it is read";

    private final VehicleDescription description;
    private final CircuitFigures figures;
    private final CanRun engine;

    /** Circuit → whether a hypothesis is of a fault in it. */
    private final Map<String, boolean[]> standing = new ConcurrentHashMap<>();

    /**
     * @param figures what the circuits of this vehicle foretell
     */
    CircuitMechanism(VehicleDescription description, CircuitFigures figures) {
        this.description = description;
        this.figures = figures;
        this.engine = CanRun.of(description.wiring());
    }

    @Override
    public int sizes(Suspect suspect) {
        return figures.sizes(suspect);
    }

    @Override
    public boolean weighs(Evidence piece) {
        return piece instanceof Evidence.Run
                || piece instanceof Evidence.Reading
                || piece instanceof Evidence.Outcome o && figures.gauge(o.findingId()).isPresent();
    }

    @Override
    public Unlisted.Shows unlisted(Evidence piece) {
        return Unlisted.Shows.THE_LIKE;
    }

    @Override
    public Optional<Together> together(Evidence piece, Hypotheses under) {
        if (piece instanceof Evidence.Reading r) {
            return figures.read(piece, under)
                    .map(f -> new AddedUp(figures, r, f, under, near(r.circuitId(), under)));
        }
        return piece instanceof Evidence.Outcome o
                ? figures.gauge(o.findingId())
                        .map(its -> new Seen(piece, under, near(its.circuit().id(), under)))
                : Optional.empty();
    }

    /** A gauge that was looked at: one of two faults mostly decides what it shows. */
    private final class Seen implements Together {
        private final Evidence piece;
        private final Hypotheses under;
        private final boolean[] near;

        Seen(Evidence piece, Hypotheses under, boolean[] near) {
            this.piece = piece;
            this.under = under;
            this.near = near;
        }

        @Override
        public OptionalDouble solved(int first, int second) {
            return near[first] && near[second]
                    ? figures.both(piece, under.get(first), under.get(second))
                    : OptionalDouble.empty();
        }
    }

    /** What stands in the circuit in which it was read or seen. */
    @Override
    public Optional<boolean[]> near(Evidence piece, Hypotheses under) {
        if (piece instanceof Evidence.Outcome o) {
            return figures.gauge(o.findingId()).map(its -> near(its.circuit().id(), under));
        }
        return piece instanceof Evidence.Reading r
                ? Optional.of(near(r.circuitId(), under))
                : Optional.empty();
    }

    private boolean[] near(String circuitId, Hypotheses under) {
        return standing.computeIfAbsent(
                circuitId,
                id -> {
                    Set<String> parts = figures.parts(id);
                    boolean[] near = new boolean[under.size()];
                    for (int i = 0; i < near.length; i++) {
                        near[i] =
                                under.get(i)
                                        .described()
                                        .flatMap(Suspect::effect)
                                        .flatMap(Effect::part)
                                        .filter(parts::contains)
                                        .isPresent();
                    }
                    return near;
                });
    }

    @Override
    public double[] logLikelihoods(Evidence piece, Hypotheses under) {
        if (piece instanceof Evidence.Outcome o) {
            OfGauge its = figures.gauge(o.findingId()).orElseThrow();
            Band band = its.gauge().band(o.outcomeId()).orElseThrow();
            double[] chances = figures.chances(its, band, under);
            return Arrays.stream(chances).map(Math::log).toArray();
        }
        Optional<Normal[]> normals = figures.read(piece, under);
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

    @Override
    public boolean isSlip(Evidence piece, Hypotheses under, int hypothesis) {
        return piece instanceof Evidence.Reading r
                && figures.read(piece, under)
                        .map(f -> f[hypothesis])
                        .filter(f -> f.isSlip(r.volts(), Odds.anything(under.get(hypothesis))))
                        .isPresent();
    }

    @Override
    public boolean isSlip(Evidence piece, Hypotheses under, int first, int second) {
        Optional<Normal> both =
                piece instanceof Evidence.Reading r
                        ? figures.volts(r, under.get(first), under.get(second))
                        : Optional.empty();
        return both.map(
                        f ->
                                f.isSlip(
                                        ((Evidence.Reading) piece).volts(),
                                        Odds.anything(under.get(first))))
                .orElseGet(() -> Mechanism.super.isSlip(piece, under, first, second));
    }

    /** What is broken in whatever way often has nothing, or all of the supply. */
    private static double broken(double density, double volts, double supply, double top) {
        double dead = new Normal(0, RAIL_VOLTS, top).density(volts, 0);
        double full = new Normal(supply, 2 * RAIL_VOLTS, top).density(volts, 0);
        return (1 - 2 * AT_A_RAIL) * density + AT_A_RAIL * (dead + full);
    }

    @Override
    public String foretold(Evidence piece, String suspectId, Hypotheses under, double[] weights) {
        if (piece instanceof Evidence.Outcome o) {
            return new GaugeForecast(
                            figures, figures.gauge(o.findingId()).orElseThrow(), under, weights)
                    .shows(suspectId);
        }
        return figures.read(piece, under)
                .map(n -> FigureForecast.band(weights, suspectId, unit(piece), under, n))
                .orElse("");
    }

    /** Never is as good as long. */
    private static double seconds(Evidence.Run run) {
        return run.moveSeconds() < 0 ? Predictions.NEVER_SECONDS : run.moveSeconds();
    }

    private static String unit(Evidence piece) {
        return piece instanceof Evidence.Run ? "s" : "V";
    }

    @Override
    public String size(String suspectId, Hypotheses under, double[] weights) {
        NavigableMap<Double, Double> sizes = new TreeMap<>();
        String unit = "";
        for (int i : under.of(suspectId).toArray()) {
            Optional<Fault> fault = figures.fault(under.get(i));
            if (fault.isPresent()) {
                sizes.merge(fault.get().size(), weights[i], Double::sum);
                unit = fault.get().unit();
            }
        }
        return FaultSizes.told(sizes, unit);
    }

    @Override
    public List<Check> checks(List<Evidence> known) {
        return engine.allowed(description.checks().stream().filter(this::does).toList(), known);
    }

    private boolean does(Check check) {
        return check instanceof Check.Run
                || check instanceof Check.Reading
                || check instanceof Check.Look l && figures.gauge(l.finding()).isPresent();
    }

    @Override
    public Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts) {
        if (check instanceof Check.Look look) {
            return figures.gauge(look.finding())
                    .map(its -> new GaugeForecast(figures, its, under, weights));
        }
        if (!does(check)) {
            return Optional.empty();
        }
        return Optional.of(
                new FigureForecast(
                        under,
                        weights,
                        check instanceof Check.Run ? "s" : "V",
                        figures.foretold(check, under, supplyVolts),
                        isOfASensor(check) ? AT_REST : ""));
    }

    private boolean isOfASensor(Check check) {
        return check instanceof Check.Reading r
                && description
                        .circuit(r.circuit())
                        .flatMap(c -> Sensed.valueAt(c, r.point()))
                        .isPresent();
    }
}
