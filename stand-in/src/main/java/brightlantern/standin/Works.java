package brightlantern.standin;

import brightlantern.core.sound.Wav;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Part;
import brightlantern.wire.Bytes;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** What goes on inside a stand-in vehicle: its physics, its sensors and its own monitors. */
public interface Works {
    /** Takes a monitor's result. */
    interface Sink {
        void report(String module, String code, boolean failed);
    }

    /** Lets so many seconds pass. */
    void advance(double seconds);

    /** Time of the vehicle since it was made, in seconds; never goes back. */
    double seconds();

    Driver driver();

    void driver(Driver next);

    /** Turns the key to start. */
    void crank();

    boolean running();

    /** The warning lamp that the driver sees. */
    boolean warning();

    /** A sensor's reading at the newest moment, in the value's own unit; empty when unknown. */
    Optional<Double> reading(String valueId);

    /** Lets the monitors of its modules look at what happened in the last {@code seconds}. */
    void watch(double seconds, Sink sink);

    /** Codes that it watches itself, each as module and code with a blank between. */
    Set<String> monitored();

    /** The key was turned on: monitors begin anew. */
    void keyOn();

    /** Bytes of a mileage record; empty when its module has none. */
    default Optional<Bytes> mileage(String id) {
        return Optional.empty();
    }

    /** The codes of a module were cleared, and what it had learned. */
    default void cleared(String module) {}

    /** Its parts, with the outputs that modules can take over and the routines that they know. */
    default List<Part> parts() {
        return List.of();
    }

    /** What a microphone hears when its injectors click; empty while the engine runs. */
    default Optional<Wav> injectors() {
        return Optional.empty();
    }

    /** Codes (as numbers) that forbid a routine while they are stored. */
    default List<Integer> locks(int routine) {
        return List.of();
    }

    /** What else can be done at the vehicle, id → name. */
    default Map<String, String> acts() {
        return Map.of();
    }

    /** Does one of {@link #acts}. */
    default void act(String id) {}

    /** Offered repairs, id → name, beside those of the wires. */
    Map<String, String> repairs();

    /** Carries out a repair; it mends what it concerns, if that was broken. */
    void repair(String id);

    /** Modules whose stored VIN is another one. */
    default Map<String, String> foreignVins() {
        return Map.of();
    }

    /** Modules of the description that this vehicle was not built with. */
    default List<String> notFitted() {
        return List.of();
    }
}
