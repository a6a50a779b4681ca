package brightlantern.app.probe;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.ProbePoint;
import java.util.List;

/**
 * The page of readings at a point of a circuit.
 *
 * @param circuits all sheets of the vehicle
 * @param answer what the readings so far come to
 * @param supply volts, as text
 * @param condition id of the chosen one
 * @param common names of the segments that all motors share; empty when none are
 * @param hidden resistances that two readings give away, in words
 */
record ProbeView(
        List<SheetLink> circuits,
        Circuit circuit,
        ProbePoint point,
        String answer,
        String supply,
        List<Condition> conditions,
        String condition,
        CircuitSheet sheet,
        String common,
        List<String> hidden,
        List<Taken> taken) {
    /** A sheet of the vehicle that can be turned to. */
    record SheetLink(String id, String name, boolean here) {}

    /** A way to use the circuit while it is measured, and what a healthy one then reads. */
    record Condition(String id, String name, String expected) {}

    /** A reading that was taken. */
    record Taken(
            String at,
            String point,
            String condition,
            String volts,
            String expected,
            String verdict) {}
}
