package brightlantern.standin.plant;

/** What the parts of a vehicle see of the vehicle that they sit in. */
public interface Whole {
    Driver driver();

    /** Seconds since it was made. */
    double seconds();

    boolean running();

    /** Whether its starter turns it. */
    boolean cranking();

    /** Whether the key is held at start, whatever turns then. */
    default boolean starting() {
        return cranking();
    }

    double rpm();

    double kilometresPerHour();

    /** °C. */
    double coolant();

    /** Volts at the battery. */
    double volts();

    /** Ohms from battery plus to the starter. */
    default double plusOhm() {
        return Supply.PLUS_OHM;
    }

    /** Ohms from the engine to battery minus. */
    default double earthOhm() {
        return Supply.EARTH_OHM;
    }

    /** Share of the torque that the engine can give, 0..1. */
    double load();
}
