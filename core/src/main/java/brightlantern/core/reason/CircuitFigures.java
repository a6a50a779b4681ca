package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * What the circuits of a vehicle let a meter, a run and a gauge show under each hypothesis.
 * Remembers what it computed.
 */
final class CircuitFigures {
    /** What is seen of a lamp is not finer than this share of its voltage. */
    private static final double SEEN_SHARE = 0.06;

    /** What a module reads at a pin, as a share of its reference. */
    private static final double READ_SHARE = 0.012;

    /** What a meter reads across a wire, as a share of the reference. */
    private static final double METER_SHARE = 0.002;

    /** Consumers of one type differ so far in their ohms. */
    private static final double OHM_SHARE = 0.06;

    /** A clamp on small currents drifts, and what it measures scatters with the supply. */
    private static final double AMP_SHARE = 0.08;

    /** So many figures that were read are remembered with what was foretold of them. */
    private static final int MOST_READ = 256;

    /** So many checks are remembered with what was foretold of them. */
    private static final int MOST_FORETOLD = 1000;

    private final Predictions predictions;
    private final NetworkFaults network;

    private final Map<Evidence, Normal[]> read = new Remembered<>(MOST_READ);

    /** Check and supply → what each hypothesis foretells. */
    private final Map<Foretold, Normal[]> foretold = new ConcurrentHashMap<>();

    /** Suspect → its fault at each size. */
    private final Map<String, List<Fault>> faults = new HashMap<>();

    /** Finding → the gauge of which it tells. */
    private final Map<String, OfGauge> gauges = new HashMap<>();

    /** Finding → the share of its voltage that its gauge has under each hypothesis. */
    private final Map<String, double[]> shares = new ConcurrentHashMap<>();

    /** A gauge, and the circuit in which it is. */
    record OfGauge(Circuit circuit, Gauge gauge) {}

    private record Foretold(String check, double supplyVolts) {}

    CircuitFigures(VehicleDescription description, Predictions predictions, NetworkFaults network) {
        this.predictions = predictions;
        this.network = network;
        for (Suspect suspect : description.suspects()) {
            suspect.effect().ifPresent(e -> faults.put(suspect.id(), FaultSizes.of(e)));
        }
        for (Circuit circuit : description.circuits()) {
            circuit.gauges().forEach(g -> gauges.put(g.findingId(), new OfGauge(circuit, g)));
        }
    }

    /** The fault of a hypothesis, at its size; empty for one that is in no circuit. */
    Optional<Fault> fault(Hypothesis h) {
        List<Fault> its = faults(h.suspectId());
        return its.isEmpty() ? Optional.empty() : Optional.of(its.get(h.size()));
    }

    /** The fault of a suspect at each of its sizes; empty for one that is in no circuit. */
    List<Fault> faults(String suspectId) {
        return faults.getOrDefault(suspectId, List.of());
    }

    /** All gauges of the circuits. */
    Collection<OfGauge> gauges() {
        return gauges.values();
    }

    /** Into how many sizes the fault of a suspect is spread. */
    int sizes(Suspect suspect) {
        return Math.max(1, faults(suspect.id()).size());
    }

    /** The gauge of which a finding tells, if it tells of one. */
    Optional<OfGauge> gauge(String findingId) {
        return Optional.ofNullable(gauges.get(findingId));
    }

    /** Ids of all parts of a circuit. */
    Set<String> parts(String circuitId) {
        return predictions.parts(circuitId);
    }

    /** What each hypothesis foretold of a figure that was read. */
    Optional<Normal[]> read(Evidence piece, Hypotheses under) {
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

    /** What each hypothesis foretells of a figure that a check would read. */
    Normal[] foretold(Check check, Hypotheses under, double supplyVolts) {
        // it depends on nothing that is found; a supply that drifts makes ever new figures
        if (foretold.size() > MOST_FORETOLD) {
            foretold.clear();
        }
        return foretold.computeIfAbsent(
                new Foretold(check.key(), supplyVolts),
                k -> normals(under, figure(check, supplyVolts)));
    }

    /** Probability that a gauge shows a band. */
    double[] chances(OfGauge its, Band band, Hypotheses under) {
        double[] shares = shares(its, under);
        Shown shown = Shown.of(its.gauge(), band);
        double[] chances = new double[shares.length];
        for (int i = 0; i < chances.length; i++) {
            double anything = Odds.anything(under.get(i));
            // most hypotheses are of other circuits, and leave this one as it is
            boolean again =
                    i > 0
                            && shares[i] == shares[i - 1]
                            && anything == Odds.anything(under.get(i - 1));
            chances[i] = again ? chances[i - 1] : shown.chance(shares[i], anything);
        }
        return chances;
    }

    /** Probability that a gauge shows one of some bands with a fault; 0 for one elsewhere. */
    double chance(OfGauge its, Predicate<Band> bands, Fault fault) {
        if (!parts(its.circuit().id()).contains(fault.part())) {
            return 0;
        }
        double share = predictions.share(its.circuit(), its.gauge(), Optional.of(fault));
        return its.gauge().bands().stream()
                .filter(bands)
                .mapToDouble(band -> Shown.of(its.gauge(), band).chance(share, 0))
                .sum();
    }

    /** Probability of each band of a gauge under all hypotheses. */
    Outcomes outcomes(OfGauge its, Hypotheses under) {
        double[] shares = shares(its, under);
        int[] column = new int[shares.length];
        int[] first = new int[shares.length];
        int columns = 0;
        for (int i = 0; i < column.length; i++) {
            // most hypotheses are of other circuits, and leave this one as it is
            if (i == 0
                    || shares[i] != shares[i - 1]
                    || Odds.anything(under.get(i)) != Odds.anything(under.get(i - 1))) {
                first[columns++] = i;
            }
            column[i] = columns - 1;
        }
        List<Band> bands = its.gauge().bands();
        double[][] chances = new double[bands.size()][columns];
        for (int b = 0; b < chances.length; b++) {
            Shown shown = Shown.of(its.gauge(), bands.get(b));
            for (int c = 0; c < columns; c++) {
                chances[b][c] = shown.chance(shares[first[c]], Odds.anything(under.get(first[c])));
            }
        }
        return new Outcomes(column, chances);
    }

    /** Probability that a gauge shows a band under some of the hypotheses, in their order. */
    double[] chances(OfGauge its, Band band, Hypotheses under, int[] some) {
        double[] shares = shares(its, under);
        Shown shown = Shown.of(its.gauge(), band);
        return Arrays.stream(some)
                .mapToDouble(i -> shown.chance(shares[i], Odds.anything(under.get(i))))
                .toArray();
    }

    /** A band of a gauge, between the shares at which it begins and ends. */
    private record Shown(double begin, double end, double blur, int bands) {
        static Shown of(Gauge gauge, Band band) {
            return new Shown(
                    gauge.begin(band), gauge.end(band), blurOf(gauge), gauge.bands().size());
        }

        /** Probability that it shows while the gauge stands at this share. */
        double chance(double share, double anything) {
            double p =
                    Normal.cumulated((end - share) / blur)
                            - Normal.cumulated((begin - share) / blur);
            return (1 - anything) * p + anything / bands;
        }
    }

    /**
     * What two faults in its circuit let a reading or a gauge show; nothing for any other piece.
     */
    OptionalDouble both(Evidence piece, Hypothesis first, Hypothesis second) {
        Optional<Fault> one = fault(first);
        Optional<Fault> other = fault(second);
        if (one.isEmpty() || other.isEmpty()) {
            return OptionalDouble.empty();
        }
        double anything = Odds.anything(first);
        if (piece instanceof Evidence.Reading r) {
            return volts(r, first, second)
                    .map(f -> OptionalDouble.of(Math.log(f.density(r.volts(), anything))))
                    .orElse(OptionalDouble.empty());
        }
        OfGauge its = piece instanceof Evidence.Outcome o ? gauges.get(o.findingId()) : null;
        if (its == null || !predictions.inOne(its.circuit().id(), one.get(), other.get())) {
            return OptionalDouble.empty();
        }
        Band band = its.gauge().band(((Evidence.Outcome) piece).outcomeId()).orElseThrow();
        double share = predictions.share(its.circuit(), its.gauge(), one.get(), other.get());
        return OptionalDouble.of(Math.log(Shown.of(its.gauge(), band).chance(share, anything)));
    }

    /** What a point reads with two faults that stand in its circuit; empty where one does not. */
    Optional<Normal> volts(Evidence.Reading r, Hypothesis first, Hypothesis second) {
        Optional<Fault> one = fault(first);
        Optional<Fault> other = fault(second);
        return one.isPresent()
                        && other.isPresent()
                        && predictions.inOne(r.circuitId(), one.get(), other.get())
                ? Optional.of(predictions.reading(r, one.get(), other.get()))
                : Optional.empty();
    }

    private static double blurOf(Gauge gauge) {
        return switch (gauge.by()) {
            case DRIVER, SWITCHED_OFF, HANDS, LEAD -> SEEN_SHARE;
            case MODULE, ANSWERS, INSTRUMENT -> READ_SHARE;
            // an armature moves or does not, and its contacts with it
            case METER, ARMATURE -> METER_SHARE;
            case OHMMETER -> OHM_SHARE;
            case CLAMP -> AMP_SHARE;
        };
    }

    private double[] shares(OfGauge its, Hypotheses under) {
        return shares.computeIfAbsent(its.gauge().findingId(), f -> under.each(h -> share(its, h)));
    }

    /** What cannot be asked tells nothing of its supply, whatever the reason. */
    private double share(OfGauge its, Hypothesis h) {
        Gauge gauge = its.gauge();
        return gauge.feedsModule() && network.isSilent(h, gauge.module())
                ? 0
                : predictions.share(its.circuit(), gauge, fault(h));
    }

    /**
     * What is foretold of a figure.
     *
     * @param moving ids of the parts that, broken, may change it
     * @param of the figure with a fault
     */
    private record Foretells(Set<String> moving, Function<Optional<Fault>, Normal> of) {}

    private Optional<Foretells> figure(Evidence piece) {
        if (piece instanceof Evidence.Reading r) {
            Set<String> moving = predictions.moving(r.circuitId(), r.pointId());
            Optional<Sensed> sensed = predictions.sensed(r);
            return Optional.of(
                    sensed.isPresent()
                            ? new Foretells(moving, f -> predictions.reading(r, sensed.get(), f))
                            : new Foretells(
                                    moving,
                                    f ->
                                            predictions.reading(
                                                    r.circuitId(),
                                                    r.pointId(),
                                                    r.load(),
                                                    r.moving(),
                                                    r.supplyVolts(),
                                                    f)));
        }
        Evidence.Run run = (Evidence.Run) piece;
        return predictions.knows(run.actuatorId())
                ? Optional.of(
                        new Foretells(
                                predictions.moving(run.actuatorId()),
                                f ->
                                        predictions.run(
                                                run.actuatorId(),
                                                run.together(),
                                                run.supplyVolts(),
                                                f)))
                : Optional.empty();
    }

    private Foretells figure(Check check, double supplyVolts) {
        if (check instanceof Check.Run run) {
            return new Foretells(
                    predictions.moving(run.actuator()),
                    f -> predictions.run(run.actuator(), run.of(), supplyVolts, f));
        }
        Check.Reading r = (Check.Reading) check;
        return new Foretells(
                predictions.moving(r.circuit(), r.point()),
                f ->
                        predictions.reading(
                                r.circuit(), r.point(), r.load(), r.moving(), supplyVolts, f));
    }

    /** Most hypotheses are of parts that leave a figure as it is, and foretell the very same. */
    private Normal[] normals(Hypotheses under, Foretells figure) {
        Normal[] normals = new Normal[under.size()];
        Normal well = figure.of().apply(Optional.empty());
        Optional<Fault> before = Optional.empty();
        for (int i = 0; i < normals.length; i++) {
            Optional<Fault> fault =
                    fault(under.get(i)).filter(f -> figure.moving().contains(f.part()));
            // as all that is open does
            boolean again = i > 0 && fault.equals(before);
            normals[i] = fault.isEmpty() ? well : again ? normals[i - 1] : figure.of().apply(fault);
            before = fault;
        }
        return normals;
    }
}
