package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.TypedFigure;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.DoubleFunction;

/**
 * A finding whose outcome follows from what a meter reads.
 *
 * @param unit in which it reads
 * @param places where a meter that switches its lead finds it: one, or two ends between which the
 *     volts count
 * @param outcome id of the outcome at a figure; infinite ohms are an overload
 */
public record MeterFinding(
        Finding finding, String unit, List<String> places, DoubleFunction<String> outcome) {
    /** Units in which a meter reads. */
    public static final String OHM = "Ω";

    public static final String AMPERE = "A";
    private static final String VOLT = "V";
    private static final double KILO = 1000;

    /** What a clamp shows of itself. */
    private static final double LEAST_AMPS = 0.05;

    /** The finding of that id, when a meter tells it. */
    public static Optional<MeterFinding> of(VehicleDescription d, String findingId) {
        Optional<Finding> finding = d.finding(findingId);
        if (finding.isPresent() && WireOhms.isFinding(findingId)) {
            return Optional.of(
                    new MeterFinding(finding.get(), OHM, List.of(findingId), WireOhms::outcome));
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
            return new MeterFinding(
                    finding, OHM, List.of(g.id()), ohm -> g.at(ohm / g.nominal()).id());
        }
        if (g.isClamped()) {
            Circuit circuit =
                    d.circuits().stream()
                            .filter(c -> c.gauges().contains(g))
                            .findFirst()
                            .orElseThrow();
            double full = g.amps(circuit, 1);
            return new MeterFinding(
                    finding, AMPERE, List.of(g.id()), amps -> g.at(Math.abs(amps) / full).id());
        }
        return new MeterFinding(
                finding,
                VOLT,
                List.of(g.from(), g.to()),
                volts -> g.at(Math.abs(volts) / g.nominal()).id());
    }

    /** Whether a figure may mean only that nothing is switched on. */
    public boolean mayBeOff(double figure) {
        return unit.equals(AMPERE) && !(Math.abs(figure) > LEAST_AMPS);
    }

    /** What follows from what a meter read, in its unit; infinite for an overload. */
    public FindingOutcome outcomeOf(double figure) {
        return finding.outcome(outcome.apply(figure));
    }

    /** A figure as it is told. */
    public String told(double figure) {
        if (Double.isInfinite(figure)) {
            return "overload";
        }
        return figure >= KILO
                ? String.format(Locale.ROOT, "%.3g k%s", figure / KILO, unit)
                : String.format(Locale.ROOT, "%.3g %s", figure, unit);
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
        return outcomeOf(figure);
    }
}
