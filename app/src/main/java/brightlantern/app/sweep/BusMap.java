package brightlantern.app.sweep;

import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The vehicle's networks as a drawing: one rail a bus, modules hanging on it in the order of the
 * wire. Figures in SVG units.
 */
record BusMap(int width, int height, List<Rail> rails, List<Node> nodes) {
    private static final int LEFT = 150;
    private static final int STEP = 104;
    private static final int ROW = 96;

    record Rail(String name, String speed, int y, int right) {}

    /**
     * @param state shape by look.md: answered, codes, silent, faulty, asking, waiting
     */
    record Node(
            String id,
            String name,
            int x,
            int y,
            int railY,
            String state,
            int codes,
            String told) {}

    static BusMap of(VehicleDescription description, Optional<Sweep> sweep, Set<String> asking) {
        List<Rail> rails = new ArrayList<>();
        List<Node> nodes = new ArrayList<>();
        int widest = LEFT;
        int row = 0;
        for (VehicleDescription.Bus bus : description.buses()) {
            int railY = 26 + row * ROW;
            List<VehicleDescription.Module> on =
                    description.modules().stream()
                            .filter(m -> m.bus().equals(bus.id()))
                            .sorted(Comparator.comparingInt(VehicleDescription.Module::order))
                            .toList();
            int x = LEFT;
            for (VehicleDescription.Module module : on) {
                nodes.add(node(module, x, railY, sweep, asking));
                x += STEP;
            }
            rails.add(new Rail(bus.name(), bus.kbit() + " kbit/s", railY, x - STEP + 40));
            widest = Math.max(widest, x);
            row++;
        }
        return new BusMap(widest, row * ROW, rails, nodes);
    }

    private static Node node(
            VehicleDescription.Module module,
            int x,
            int railY,
            Optional<Sweep> sweep,
            Set<String> asking) {
        Optional<ModuleResult> result = sweep.flatMap(s -> s.module(module.id()));
        int codes = result.map(r -> r.codes().size()).orElse(0);
        String state =
                asking.contains(module.id())
                        ? "asking"
                        : result.map(
                                        r ->
                                                switch (r.answer()) {
                                                    case NOT_ASKED -> "waiting";
                                                    case ANSWERED ->
                                                            codes > 0 ? "codes" : "answered";
                                                    case SILENT -> "silent";
                                                    case FAULTY -> "faulty";
                                                })
                                .orElse("waiting");
        String told =
                switch (state) {
                    case "asking" -> "being asked now";
                    case "answered" -> "answered, no codes";
                    case "codes" -> "answered, " + codes + (codes == 1 ? " code" : " codes");
                    case "silent" -> "silent";
                    case "faulty" -> "answered wrongly";
                    default -> "not asked yet";
                };
        return new Node(module.id(), module.name(), x, railY + 30, railY, state, codes, told);
    }
}
