package brightlantern.standin;

import brightlantern.core.circuit.Load;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Driver;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;

/**
 * Vehicles of all kinds to measure on, each with a scatter of its own, and what is known of them.
 */
final class Yard {
    /** Of so many vehicles one is built anew. */
    private static final int NEW_ONE = 8;

    /** The serial number of those that many tests share. */
    private static final int SHARED = 4711;

    private static final Yard COMMON = new Yard(null);

    private final Random random;
    private final Map<String, StandInVehicle> standing = new HashMap<>();

    Yard(Random random) {
        this.random = random;
    }

    /** One for all tests of a process: its vehicles are built once, and are always the same. */
    static Yard common() {
        return COMMON;
    }

    VehicleDescription vehicle(String id) {
        return Shipped.derived(id);
    }

    Reasoners reasoners(String id) {
        return Shipped.reasoners(id);
    }

    /** Id of one of them. */
    String drawn() {
        return drawn(random);
    }

    /** Id of one of them, by somebody's own dice. */
    String drawn(Random random) {
        List<String> ids =
                Shipped.library().descriptions().stream()
                        .map(VehicleDescription::id)
                        .sorted()
                        .toList();
        return ids.get(random.nextInt(ids.size()));
    }

    /** A vehicle as built; now and then another one of its kind, with a scatter of its own. */
    synchronized StandInVehicle built(String id) {
        if (random == null) {
            standing.computeIfAbsent(id, i -> StandIns.of(vehicle(i), StandIns.AS_BUILT, SHARED));
        } else if (!standing.containsKey(id) || random.nextInt(NEW_ONE) == 0) {
            standing.put(
                    id, StandIns.of(vehicle(id), StandIns.AS_BUILT, 100 + random.nextInt(800_000)));
        }
        StandInVehicle v = standing.get(id);
        v.whole();
        left(v);
        return v;
    }

    /** Another one of its kind, with its key on, that is nobody else's. */
    StandInVehicle fresh(String id) {
        StandInVehicle v =
                StandIns.of(vehicle(id), StandIns.AS_BUILT, 100 + random.nextInt(800_000));
        left(v);
        return v;
    }

    /** As somebody left it who has put all back: switched off, plugged, and with its key on. */
    private static void left(StandInVehicle v) {
        v.simulation().hang("", Load.NOTHING);
        v.simulation()
                .circuits()
                .ifPresent(c -> c.settings().keySet().forEach(s -> c.set(s, false)));
        Driver on = Driver.away().key(2);
        if (v.simulation().running() || !v.simulation().driver().equals(on)) {
            v.driver(Driver.away());
            v.live(1);
            v.driver(on);
            v.live(1);
        }
    }

    /** Tells a figure of a bench, and whether it is what was wanted. */
    static void line(String bench, String what, double value, String wanted, boolean meets) {
        System.out.printf(
                Locale.ROOT,
                "bench: %s %s: %.3g (wanted %s) %s%n",
                bench,
                what,
                value,
                wanted,
                meets ? "meets" : "misses");
    }
}
