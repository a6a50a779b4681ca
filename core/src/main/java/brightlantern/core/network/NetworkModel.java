package brightlantern.core.network;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The buses of a vehicle as lines of stations, the gateway first, and the elements that may be at
 * fault on them. A message from one module to another passes the wire between both stations, or
 * both ways to the gateway when they hang on different buses.
 */
public final class NetworkModel {
    /** Wire without a connector breaks this much more rarely than a connector fails. */
    private static final double BARE_WIRE_COMMON = 0.25;

    private static final double MODULE_COMMON = 0.5;

    /** A short may sit anywhere along the line, so it grows with the number of stations. */
    private static final double SHORT_COMMON_PER_STATION = 0.35;

    private static final double TERMINATOR_COMMON = 0.2;

    /** Modules watch themselves and fall silent, mostly, before they hold the bus. */
    private static final double BABBLING_COMMON = 0.03;

    /**
     * A line that has lost the terminating resistor at one end reflects: this share of messages is
     * lost in the worst place. Source: a resistor is half of the line's 60 Ω; at moderate speed
     * most frames still get through.
     */
    private static final double REFLECTED = 0.02;

    private final Network network;
    private final Map<String, Integer> station = new HashMap<>();
    private final Map<String, String> busOf = new HashMap<>();
    private final Map<String, Integer> length = new HashMap<>();
    private final List<Element> elements = new ArrayList<>();

    /** What kind of thing is at fault. */
    public enum Kind {
        GAP("wire or connector broken"),
        MODULE("module dead"),
        FEED("supply or earth lost"),
        SHORT("bus shorted"),
        BABBLING("module sends without an end"),
        TERMINATOR("terminating resistor missing");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }
    }

    /**
     * Something that may be at fault.
     *
     * @param at station behind which a gap lies, or that of a terminator; 0 otherwise
     * @param modules the modules that it hits: behind the gap, without supply, on the shorted bus
     * @param minutes to get at it
     * @param common how common it is, relative to others
     * @param passed whether it lets most through now, and did not when codes were set
     */
    public record Element(
            String id,
            Kind kind,
            String name,
            String bus,
            int at,
            Set<String> modules,
            String place,
            double minutes,
            double common,
            boolean passed) {
        /** What lets through more than this is neither dead nor without supply, at this moment. */
        private static final double LIVES = 0.5;

        public Element {
            modules = Set.copyOf(modules);
        }

        Element(
                String id,
                Kind kind,
                String name,
                String bus,
                int at,
                Set<String> modules,
                String place,
                double minutes,
                double common) {
            this(id, kind, name, bus, at, modules, place, minutes, common, false);
        }

        /**
         * The same as it is heard now.
         *
         * @param quality share that it lets through
         */
        Element heardNow(double quality) {
            return new Element(
                    id, kind, name, bus, at, modules, place, minutes, common, quality > LIVES);
        }

        /** What one hears of it: whether a silent module is dead, or only not fed, nobody hears. */
        public String heard() {
            if (kind != Kind.MODULE) {
                return name;
            }
            return place
                    + (passed
                            ? " was silent for a while: what feeds it, or its own wire, comes and goes"
                            : " silent: without supply or earth, or dead");
        }

        /** The same with its place. */
        public String heardAt() {
            return kind == Kind.MODULE ? heard() : name + " (" + place + ")";
        }
    }

    /** The elements of a vehicle's buses and feeds. */
    public NetworkModel(Network network) {
        this.network = network;
        for (Bus bus : network.buses()) {
            line(bus);
        }
        for (ControlModule module : network.modules()) {
            if (!module.under().isEmpty()) {
                // a sub-module is reached through the module above it
                busOf.put(module.id(), busOf.getOrDefault(module.under(), module.bus()));
                station.put(module.id(), station.getOrDefault(module.under(), 0));
            }
            if (!module.id().equals(Network.GATEWAY)) {
                elements.add(dead(module));
            }
        }
        for (Feed feed : network.feeds()) {
            Set<String> hit = new LinkedHashSet<>(feed.modules());
            hit.remove(Network.GATEWAY);
            if (hit.size() > 1) {
                elements.add(
                        new Element(
                                feed.id(),
                                Kind.FEED,
                                feed.name() + " open",
                                "",
                                0,
                                hit,
                                feed.place(),
                                feed.minutes(),
                                feed.common()));
            }
        }
    }

    private void line(Bus bus) {
        List<ControlModule> stations = network.onWire(bus.id());
        length.put(bus.id(), stations.size());
        Set<String> all = new LinkedHashSet<>();
        for (int i = 0; i < stations.size(); i++) {
            station.put(stations.get(i).id(), i + 1);
            busOf.put(stations.get(i).id(), bus.id());
            all.add(stations.get(i).id());
        }
        for (int gap = 0; gap < stations.size(); gap++) {
            elements.add(gap(bus, stations, gap));
        }
        if (!stations.isEmpty()) {
            elements.add(
                    new Element(
                            "short-" + bus.id(),
                            Kind.SHORT,
                            bus.name() + " shorted",
                            bus.id(),
                            0,
                            all,
                            "anywhere on the bus: unplug module by module until it comes back",
                            30,
                            SHORT_COMMON_PER_STATION * stations.size()));
            for (ControlModule module : stations) {
                elements.add(
                        new Element(
                                "babbling-" + module.id(),
                                Kind.BABBLING,
                                module.name() + " sends without an end",
                                bus.id(),
                                0,
                                all,
                                module.name() + ": unplug it, and the bus comes back",
                                20,
                                BABBLING_COMMON));
            }
            String last = stations.get(stations.size() - 1).id();
            List<String> ends =
                    bus.terminators().isEmpty()
                            ? List.of(Network.GATEWAY, last)
                            : bus.terminators();
            for (String end : ends) {
                String name = network.module(end).map(ControlModule::name).orElse(end);
                elements.add(
                        new Element(
                                "terminator-" + bus.id() + "-" + end,
                                Kind.TERMINATOR,
                                bus.name() + ": terminating resistor in " + name + " missing",
                                bus.id(),
                                station.getOrDefault(end, 0),
                                all,
                                "in " + name,
                                20,
                                TERMINATOR_COMMON));
            }
        }
    }

    private Element gap(Bus bus, List<ControlModule> stations, int gap) {
        String before = gap == 0 ? Network.GATEWAY : stations.get(gap - 1).id();
        String beforeName =
                gap == 0
                        ? network.module(Network.GATEWAY).map(ControlModule::name).orElse("Gateway")
                        : stations.get(gap - 1).name();
        Set<String> behind = new LinkedHashSet<>();
        stations.subList(gap, stations.size()).forEach(m -> behind.add(m.id()));
        List<WireConnector> inside =
                bus.connectors().stream().filter(c -> c.after().equals(before)).toList();
        String span = beforeName + " to " + stations.get(gap).name();
        if (inside.isEmpty()) {
            return new Element(
                    "gap-" + bus.id() + "-" + (gap + 1),
                    Kind.GAP,
                    bus.name() + " wire broken, " + span,
                    bus.id(),
                    gap,
                    behind,
                    "wire from " + span,
                    45,
                    BARE_WIRE_COMMON);
        }
        WireConnector likely = inside.get(0);
        double common = BARE_WIRE_COMMON;
        double minutes = likely.minutes();
        for (WireConnector c : inside) {
            common += c.common();
            if (c.common() > likely.common()) {
                likely = c;
                minutes = c.minutes();
            }
        }
        return new Element(
                likely.id(),
                Kind.GAP,
                bus.name() + ": bad contact or break at " + likely.name(),
                bus.id(),
                gap,
                behind,
                likely.place() + ", between " + span.replace(" to ", " and "),
                minutes,
                common);
    }

    /** Id of the element that stands for a module which is dead by itself. */
    public static String deadId(String moduleId) {
        return "dead-" + moduleId;
    }

    private Element dead(ControlModule module) {
        Set<String> hit = new LinkedHashSet<>();
        hit.add(module.id());
        network.modules().stream()
                .filter(m -> m.under().equals(module.id()))
                .forEach(m -> hit.add(m.id()));
        // when a fuse or earth serves this module alone, its loss looks the same
        String own =
                network.feeds().stream()
                        .filter(f -> f.modules().equals(List.of(module.id())))
                        .map(Feed::name)
                        .reduce((a, b) -> a + " or " + b)
                        .map(n -> ", or " + n + " open")
                        .orElse("");
        return new Element(
                deadId(module.id()),
                Kind.MODULE,
                module.name() + " dead" + own,
                module.bus(),
                0,
                hit,
                module.name(),
                30,
                MODULE_COMMON);
    }

    /** All that can be at fault, bus by bus. */
    public List<Element> elements() {
        return Collections.unmodifiableList(elements);
    }

    /** The bus on which a module hangs; empty for the gateway, which hangs on all. */
    public String bus(String module) {
        return busOf.getOrDefault(module, "");
    }

    /**
     * Share of messages, 0..1, that get from one module to another while an element is at fault.
     *
     * @param quality share that the faulty element itself lets through: 0 broken, 1 whole
     */
    public double link(Element fault, double quality, String from, String to) {
        String a = bus(from);
        String b = bus(to);
        if (a.equals(b) || a.isEmpty() || b.isEmpty()) {
            return hop(fault, quality, a.isEmpty() ? b : a, from, to);
        }
        return hop(fault, quality, a, from, Network.GATEWAY)
                * hop(fault, quality, b, Network.GATEWAY, to);
    }

    private double hop(Element fault, double quality, String bus, String from, String to) {
        int x = station.getOrDefault(from, 0);
        int y = station.getOrDefault(to, 0);
        switch (fault.kind()) {
            case MODULE, FEED -> {
                return fault.modules().contains(from) || fault.modules().contains(to) ? quality : 1;
            }
            default -> {
                if (!fault.bus().equals(bus)) {
                    return 1;
                }
            }
        }
        double n = Math.max(1, length.getOrDefault(bus, 1));
        return switch (fault.kind()) {
            case SHORT, BABBLING -> quality;
            case GAP -> {
                boolean across = (x <= fault.at()) != (y <= fault.at());
                yield across ? quality : 1 - REFLECTED * (1 - quality);
            }
            default -> {
                // the further from the resistor that is left, the more is lost
                double far = fault.at() == 0 ? 1 - Math.min(x, y) / n : Math.max(x, y) / n;
                yield 1 - (1 - quality) * far;
            }
        };
    }

    /** Modules by name, those of one bus together, for reasons told in words. */
    public Map<String, String> names() {
        Map<String, String> names = new LinkedHashMap<>();
        network.modules().forEach(m -> names.put(m.id(), m.name()));
        return names;
    }
}
