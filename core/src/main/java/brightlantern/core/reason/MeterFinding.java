package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.TypedFigure;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Optional;
import java.util.function.DoubleFunction;

/**
 * A finding whose outcome follows from what a meter reads.
 *
 * @param unit in which it reads
 * @param outcome id of the outcome at a figure; infinite ohms are an overload
 */
public record MeterFinding(Finding finding, String unit, DoubleFunction<String> outcome) {
    private static final String OHM = "Ω";

    /** The finding of that id, when a meter tells it. */
    public static Optional<MeterFinding> of(VehicleDescription d, String findingId) {
        Optional<Finding> finding = d.finding(findingId);
        if (finding.isPresent() && WireOhms.isFinding(findingId)) {
            return Optional.of(new MeterFinding(finding.get(), OHM, WireOhms::outcome));
        }
        return d.circuits().stream()
                .flatMap(c -> c.gauges().stream())
                .filter(g -> g.findingId().equals(findingId))
                .filter(g -> g.isOhms() || g.isAcross() || g.isClamped())
                .findFirst()
                .flatMap(g -> finding.map(f -> of(d, f, g)));
    }

    /** Whether it can be read only while all modules sleep. */
    public boolean wantsKeyOff() {
        return WireOhms.isFinding(finding.id());
    }

    private static MeterFinding of(VehicleDescription d, Finding finding, Gauge g) {
        if (g.isOhms()) {
            return new MeterFinding(finding, OHM, ohm -> g.at(ohm / g.nominal()).id());
        }
        if (g.isClamped()) {
            Circuit circuit =
                    d.circuits().stream()
                            .filter(c -> c.gauges().contains(g))
                            .findFirst()
                            .orElseThrow();
            double full = g.amps(circuit, 1);
            return new MeterFinding(finding, "A", amps -> g.at(Math.abs(amps) / full).id());
        }
        return new MeterFinding(finding, "V", volts -> g.at(Math.abs(volts) / g.nominal()).id());
    }

    /**
     * What follows from what somebody typed.
     *
     * @throws IllegalArgumentException names the field, what was expected and what was found
     */
    public FindingOutcome read(String field, String typed) {
        boolean over = unit.equals(OHM) && TypedFigure.isOverload(typed);
        double figure = over ? Double.POSITIVE_INFINITY : TypedFigure.of(field, typed, unit);
        if (unit.equals(OHM) && figure < 0) {
            throw new IllegalArgumentException(
                    field
                            + ": nothing has "
                            + typed.trim()
                            + " Ω. Voltage at the pins does that: switch the supply off, unplug the part, and read again.");
        }
        return finding.outcome(outcome.apply(figure));
    }
}
