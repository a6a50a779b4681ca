package brightlantern.app.probe;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.ProbePoint;
import java.util.List;
import java.util.Map;

/**
 * The page of readings at a point of a circuit.
 *
 * @param circuits all sheets of the vehicle by their systems
 * @param answer what the readings so far come to
 * @param supply volts, as text
 * @param told what a module tells of the sensor whose signal is there, in words; empty for none
 * @param condition id of the chosen one
 * @param refused what is not to be hung on the point, in sentences
 * @param common names of the segments that all motors share; empty when none are
 * @param shares fuses, earths and plugs that other circuits have too
 * @param sensors of the circuit, round which one can walk
 * @param hidden resistances that two readings give away, in words
 */
record ProbeView(
        Map<String, List<SheetLink>> circuits,
        Circuit circuit,
        ProbePoint point,
        String answer,
        String supply,
        String told,
        List<Condition> conditions,
        String condition,
        List<String> refused,
        CircuitSheet sheet,
        String common,
        List<String> hidden,
        List<Shared> shares,
        List<Gauge> sensors,
        List<Taken> taken) {
    /** A sheet of the vehicle that can be turned to. */
    record SheetLink(String id, String name, boolean here) {}

    /**
     * A way to use the circuit while it is measured, and what a healthy one then reads.
     *
     * @param does what somebody does at the vehicle for it; empty for nothing
     */
    record Condition(String id, String name, String does, String expected) {}

    /** A part of the sheet that other circuits have too. */
    record Shared(String id, String part, List<SheetLink> with) {}

    /**
     * Something that was looked for, and the sheet with the point that shows it.
     *
     * @param part id of the part or connector that it is; empty for a sheet, value or point
     */
    record Found(String what, String circuit, String sheet, String point, String part) {}

    /** A reading that was taken. */
    record Taken(
            String at,
            String point,
            String condition,
            String volts,
            String expected,
            String verdict) {}
}
