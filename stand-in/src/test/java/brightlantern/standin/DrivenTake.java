package brightlantern.standin;

import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Driver.Program;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** A drive of a stand-in, recorded as the wire would carry it. */
final class DrivenTake {
    private static final double STEP = 0.1;

    private DrivenTake() {}

    /** What all studies need, sampled ten times a second as the wire would carry it. */
    static Take of(StandInVehicle vehicle, Program[] way) {
        VehicleDescription d = vehicle.description();
        Set<String> ids = new LinkedHashSet<>();
        d.cylinders().ifPresent(c -> ids.addAll(CylinderStudy.needed(c)));
        d.trims().forEach(t -> ids.addAll(TrimStudy.needed(t)));
        d.follows()
                .forEach(
                        f -> {
                            ids.addAll(List.of(f.target(), f.actual(), f.command(), f.feedback()));
                            f.when().forEach(c -> ids.add(c.value()));
                            ids.addAll(f.conditions());
                        });
        VehicleSimulation simulation = vehicle.simulation();
        simulation.driver(Driver.away().key(2));
        vehicle.live(2);
        simulation.crank();
        vehicle.live(40);
        List<Double> times = new ArrayList<>();
        Map<String, List<Double>> values = new LinkedHashMap<>();
        ids.forEach(id -> values.put(id, new ArrayList<>()));
        for (Program program : way) {
            simulation.driver(simulation.driver().drive(program));
            for (int i = 0; i < 30 / STEP; i++) {
                vehicle.live(STEP);
                times.add(times.size() * STEP);
                values.forEach((id, list) -> list.add(simulation.reading(id).orElseThrow()));
            }
        }
        double[] t = times.stream().mapToDouble(v -> v).toArray();
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        values.forEach(
                (id, list) ->
                        columns.put(
                                id,
                                new Take.Column(t, list.stream().mapToDouble(v -> v).toArray())));
        return new Take(columns, List.of());
    }
}
