package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.Segment;
import brightlantern.standin.plant.Part.Failure;
import java.util.ArrayList;
import java.util.List;

/** What can break in the van's own plant: every segment of its harness, both motors, a hose. */
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
    static final String HOSE = "boost-hose";

    private PortageFailures() {}

    static List<Failure> of(Circuit circuit) {
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
