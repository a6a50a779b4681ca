package brightlantern.app.sweep;

import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.network.NetworkModel.Kind;
import brightlantern.core.network.WireConnector;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/**
 * The vehicle's networks as a drawing: one rail a bus, modules hanging on it in the order of the
 * wire, connectors between them; a long bus goes on in the next row. Figures in SVG units. The same
 * drawing serves sweep, roll call and comparison.
 */
record BusMap(
        int width,
        int height,
        List<Rail> rails,
        List<Node> nodes,
        List<Joint> joints,
        List<OnBus> buses) {
    private static final int LEFT = 150;
    private static final int STEP = 104;
    private static final int ROW = 98;

    /** More letters than this in one line would run into the neighbour's name. */
    private static final int NAME_LETTERS = 13;

    private static final int PER_ROW = 9;

    /**
     * @param goesOn whether the wire goes on in the row below
     */
    record Rail(String name, String speed, int y, int right, boolean goesOn) {}

    /**
     * How a module is shown.
     *
     * @param state shape by look.md: answered, codes, silent, flickering, faulty, asking, waiting,
     *     absent
     * @param count shown in the shape
     * @param told the same in words
     */
    record Mark(String state, int count, String told) {}

    record Node(
            String id,
            String name,
            List<String> lines,
            int x,
            int y,
            int railY,
            String state,
            int codes,
            String told) {}

    /** The same as a list, for narrow screens. */
    record OnBus(String name, List<Node> nodes) {}

    /**
     * A connector in the wire, or the place where it is thought to be broken.
     *
     * @param broken whether the reasoning points here
     */
    record Joint(String name, int x, int y, boolean broken, String told) {}

    /**
     * @param suspect the element that is thought to be at fault, if any
     */
    static BusMap of(
            VehicleDescription description,
            Function<ControlModule, Mark> marks,
            Optional<Element> suspect) {
        List<Rail> rails = new ArrayList<>();
        List<Node> nodes = new ArrayList<>();
        List<Joint> joints = new ArrayList<>();
        List<OnBus> buses = new ArrayList<>();
        int widest = LEFT;
        int row = 0;
        for (Bus bus : description.buses()) {
            List<ControlModule> on =
                    description.modules().stream()
                            .filter(m -> m.bus().equals(bus.id()))
                            .sorted(Comparator.comparingInt(ControlModule::order))
                            .toList();
            int station = 0;
            for (int i = 0; i < on.size(); i++) {
                ControlModule module = on.get(i);
                int x = LEFT + i % PER_ROW * STEP;
                int y = 30 + (row + i / PER_ROW) * ROW;
                Mark mark = marks.apply(module);
                nodes.add(
                        new Node(
                                module.id(),
                                module.name(),
                                lines(module.name()),
                                x,
                                y + 30,
                                y,
                                mark.state(),
                                mark.count(),
                                mark.told()));
                boolean onWire = !module.id().equals(Network.GATEWAY) && module.under().isEmpty();
                if (onWire) {
                    joint(bus, station, module, on, x, y, suspect).ifPresent(joints::add);
                    station++;
                }
                widest = Math.max(widest, x + STEP);
            }
            buses.add(
                    new OnBus(
                            bus.name(),
                            List.copyOf(nodes.subList(nodes.size() - on.size(), nodes.size()))));
            int rows = Math.max(1, (on.size() + PER_ROW - 1) / PER_ROW);
            for (int r = 0; r < rows; r++) {
                int last = Math.min(on.size(), (r + 1) * PER_ROW) - 1 - r * PER_ROW;
                rails.add(
                        new Rail(
                                r == 0 ? bus.name() : "",
                                r == 0
                                        ? bus.kbit()
                                                + (bus.dataKbit() > 0
                                                        ? " and " + bus.dataKbit()
                                                        : "")
                                                + " kbit/s"
                                        : "goes on",
                                30 + (row + r) * ROW,
                                LEFT + last * STEP + 40,
                                r < rows - 1));
            }
            row += rows;
        }
        return new BusMap(widest, row * ROW + 8, rails, nodes, joints, buses);
    }

    /** A name in one line or two, broken at a space or hyphen. */
    private static List<String> lines(String name) {
        int space = name.lastIndexOf(' ', NAME_LETTERS);
        return name.length() <= NAME_LETTERS || space < 1
                ? List.of(name)
                : List.of(name.substring(0, space), name.substring(space + 1));
    }

    private static Optional<Joint> joint(
            Bus bus,
            int station,
            ControlModule module,
            List<ControlModule> on,
            int x,
            int y,
            Optional<Element> suspect) {
        List<ControlModule> line =
                on.stream()
                        .filter(m -> !m.id().equals(Network.GATEWAY))
                        .filter(m -> m.under().isEmpty())
                        .toList();
        String before = station == 0 ? Network.GATEWAY : line.get(station - 1).id();
        Optional<WireConnector> connector =
                bus.connectors().stream().filter(c -> c.after().equals(before)).findFirst();
        boolean broken =
                suspect.isPresent()
                        && suspect.get().kind() == Kind.GAP
                        && suspect.get().bus().equals(bus.id())
                        && suspect.get().at() == station;
        if (connector.isEmpty() && !broken) {
            return Optional.empty();
        }
        return Optional.of(
                new Joint(
                        connector.map(WireConnector::id).orElse(""),
                        x - STEP / 2,
                        y,
                        broken,
                        connector
                                .map(c -> c.name() + ", " + c.place())
                                .orElse("wire before " + module.name())));
    }
}
