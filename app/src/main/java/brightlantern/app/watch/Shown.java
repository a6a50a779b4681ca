package brightlantern.app.watch;

import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Map;
import java.util.stream.Collectors;

/** A value as a page's script needs it. */
record Shown(
        String id,
        String name,
        String unit,
        int digits,
        boolean state,
        String module,
        Map<Integer, String> words) {
    /** The words of its states, a line each: number, space, word. */
    public String lines() {
        return words.entrySet().stream()
                .map(e -> e.getKey() + " " + e.getValue())
                .collect(Collectors.joining("\n"));
    }

    static Shown of(VehicleDescription description, Value v) {
        return new Shown(
                v.id(),
                v.name(),
                v.isState() ? "" : v.show(),
                v.digits(),
                v.isState(),
                description.module(v.module()).map(ControlModule::name).orElse(v.module()),
                v.states());
    }
}
