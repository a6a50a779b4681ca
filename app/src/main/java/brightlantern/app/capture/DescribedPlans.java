package brightlantern.app.capture;

import brightlantern.core.capture.CapturePlaces;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CapturePlans;
import brightlantern.core.capture.CrankedPlans;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.network.ControlModule;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** The captures that can be taken of a vehicle, by its description. */
final class DescribedPlans {
    private DescribedPlans() {}

    static List<CapturePlan> of(VehicleDescription d) {
        List<CapturePlan> plans = new ArrayList<>();
        d.cylinders().map(CrankedPlans::cranking).ifPresent(plans::add);
        d.cylinders()
                .map(c -> CapturePlans.currents(c, hasCoil(d, c.order().get(0))))
                .ifPresent(plans::add);
        d.finding(CapturePlan.SPARKS)
                .flatMap(f -> d.cylinders())
                .ifPresent(c -> plans.add(CapturePlans.sparks(c)));
        d.cylinders().ifPresent(c -> plans.addAll(leaving(d, c)));
        d.cylinders().ifPresent(c -> plans.addAll(pressures(d, c)));
        d.cylinders()
                .filter(c -> c.wheel().isPresent())
                .ifPresent(c -> plans.add(CapturePlans.teeth(c)));
        d.finding(CapturePlan.RIPPLE).ifPresent(f -> plans.add(CapturePlans.ripple()));
        d.finding(CapturePlan.STARTING).ifPresent(f -> plans.add(CrankedPlans.starting()));
        d.buses()
                .forEach(
                        b -> {
                            List<ControlModule> line = d.onWire(b.id());
                            if (!line.isEmpty()) {
                                plans.add(
                                        CapturePlans.bus(
                                                b,
                                                "the gateway",
                                                line.get(line.size() - 1).name()));
                            }
                        });
        plans.replaceAll(p -> CapturePlaces.of(p, d.circuits()));
        Set<String> shown = new HashSet<>();
        for (Circuit circuit : d.circuits()) {
            circuit.points().stream()
                    .filter(p -> p.canBeProbed() && shown.add(p.id()))
                    .forEach(p -> plans.add(CapturePlans.point(circuit, p)));
        }
        return plans;
    }

    private static List<CapturePlan> leaving(VehicleDescription d, Cylinders cylinders) {
        return cylinders.order().stream()
                .sorted()
                .map(n -> CapturePlans.leaving(cylinders, n, hasCoil(d, n)))
                .toList();
    }

    private static List<CapturePlan> pressures(VehicleDescription d, Cylinders cylinders) {
        return cylinders.order().stream()
                .sorted()
                .map(
                        n ->
                                CrankedPlans.pressure(
                                        n,
                                        (hasCoil(d, n) ? "the plug" : "the glow plug")
                                                + " of cylinder "
                                                + n))
                .toList();
    }

    private static boolean hasCoil(VehicleDescription d, int cylinder) {
        return d.circuits().stream().anyMatch(c -> c.component("coil-" + cylinder).isPresent());
    }
}
