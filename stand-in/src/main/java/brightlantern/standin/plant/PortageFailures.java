package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.Segment;
import brightlantern.standin.plant.Part.Failure;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * What can break in the van's own plant and is mended again: every segment of its harness, both
 * motors, a hose, and its supply; and what is seen of it by hand.
 */
final class PortageFailures {
    /** Sizes of faults that a driver feels. */
    private static final double LEAST_OHM = 0.6;

    private static final double MOST_OHM = 2.5;
    private static final double LEAST_DRAG = 1.25;
    private static final double MOST_DRAG = 1.5;
    private static final double LEAST_LEAK = 0.2;
    private static final double MOST_LEAK = 0.35;
    private static final double MOTOR_COMMON = 6;
    private static final double HOSE_COMMON = 8;

    /** What the hose is called, and what mends it. */
    private static final String HOSE = "boost-hose";

    private static final String SMOKE = "smoke";

    private final Circuit circuit;
    private final Faults faults;
    private final Supply supply;

    PortageFailures(Circuit circuit, Faults faults, Supply supply) {
        this.circuit = circuit;
        this.faults = faults;
        this.supply = supply;
    }

    /** What can be done at it, id → name. */
    static Map<String, String> acts() {
        return Map.of(SMOKE, "Blow smoke into the charge-air pipes", Supply.CLAMP, Supply.CLAMPS);
    }

    /** What is seen of an act; empty for none of these. */
    String seen(String act) {
        return switch (act) {
            case Supply.CLAMP -> supply.clamped();
            case SMOKE ->
                    faults.hoseLeak() > 0
                            ? "Smoke leaves the charge-air hose."
                            : "No smoke leaves the pipes.";
            default -> "";
        };
    }

    /**
     * Something breaks.
     *
     * @return false for what is none of its own
     */
    boolean fail(String mode, String of, double size) {
        if (Supply.MODES.contains(mode)) {
            supply.fail(mode, size);
            return true;
        }
        switch (mode) {
            case "series" -> faults.series(of, size);
            case "drag" -> faults.drag(of, size);
            case "hose-leak" -> faults.hoseLeak(size);
            case "trailer-lamp-open" -> faults.trailerLampOpen(true);
            default -> {
                return false;
            }
        }
        return true;
    }

    void mend(String repair) {
        faults.mend(repair);
        if (repair.equals(HOSE)) {
            faults.hoseLeak(0);
        }
    }

    /** All ways in which it can break of its own; its supply breaks as that of others does. */
    List<Failure> all() {
        List<Failure> all = new ArrayList<>();
        for (Segment s : circuit.segments()) {
            all.add(
                    new Failure(
                            "series",
                            s.id(),
                            LEAST_OHM,
                            MOST_OHM,
                            s.wear().common(),
                            s.name() + " " + s.wear().broken()));
        }
        for (MotorPart m : circuit.motors()) {
            all.add(
                    new Failure(
                            "drag",
                            m.id(),
                            LEAST_DRAG,
                            MOST_DRAG,
                            MOTOR_COMMON,
                            m.name() + " worn"));
        }
        all.add(
                new Failure(
                        "hose-leak",
                        HOSE,
                        LEAST_LEAK,
                        MOST_LEAK,
                        HOSE_COMMON,
                        "Charge-air hose leaks"));
        return all;
    }
}
