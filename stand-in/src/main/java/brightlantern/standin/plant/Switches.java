package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.OperatingState;
import brightlantern.core.circuit.Setting;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;

/** What somebody has switched on, unplugged and hung on in the circuits of a vehicle. */
final class Switches {
    private final Map<String, Setting> settings = new LinkedHashMap<>();
    private final Set<String> set = new LinkedHashSet<>();
    private final Whole whole;
    private String loadedPoint = "";
    private Load load = Load.NOTHING;

    /** How often something of it was changed. */
    private int changes;

    Switches(List<Circuit> circuits, Whole whole) {
        this.whole = whole;
        circuits.forEach(c -> c.settings().forEach(s -> settings.put(s.id(), s)));
    }

    Map<String, Setting> settings() {
        return Collections.unmodifiableMap(settings);
    }

    int changes() {
        return changes;
    }

    /**
     * @throws IllegalArgumentException when there is no such switch or plug
     */
    void set(String settingId, boolean on) {
        setting(settingId);
        changes++;
        if (on) {
            set.add(settingId);
        } else {
            set.remove(settingId);
        }
    }

    private Setting setting(String settingId) {
        Setting its = settings.get(settingId);
        if (its == null) {
            throw new IllegalArgumentException("There is no switch or plug '" + settingId + "'");
        }
        return its;
    }

    boolean isSet(String settingId) {
        return isSet(setting(settingId));
    }

    boolean isSet(Setting setting) {
        // what the engine makes need not be told
        return set.contains(setting.id())
                || switch (setting.by()) {
                    case HAND -> false;
                    case ENGINE -> turns();
                    case STARTER -> whole.starting();
                };
    }

    boolean turns() {
        return whole.running() || whole.cranking();
    }

    boolean isAnySet() {
        return !set.isEmpty();
    }

    /** Whether everything is plugged, and nothing hangs on it. */
    boolean isPlugged() {
        return load == Load.NOTHING && set.stream().noneMatch(Setting::unplugs);
    }

    void hang(String point, Load what) {
        changes++;
        loadedPoint = point;
        load = what;
    }

    /** Lets something happen while another load hangs there, and hangs on again what hung. */
    <T> T hanging(String point, Load what, Supplier<T> happens) {
        String before = loadedPoint;
        Load hung = load;
        hang(point, what);
        try {
            return happens.get();
        } finally {
            hang(before, hung);
        }
    }

    /** Lets something happen with these switched on and no others, and leaves all as it was. */
    <T> T with(Set<String> on, Supplier<T> happens) {
        Set<String> before = Set.copyOf(set);
        set.removeIf(id -> !Setting.unplugs(id));
        set.addAll(on);
        changes++;
        T came = happens.get();
        set.clear();
        set.addAll(before);
        changes++;
        return came;
    }

    /** How one of the circuits is used at this moment. */
    OperatingState state(LiveCircuit its, double supplyVolts) {
        Set<String> on =
                its.circuit().settings().stream()
                        .filter(this::isSet)
                        .map(Setting::id)
                        .collect(Collectors.toSet());
        OperatingState state = OperatingState.idle(supplyVolts).moving(on);
        return its.knows(loadedPoint) ? state.loaded(loadedPoint, load) : state;
    }
}
