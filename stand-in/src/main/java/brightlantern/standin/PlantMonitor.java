package brightlantern.standin;

import brightlantern.standin.plant.Part;
import brightlantern.standin.plant.Whole;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;

/**
 * A monitor of a module: it reports once it saw what it takes for a fault, or saw none of it, for
 * long enough under its conditions.
 */
final class PlantMonitor {
    /** Below this the vehicle stands, above it it is under load, km/h. */
    private static final double STANDS_KMH = 2;

    private static final double LOADED_KMH = 40;

    /** When it looks. */
    enum When {
        KEY_ON(w -> w.driver().key() == 2),
        RUNNING(Whole::running),
        IDLE(w -> w.running() && w.kilometresPerHour() < STANDS_KMH),
        LOADED(w -> w.running() && w.kilometresPerHour() > LOADED_KMH);

        private final Predicate<Whole> holds;

        When(Predicate<Whole> holds) {
            this.holds = holds;
        }

        static When named(String name) {
            return valueOf(name.toUpperCase(Locale.ROOT).replace('-', '_'));
        }
    }

    /** What it takes for a fault. */
    @FunctionalInterface
    interface Sign {
        boolean fails(Function<String, Optional<Double>> readings, double seconds);
    }

    private final String module;
    private final String code;
    private final When when;
    private final Sign sign;
    private final double seconds;

    /** For how long its conditions have held, and for how long of that it saw a fault. */
    private double held;

    private double failing;

    /**
     * @param seconds for which it must have seen the fault, or none
     */
    PlantMonitor(String module, String code, When when, Sign sign, double seconds) {
        this.module = module;
        this.code = code;
        this.when = when;
        this.sign = sign;
        this.seconds = seconds;
    }

    String module() {
        return module;
    }

    String code() {
        return code;
    }

    /** Whether it has just found the fault. */
    boolean step(
            Whole whole,
            Function<String, Optional<Double>> readings,
            double dt,
            Part.Watcher watcher) {
        held = when.holds.test(whole) ? held + dt : 0;
        failing = held > 0 && sign.fails(readings, whole.seconds()) ? failing + dt : 0;
        if (failing >= seconds && failing < seconds + dt) {
            watcher.report(module, code, true);
            return true;
        }
        if (held >= seconds && failing == 0) {
            held = 0;
            watcher.report(module, code, false);
        }
        return false;
    }

    void reset() {
        held = 0;
        failing = 0;
    }
}
