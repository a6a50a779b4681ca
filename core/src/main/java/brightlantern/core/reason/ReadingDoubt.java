package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.ExpectedReading;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.Setting;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * What makes a reading worth a question before it counts: swapped leads, more than there is to
 * read, or what the point reads in another state than the one that was asked for.
 */
public final class ReadingDoubt {
    /** Nothing in a vehicle lies so far below battery minus, V. */
    private static final double BELOW_MINUS = 0.5;

    /** Nothing reads so much more than its supply, V. */
    private static final double ABOVE_SUPPLY = 1;

    /** What a state changes by less than this, V, cannot be told from scatter. */
    private static final double CHANGES = 1;

    /** Figures within this of each other, V, are the same. */
    private static final double SAME = 0.8;

    /** What was foretold more often than this surprises nobody. */
    private static final double FORETOLD = 0.02;

    private final Plan plan;
    private final VehicleDescription description;

    /**
     * @param plan of what readings may come to in the vehicle
     */
    public ReadingDoubt(Plan plan, VehicleDescription description) {
        this.plan = plan;
        this.description = description;
    }

    /**
     * The question, if there is one.
     *
     * @param volts that were read
     * @param found what was found before
     */
    public Optional<String> of(
            Circuit circuit,
            String point,
            ProbeCondition condition,
            double volts,
            double supplyVolts,
            List<Evidence> found) {
        if (volts < -BELOW_MINUS) {
            return Optional.of(
                    String.format(
                            Locale.ROOT,
                            "%.2f V lies below battery minus. Are the leads swapped? Black belongs on battery minus.",
                            volts));
        }
        if (volts > supplyVolts + ABOVE_SUPPLY) {
            return Optional.of(
                    String.format(
                            Locale.ROOT,
                            "%.2f V is more than the supply of %.2f V. Is the range right, and does black sit on battery minus?",
                            volts,
                            supplyVolts));
        }
        return condition
                .moving()
                .flatMap(circuit::setting)
                .filter(s -> isAsWithout(circuit, point, condition, volts, supplyVolts))
                .filter(s -> surprises(circuit, point, condition, volts, supplyVolts, found))
                .map(s -> otherState(s, volts));
    }

    private boolean isAsWithout(
            Circuit circuit, String point, ProbeCondition condition, double volts, double supply) {
        SharedPoints shared = new SharedPoints(description.circuits());
        ExpectedReading with = condition.healthy(shared, circuit, point, supply);
        ExpectedReading without =
                new ProbeCondition(Load.NOTHING, Optional.empty())
                        .healthy(shared, circuit, point, supply);
        return Math.abs(with.volts() - without.volts()) > CHANGES
                && !with.holds(volts)
                && without.holds(volts);
    }

    /** Whether what is known hardly lets it be. */
    private boolean surprises(
            Circuit circuit,
            String point,
            ProbeCondition condition,
            double volts,
            double supply,
            List<Evidence> found) {
        Check.Reading check =
                new Check.Reading(
                        "read",
                        "read",
                        "probe",
                        circuit.id(),
                        List.of(point),
                        condition.motors(),
                        condition.load().name().toLowerCase(Locale.ROOT),
                        0,
                        "");
        return plan.possible(check, found, supply).stream()
                        .filter(
                                p ->
                                        p.piece() instanceof Evidence.Reading r
                                                && Math.abs(r.volts() - volts) < SAME)
                        .mapToDouble(Possible::chance)
                        .sum()
                <= FORETOLD;
    }

    private static String otherState(Setting setting, double volts) {
        return String.format(
                Locale.ROOT,
                "%.2f V is what this point reads without \"%s\", and nothing that was found so far lets it be so. Is it so? %s, and read again.",
                volts,
                setting.name(),
                setting.does());
    }
}
