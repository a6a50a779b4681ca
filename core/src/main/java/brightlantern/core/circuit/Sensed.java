package brightlantern.core.circuit;

import brightlantern.core.signal.Value;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * A sensor whose signal is at a point, with what its module tells meanwhile. Nobody knows what it
 * feels; but whatever is broken, it feels what lets the module tell just that.
 *
 * @param circuit in which it is
 * @param gauge by which its module reads it
 * @param its characteristic
 * @param told figure of its value
 */
public record Sensed(Circuit circuit, Gauge gauge, Characteristic its, double told) {
    /** It is solved at so many shares that the sensor may tell; between them it is straight. */
    private static final int SOLVED = 7;

    private static final int BETWEEN = 8;

    /** A module tells a share so finely, and a moment earlier or later. */
    private static final double TOLD_SHARE = 0.012;

    /** Less than this is no way in which the module could tell what it told. */
    private static final double NEVER = 1e-9;

    /**
     * The value that tells what the sensor feels whose signal is at a point.
     *
     * @return nothing where the point carries no sensor's signal, or nobody tells it
     */
    public static Optional<String> valueAt(Circuit circuit, String point) {
        return gaugeAt(circuit, point).map(Gauge::value);
    }

    private static Optional<Gauge> gaugeAt(Circuit circuit, String point) {
        return circuit.sources().isEmpty()
                ? Optional.empty()
                : circuit.gauges().stream()
                        .filter(g -> g.by() == Gauge.By.MODULE && !g.value().isEmpty())
                        .filter(g -> signal(circuit, g.from()).contains(point))
                        .findFirst();
    }

    /**
     * The points between a sensor and the pin of its module.
     *
     * @param sensor id of the part
     * @return none where the circuit has no such sensor
     */
    public static Set<String> signalOf(Circuit circuit, String sensor) {
        return circuit.gauges().stream()
                .filter(g -> g.by() == Gauge.By.MODULE && g.part().equals(sensor))
                .findFirst()
                .map(g -> signal(circuit, g.from()))
                .orElse(Set.of());
    }

    private static Set<String> signal(Circuit circuit, String pin) {
        Set<String> its = new HashSet<>(Set.of(pin));
        boolean grows = true;
        while (grows) {
            grows = false;
            for (Segment s : circuit.segments()) {
                if (s.kind() != SegmentKind.DRIVER
                        && (its.contains(s.from()) || its.contains(s.to()))) {
                    grows |= its.add(s.from()) | its.add(s.to());
                }
            }
        }
        return its;
    }

    /**
     * The sensor at a point.
     *
     * @param values by their ids
     * @param told value → what its module told
     * @return nothing where the point carries no sensor's signal, or nobody told it
     */
    public static Optional<Sensed> at(
            Circuit circuit,
            String point,
            Function<String, Optional<Value>> values,
            Map<String, Double> told) {
        if (told.isEmpty()) {
            return Optional.empty();
        }
        return gaugeAt(circuit, point)
                .filter(g -> told.containsKey(g.value()))
                .flatMap(
                        g ->
                                values.apply(g.value())
                                        .flatMap(v -> Characteristic.of(circuit, g, v))
                                        .map(c -> new Sensed(circuit, g, c, told.get(g.value()))));
    }

    /**
     * What a meter reads at a point.
     *
     * @param supplyVolts at the battery
     * @param faults in the circuit
     * @param solved the circuit with these faults, by what its sensors feel
     */
    public ExpectedReading reads(
            String point,
            double supplyVolts,
            Collection<? extends Fault> faults,
            Function<Map<String, Double>, Voltages> solved) {
        double[] volts = new double[SOLVED];
        double[] arrives = new double[SOLVED];
        double one = its.shareAt(its.least());
        double other = its.shareAt(its.most());
        for (int i = 0; i < SOLVED; i++) {
            double felt = one + (other - one) * i / (SOLVED - 1);
            Voltages at = solved.apply(its.at(felt));
            volts[i] = at.at(point);
            arrives[i] = gauge.share(circuit, at, faults);
        }
        double share = its.shareAt(told);
        double sum = 0;
        double first = 0;
        double second = 0;
        double nearest = Double.POSITIVE_INFINITY;
        double there = volts[0];
        for (int i = 0; i + 1 < SOLVED; i++) {
            for (int k = 0; k <= BETWEEN; k++) {
                double way = k / (double) BETWEEN;
                double v = volts[i] + (volts[i + 1] - volts[i]) * way;
                double off =
                        (its.seen(arrives[i] + (arrives[i + 1] - arrives[i]) * way) - share)
                                / TOLD_SHARE;
                double weight = Math.exp(-0.5 * off * off);
                sum += weight;
                first += weight * v;
                second += weight * v * v;
                if (Math.abs(off) < nearest) {
                    nearest = Math.abs(off);
                    there = v;
                }
            }
        }
        if (sum < NEVER) {
            return ExpectedReading.told(circuit, point, supplyVolts, there);
        }
        double mean = first / sum;
        double spread = Math.sqrt(Math.max(0, second / sum - mean * mean));
        return ExpectedReading.told(circuit, point, supplyVolts, mean).among(spread);
    }

    /**
     * What a meter reads at a point while nothing is broken.
     *
     * @param state of the circuit, but for what its sensors feel
     */
    public ExpectedReading healthy(String point, OperatingState state) {
        return reads(
                point,
                state.supplyVolts(),
                List.of(),
                felt -> new FaultTable(circuit, state.feeling(felt)).with(Optional.empty()));
    }
}
