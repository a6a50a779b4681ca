package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Mistakes in a circuit that no meter would ever find in a vehicle. */
final class CircuitCheck {
    private CircuitCheck() {}

    /** Each in a sentence that names the point or part; empty for a sound circuit. */
    static List<String> mistakes(Circuit c) {
        List<String> all = new ArrayList<>();
        Set<String> used = new HashSet<>();
        for (Component part : c.components()) {
            used.add(part.from());
            used.add(part.to());
            if (part.from().equals(part.to())) {
                all.add(part.id() + " begins and ends at " + part.from() + ", expected two points");
            }
        }
        c.dividers().forEach(d -> used.add(d.out()));
        c.points().stream()
                .filter(ProbePoint::canBeProbed)
                .map(ProbePoint::id)
                .filter(p -> !used.contains(p))
                .forEach(p -> all.add("point " + p + " leads nowhere, expected a part at it"));
        Map<String, String> joined = joined(c.segments());
        String plus = root(joined, Circuit.PLUS);
        String minus = root(joined, Circuit.MINUS);
        if (plus.equals(minus)) {
            all.add("a short: nothing but wires lies between the battery poles");
        }
        Set<String> fed = new HashSet<>(Set.of(plus));
        c.sources().forEach(s -> fed.add(root(joined, s.from())));
        for (Component part : c.components()) {
            if (part instanceof MotorPart || part instanceof Consumer) {
                needs(part, part.to(), minus, joined, all);
                if (!fed.contains(root(joined, part.from()))) {
                    all.add(
                            part.id()
                                    + " has no supply: no wires lead from "
                                    + part.from()
                                    + " to it");
                }
            }
        }
        return all;
    }

    private static void needs(
            Component part,
            String end,
            String minus,
            Map<String, String> joined,
            List<String> mistakes) {
        if (!root(joined, end).equals(minus)) {
            mistakes.add(
                    part.id() + " has no earth: no wires lead from " + end + " to battery minus");
        }
    }

    /** Points that segments join, as a forest. */
    private static Map<String, String> joined(List<Segment> segments) {
        Map<String, String> parents = new HashMap<>();
        for (Segment s : segments) {
            // an input's own resistance joins nothing
            if (s.ohm() < HIGH_OHM) {
                parents.put(root(parents, s.from()), root(parents, s.to()));
            }
        }
        return parents;
    }

    private static final double HIGH_OHM = 10_000;

    private static String root(Map<String, String> parents, String point) {
        String at = point;
        while (parents.containsKey(at) && !parents.get(at).equals(at)) {
            at = parents.get(at);
        }
        return at;
    }
}
