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
        double percentPerVoltSecond)
        implements Component {
    /** Electronics in each actuator, awake whenever its supply is on. */
    private static final double STANDBY_OHM = 1500;

    /** The same with so many times the load. */
    public MotorPart withDrag(double factor) {
        return new MotorPart(
                id, name, from, to, ohm, loadAmps * factor, dampAmpsPerVolt, percentPerVoltSecond);
    }

    @Override
    public Wear wear() {
        return Wear.GEARED_MOTOR;
    }

    @Override
    public boolean isLinear(OperatingState state) {
        return !state.moving().contains(id);
    }

    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        into.resistor(from, to, STANDBY_OHM);
        OperatingState.Drive drive = state.driven().get(id);
        if (drive != null && drive.duty() != 0) {
            double d = drive.duty();
            into.current(from, to, -d * drive.backEmf() / drive.ohm(), d * d / drive.ohm());
        } else if (state.moving().contains(id)) {
            Motor motor = Motor.of(this);
            // between stall and motion a motor is linear: only which of both it is must be found
            boolean stalls = motor.stallsAt(before.across(from, to, Double.POSITIVE_INFINITY));
            into.current(
                    from,
                    to,
                    stalls ? 0 : motor.movingAmps(),
                    stalls ? 1 / motor.ohm() : motor.movingSiemens());
        }
    }
}
