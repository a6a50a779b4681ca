package brightlantern.core.circuit;

/** A motor between two points; see {@link brightlantern.core.circuit.Motor} for the figures. */
public record MotorPart(
        String id,
        String name,
        String from,
        String to,
        double ohm,
        double loadAmps,
        double dampAmpsPerVolt,
        double percentPerVoltSecond) {}
