package brightlantern.core.proof;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.ExpectedReading;
import brightlantern.core.circuit.HungOn;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * A figure that was wrong before a repair, its limits, and what it was afterwards.
 *
 * @param what was measured, and under which condition
 * @param unit of all its figures
 * @param low least that is right; NaN where it has no such end
 * @param high most that is right
 * @param before the repair; infinite when it never came to an end
 * @param after the repair; NaN when it was not measured again
 */
public record BeforeAfter(
        String what, String unit, double low, double high, double before, double after) {

    /**
     * Of all readings of a meter and all runs of an actuator that failed before a repair, the
     * newest of each, in the order in which they were done.
     *
     * @param repaired when it was; after everything when nothing was repaired
     */
    public static List<BeforeAfter> of(
            VehicleDescription d, List<ProofRecord.DatedFinding> findings, Instant repaired) {
        Map<String, Evidence> failed = new LinkedHashMap<>();
        Map<String, Evidence> again = new LinkedHashMap<>();
        for (ProofRecord.DatedFinding f : findings) {
            f.evidence()
                    .ifPresent(
                            e -> {
                                if (!f.at().isBefore(repaired)) {
                                    again.put(e.key(), e);
                                } else if (f.failed()) {
                                    failed.put(e.key(), e);
                                }
                            });
        }
        return failed.entrySet().stream()
                .flatMap(
                        f ->
                                figure(d, f.getValue(), Optional.ofNullable(again.get(f.getKey())))
                                        .stream())
                .toList();
    }

    /** Whether the figure after the repair is right. */
    public boolean holds() {
        return after <= high && !(after < low);
    }

    /** A figure of it as people read it. */
    public String told(double figure) {
        if (Double.isNaN(figure)) {
            return "not measured again";
        }
        return Double.isInfinite(figure)
                ? "never"
                : String.format(Locale.ROOT, "%.2f %s", figure, unit);
    }

    private static Optional<BeforeAfter> figure(
            VehicleDescription d, Evidence before, Optional<Evidence> after) {
        if (before instanceof Evidence.Reading was) {
            double is =
                    after.stream()
                            .flatMap(e -> e instanceof Evidence.Reading r ? Stream.of(r) : null)
                            .mapToDouble(Evidence.Reading::volts)
                            .findFirst()
                            .orElse(Double.NaN);
            return d.circuits().stream()
                    .filter(c -> c.id().equals(was.circuitId()))
                    .filter(c -> c.points().stream().anyMatch(p -> p.id().equals(was.pointId())))
                    .filter(c -> new HungOn(c, was.pointId()).offered().contains(condition(was)))
                    .findFirst()
                    .map(c -> reading(d, c, was, is));
        }
        if (before instanceof Evidence.Run was) {
            double is =
                    after.stream()
                            .flatMap(e -> e instanceof Evidence.Run r ? Stream.of(r) : null)
                            .mapToDouble(r -> seconds(r.moveSeconds()))
                            .findFirst()
                            .orElse(Double.NaN);
            return d.actuators().stream()
                    .filter(a -> a.id().equals(was.actuatorId()) && a.moveSeconds() > 0)
                    .findFirst()
                    .map(a -> run(a, was, is));
        }
        return Optional.empty();
    }

    private static BeforeAfter run(Actuator a, Evidence.Run was, double is) {
        return new BeforeAfter(
                a.name() + ", time for its travel",
                "s",
                Double.NaN,
                a.moveSeconds(),
                seconds(was.moveSeconds()),
                is);
    }

    private static double seconds(double move) {
        return move < 0 ? Double.POSITIVE_INFINITY : move;
    }

    private static ProbeCondition condition(Evidence.Reading was) {
        return new ProbeCondition(Load.named(was.load()), was.moving().stream().findFirst());
    }

    private static BeforeAfter reading(
            VehicleDescription d, Circuit circuit, Evidence.Reading was, double is) {
        ProbeCondition condition = condition(was);
        ExpectedReading right =
                condition.healthy(
                        new SharedPoints(d.circuits()), circuit, was.pointId(), was.supplyVolts());
        return new BeforeAfter(
                circuit.point(was.pointId()).name() + ", " + condition.name(circuit),
                "V",
                right.low(),
                right.high(),
                was.volts(),
                is);
    }
}
