package brightlantern.standin;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Part;
import brightlantern.standin.plant.Plant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * What modules and the driver of a vehicle watch in its plant: a supply monitor in every module
 * that has a code for it, monitors of what goes on, and what the driver notices.
 */
final class Monitors {
    private static final double LOW_VOLTS = 10.2;
    private static final double LOW_SECONDS = 0.3;

    private final VehicleDescription description;
    private final List<PlantMonitor> monitors = new ArrayList<>();
    private final Map<PlantMonitor, Mechanics.Notice> notices = new LinkedHashMap<>();
    private final Set<Mechanics.Notice> noticed = new LinkedHashSet<>();
    private double low;
    private boolean warning;

    Monitors(VehicleDescription description) {
        this.description = description;
    }

    /**
     * @throws IllegalArgumentException when the module has no such code
     */
    void add(PlantMonitor monitor) {
        if (description.code(monitor.module(), monitor.code()).isEmpty()) {
            throw new IllegalArgumentException(
                    description.id()
                            + " has no code "
                            + monitor.code()
                            + " in module '"
                            + monitor.module()
                            + "', which a monitor of its blueprint is to set");
        }
        monitors.add(monitor);
    }

    /**
     * @throws IllegalArgumentException when nobody described such a symptom
     */
    void add(Mechanics.Notice notice, PlantMonitor by) {
        if (description.symptoms().stream().noneMatch(s -> s.id().equals(notice.symptom()))) {
            throw new IllegalArgumentException(
                    description.id()
                            + " has no symptom '"
                            + notice.symptom()
                            + "', which its driver is to notice");
        }
        notices.put(by, notice);
    }

    /** What the driver has noticed since the last time that this was asked. */
    List<Mechanics.Notice> noticed() {
        List<Mechanics.Notice> all = List.copyOf(noticed);
        noticed.clear();
        return all;
    }

    /** Lets all look at what happened in the last {@code seconds}. */
    void watch(
            Plant plant,
            Function<String, Optional<Double>> reading,
            double seconds,
            Part.Watcher watcher) {
        for (PlantMonitor monitor : monitors) {
            warning |= monitor.step(plant, reading, seconds, watcher);
        }
        notices.forEach(
                (by, notice) -> {
                    if (by.step(plant, reading, seconds, (m, id, failed) -> {})) {
                        noticed.add(notice);
                    }
                });
    }

    /** Lets the modules look at their supply. */
    void supply(Plant plant, double seconds, Part.Watcher watcher) {
        low = plant.volts() < LOW_VOLTS ? low + seconds : 0;
        if (low >= LOW_SECONDS && low < LOW_SECONDS + seconds) {
            description.codes().stream()
                    .filter(c -> c.sets().equals("supply"))
                    .filter(c -> !plant.monitored().contains(c.module() + " " + c.code()))
                    .forEach(c -> watcher.report(c.module(), c.code(), true));
        }
    }

    /** Codes that are watched, each as module and code with a blank between. */
    Set<String> codes() {
        Set<String> all = new LinkedHashSet<>();
        monitors.forEach(m -> all.add(m.module() + " " + m.code()));
        return all;
    }

    /** The key was turned on: they begin anew. */
    void keyOn() {
        low = 0;
        warning = false;
        monitors.forEach(PlantMonitor::reset);
        notices.keySet().forEach(PlantMonitor::reset);
    }

    /** Whether one of them has lit the warning lamp since the key was turned on. */
    boolean warning() {
        return warning;
    }
}
