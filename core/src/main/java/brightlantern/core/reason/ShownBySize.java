package brightlantern.core.reason;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Fault;
import brightlantern.core.reason.CircuitFigures.OfGauge;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;

/**
 * What a fault in the circuits lets its driver and its modules notice at each of its sizes: a
 * corroded contact dims one lamp and sets no code where a broken one sets three. Taken over all
 * sizes together, three codes that are missing would count three times.
 */
final class ShownBySize {
    /** What no size brings by a gauge more often than this comes about in another way. */
    private static final double BY_NO_SIZE = 0.05;

    private final CircuitFigures figures;

    /** Symptom or code → the gauges that bring it. */
    private final Map<String, List<Bringing>> bringing = new HashMap<>();

    private final Map<Asked, double[]> known = new ConcurrentHashMap<>();

    /** A gauge, and in which of its bands it brings something. */
    private record Bringing(OfGauge gauge, Predicate<Band> band) {}

    private record Asked(String shown, String suspectId) {}

    ShownBySize(CircuitFigures figures) {
        this.figures = figures;
        for (OfGauge g : figures.gauges()) {
            if (g.gauge().told()) {
                add(DrawnCircuits.symptomId(g.gauge()), g, b -> !b.well());
            }
            g.gauge().bands().stream()
                    .map(Band::code)
                    .filter(c -> !c.isEmpty())
                    .distinct()
                    .forEach(c -> add(c, g, b -> b.code().equals(c)));
        }
    }

    private void add(String shown, OfGauge gauge, Predicate<Band> band) {
        bringing.computeIfAbsent(shown, x -> new ArrayList<>()).add(new Bringing(gauge, band));
    }

    /**
     * How often a symptom is told, or a code set, with a fault of this size; empty where no gauge
     * says so.
     *
     * @param shown id of a symptom, or a code
     */
    OptionalDouble of(String shown, Hypothesis h) {
        List<Bringing> those = bringing.getOrDefault(shown, List.of());
        List<Fault> sizes = those.isEmpty() ? List.of() : figures.faults(h.suspectId());
        if (sizes.size() < 2) {
            return OptionalDouble.empty();
        }
        double[] bySize =
                known.computeIfAbsent(
                        new Asked(shown, h.suspectId()),
                        k -> sizes.stream().mapToDouble(f -> chance(those, f)).toArray());
        return Arrays.stream(bySize).anyMatch(p -> p >= BY_NO_SIZE)
                ? OptionalDouble.of(Shows.SHOWS * bySize[h.size()])
                : OptionalDouble.empty();
    }

    private double chance(List<Bringing> those, Fault fault) {
        double most = 0;
        for (Bringing b : those) {
            most = Math.max(most, figures.chance(b.gauge(), b.band(), fault));
        }
        return most;
    }
}
