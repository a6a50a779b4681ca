package brightlantern.app.probe;

import brightlantern.core.circuit.Band;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Finds the sheet that shows something: a code, a value, a part, a plug, a fuse, an earth. */
final class SheetFinder {
    /** More than this nobody reads through. */
    private static final int MOST = 30;

    private static final String OTHERS = "Circuits";

    private SheetFinder() {}

    /** All sheets, by system. */
    static Map<String, List<ProbeView.SheetLink>> bySystem(VehicleDescription d, Circuit here) {
        Map<String, List<ProbeView.SheetLink>> all = new LinkedHashMap<>();
        for (Circuit c : d.circuits()) {
            all.computeIfAbsent(c.system().isEmpty() ? OTHERS : c.system(), s -> new ArrayList<>())
                    .add(new ProbeView.SheetLink(c.id(), c.name(), c.equals(here)));
        }
        return all;
    }

    /** Parts of a sheet that other sheets show too, and which those are. */
    static List<ProbeView.Shared> shares(VehicleDescription d, Circuit here) {
        List<ProbeView.Shared> all = new ArrayList<>();
        for (Component part : here.components()) {
            List<ProbeView.SheetLink> with =
                    d.wiring().with(part.id()).stream()
                            .filter(c -> !c.id().equals(here.id()))
                            .map(c -> new ProbeView.SheetLink(c.id(), c.name(), false))
                            .toList();
            if (!with.isEmpty()) {
                all.add(new ProbeView.Shared(part.id(), part.name(), with));
            }
        }
        return all;
    }

    /** What bears all the words that were typed, the first of each sheet; empty for none typed. */
    static List<ProbeView.Found> find(VehicleDescription d, String typed) {
        List<String> words =
                List.of(typed.toLowerCase(Locale.ROOT).trim().split("\\s+")).stream()
                        .filter(w -> !w.isEmpty())
                        .toList();
        Set<ProbeView.Found> found = new LinkedHashSet<>();
        if (words.isEmpty()) {
            return List.of();
        }
        for (Circuit c : d.circuits()) {
            if (bears(c.name() + " " + c.system(), words)) {
                found.add(new ProbeView.Found(c.name(), c.id(), c.name(), "", ""));
            }
            for (Gauge g : c.gauges()) {
                if (bears(told(d, g), words)) {
                    found.add(new ProbeView.Found(told(d, g), c.id(), c.name(), "", ""));
                }
            }
            for (Component part : c.components()) {
                if (bears(part.name() + " " + part.id(), words)) {
                    found.add(
                            new ProbeView.Found(
                                    part.name(), c.id(), c.name(), touched(c, part), part.id()));
                }
            }
            for (ProbePoint p : c.points()) {
                if (p.canBeProbed() && bears(p.id() + " " + p.name() + " " + p.place(), words)) {
                    found.add(
                            new ProbeView.Found(
                                    p.id() + ", " + p.name(),
                                    c.id(),
                                    c.name(),
                                    p.id(),
                                    plug(c, p.id())));
                }
            }
        }
        return found.stream().limit(MOST).toList();
    }

    /** A gauge with its codes, its live value and its module. */
    private static String told(VehicleDescription d, Gauge g) {
        StringBuilder text = new StringBuilder(g.name());
        g.bands().stream()
                .map(Band::code)
                .filter(c -> !c.isEmpty())
                .distinct()
                .forEach(c -> text.append(", ").append(c));
        d.value(g.value()).ifPresent(v -> text.append(", ").append(v.name()));
        d.module(g.module()).ifPresent(m -> text.append(", module ").append(m.name()));
        return text.toString();
    }

    /** The connector in which a point is a pin; empty for none. */
    private static String plug(Circuit c, String point) {
        return c.segments().stream()
                .filter(s -> s.from().equals(point))
                .flatMap(s -> s.pin().stream())
                .map(Segment.Pin::plug)
                .findFirst()
                .orElse("");
    }

    /** A point at an end of a part that a probe can touch. */
    private static String touched(Circuit c, Component part) {
        return c.probe(part.from()).or(() -> c.probe(part.to())).map(ProbePoint::id).orElse("");
    }

    private static boolean bears(String text, List<String> words) {
        String low = text.toLowerCase(Locale.ROOT);
        return words.stream().allMatch(low::contains);
    }
}
