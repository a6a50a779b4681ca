package brightlantern.standin.plant;

import java.util.Map;
import java.util.function.DoubleSupplier;

/** A part of a vehicle with physics and sensors of its own, stepped beside the whole. */
public interface Part {
    /**
     * @param dt seconds, at most 0.01 while the engine turns
     */
    void step(Whole whole, double dt);

    /** Its sensors: value id → reading in the value's own unit. */
    Map<String, DoubleSupplier> sensors();

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
