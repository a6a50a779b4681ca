package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Something that no longer works while parts of circuits are open.
 *
 * @param shows what is seen of it instead
 */
public record Lost(Circuit circuit, Gauge gauge, Band shows) {
    /** All that is lost with these parts; each thing under the setting in which it should work. */
    public static List<Lost> with(List<Circuit> circuits, Set<String> parts) {
        List<Lost> all = new ArrayList<>();
        for (Circuit c : circuits) {
            List<Fault> open =
                    c.components().stream()
                            .map(Component::id)
                            .filter(parts::contains)
                            .<Fault>map(p -> new Fault.Series(p, Fault.Series.OPEN_OHM))
                            .toList();
            if (!open.isEmpty()) {
                all.addAll(of(c, open));
            }
        }
        return all;
    }

    private static List<Lost> of(Circuit c, List<Fault> open) {
        List<Lost> all = new ArrayList<>();
        for (Gauge g : c.gauges()) {
            if (g.isNoticed() && !g.isOff() && !g.isCompared()) {
                Set<String> made = g.made().isEmpty() ? Set.of() : Set.of(g.made());
                OperatingState state = OperatingState.idle(GaugeState.TYPICAL_VOLTS).moving(made);
                Map<String, Double> volts = new CircuitModel(c).solve(state, open).volts();
                Band shows = g.at(g.share(c, volts::get, open));
                if (!shows.well()) {
                    all.add(new Lost(c, g, shows));
                }
            }
        }
        return all;
    }
}
