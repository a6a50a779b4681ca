package brightlantern.standin.plant;

import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.DoubleSupplier;

/** A part of a vehicle with physics and sensors of its own, stepped beside the whole. */
public interface Part {
    /**
     * @param dt seconds, at most 0.01 while the engine turns
     */
    void step(Whole whole, double dt);

    /** Its sensors: value id → reading in the value's own unit. */
    Map<String, DoubleSupplier> sensors();

    /**
     * An output of a module that acts on this part.
     *
     * @param present percent
     * @param take percent, or nothing to give it back
     */
    record Outlet(
            String module,
            int did,
            DoubleSupplier present,
            Consumer<OptionalDouble> take,
            BooleanSupplier allowed) {}

    /** What modules can take over at this part. */
    default List<Outlet> outlets() {
        return List.of();
    }

    /** Routine identifier → what a module does with this part when asked. */
    default Map<Integer, Doing> doings() {
        return Map.of();
    }

    /** A routine of a module. */
    interface Doing {
        String module();

        /** Begins; 0, or the negative response code of the refusal. */
        int start();

        void stop();

        /** Result bytes. */
        int[] result();
    }

    /** The codes of the engine module were cleared, and what it had learned. */
    default void cleared() {}

    /** What can be done at it, id → name. */
    default Map<String, String> acts() {
        return Map.of();
    }

    /** Does one of {@link #acts}. */
    default void act(String id) {}

    /** A repair was carried out; it concerns this part or not. */
    default void mend(String repair) {}
}
