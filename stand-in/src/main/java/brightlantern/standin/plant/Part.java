package brightlantern.standin.plant;

import brightlantern.core.sound.Wav;
import brightlantern.wire.Bytes;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.DoubleSupplier;
import java.util.function.IntSupplier;
import java.util.function.Supplier;
import java.util.function.ToIntFunction;

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

    /**
     * An output whose own command counts until a tester gives another one.
     *
     * @param percent what the tester commands; empty while the module commands
     */
    final class Taken {
        private volatile OptionalDouble percent = OptionalDouble.empty();

        /** What counts now, in percent. */
        double or(double own) {
            return percent.orElse(own);
        }

        Outlet outlet(String module, int did, DoubleSupplier present, BooleanSupplier allowed) {
            return new Outlet(module, did, present, p -> percent = p, allowed);
        }
    }

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

        /** A routine that is done at once. */
        static Doing at(String module, IntSupplier start, Supplier<int[]> result) {
            return new Doing() {
                @Override
                public String module() {
                    return module;
                }

                @Override
                public int start() {
                    return start.getAsInt();
                }

                @Override
                public void stop() {
                    // it has ended by itself
                }

                @Override
                public int[] result() {
                    return result.get();
                }
            };
        }

        /** Begins; 0, or the negative response code of the refusal. */
        int start();

        void stop();

        /** Result bytes. */
        int[] result();
    }

    /**
     * What a module keeps and can be told anew (0x2E).
     *
     * @param write 0, or the negative response code of the refusal
     */
    record Memory(String module, int did, Supplier<int[]> read, ToIntFunction<int[]> write) {}

    /** What modules keep of this part. */
    default List<Memory> memories() {
        return List.of();
    }

    /** Takes what a module's own monitor found. */
    interface Watcher {
        void report(String module, String code, boolean failed);
    }

    /**
     * Lets the monitors of this part look at the last {@code seconds}, while the key is on.
     *
     * @param seconds since they looked before
     */
    default void watch(double seconds, Watcher watcher) {}

    /** Codes that its monitors set, each as module and code with a blank between. */
    default Set<String> monitored() {
        return Set.of();
    }

    /** What its circuits let it do is told here, for as long as it lives. */
    default void with(Means means) {}

    /** The key was turned on: monitors begin anew. */
    default void keyOn() {}

    /** Bytes of a mileage record that a module keeps; empty when this part has none of that id. */
    default Optional<Bytes> mileage(String id) {
        return Optional.empty();
    }

    /** Modules whose stored VIN is another one. */
    default Map<String, String> foreignVins() {
        return Map.of();
    }

    /** What a microphone hears when its injectors click; empty for a part without injectors. */
    default Optional<Wav> injectors(Whole whole) {
        return Optional.empty();
    }

    /**
     * A way in which it can break.
     *
     * @param of which of several; empty where there is one only
     * @param least and most size, in the unit of the mode
     * @param common how often it happens, relative to others of the same vehicle
     * @param name what is broken then, in words
     */
    record Failure(String mode, String of, double least, double most, double common, String name) {
        /** The same, so many times as common. */
        public Failure timesAsCommon(double factor) {
            return new Failure(mode, of, least, most, common * factor, name);
        }
    }

    /** All ways in which it can break of its own. */
    default List<Failure> failures() {
        return List.of();
    }

    /**
     * Something breaks.
     *
     * @param mode in which way
     * @param of which of several, such as a cylinder; empty where there is one only
     * @param size in the unit of the mode
     * @throws IllegalArgumentException when this part cannot break so
     */
    default void fail(String mode, String of, double size) {
        throw new IllegalArgumentException(
                getClass().getSimpleName() + " cannot break by '" + mode + "'");
    }

    /** The codes of the engine module were cleared, and what it had learned. */
    default void cleared() {}

    /** What can be done at it, id → name. */
    default Map<String, String> acts() {
        return Map.of();
    }

    /** Does one of {@link #acts}; what is seen of it, in words, or nothing. */
    default String act(String id) {
        return "";
    }

    /** A repair was carried out; it concerns this part or not. */
    default void mend(String repair) {}
}
