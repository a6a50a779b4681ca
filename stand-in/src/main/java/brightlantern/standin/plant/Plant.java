package brightlantern.standin.plant;

import brightlantern.core.circuit.Load;
import java.util.OptionalDouble;

/**
 * What moves a vehicle: engine, drive line, road and supply. It is a part with faults as others.
 */
public interface Plant extends Whole, Part {
    void driver(Driver next);

    /** Turns the key to start. */
    void crank();

    /** The act of turning it by the starter with its fuel off. */
    String CRANK_ONLY = "crank-only";

    /** So long, in seconds. */
    double CRANK_ONLY_SECONDS = 6;

    /** An engine that lacks what it needs goes on for so long, in seconds. */
    double STARVES_SECONDS = 1.5;

    /** What is said of it where the key is off. */
    String NEEDS_KEY = "The key has to be on and the engine off.";

    /** Interior lamps and awake modules go on drawing current. */
    void doorsOpen(boolean now);

    /** Volts of its battery over the next {@code seconds}, evenly sampled. */
    double[] supplyWave(double seconds, int count);

    double kilometres();

    double hours();

    /** Lets so many seconds pass; may be long while nothing runs, as overnight. */
    void step(double dt);

    /** It is the whole itself. */
    @Override
    default void step(Whole whole, double dt) {
        step(dt);
    }

    /** Whether the driver sees a warning lamp. */
    default boolean warning() {
        return false;
    }

    /**
     * Volts at a point of its circuits against battery minus; empty when there is no such point.
     */
    default OptionalDouble volts(String point) {
        return OptionalDouble.empty();
    }

    /** Hangs a load between a point of its circuits and the other battery pole. */
    default void hang(String point, Load load) {
        throw new IllegalArgumentException("There is no circuit with a point " + point);
    }

    /** Whether a wire, contact or cable with this id is in its circuits. */
    default boolean isWired(String segment) {
        return false;
    }

    /** Whether it has circuits that can be probed. */
    default boolean hasCircuits() {
        return false;
    }
}
