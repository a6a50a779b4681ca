package brightlantern.standin;

import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What breaks in a vehicle, and what mends it. */
final class Damage {
    private final VehicleDescription description;
    private final VehicleSimulation simulation;
    private final Map<String, Mechanics.Failing> failings = new LinkedHashMap<>();
    private final Set<Mechanics.Failing> broken = new LinkedHashSet<>();
    private final Map<String, String> repairs = new LinkedHashMap<>();

    /** By the repair that mends them. */
    private final Map<String, List<Suspect>> mended;

    Damage(VehicleDescription description, VehicleSimulation simulation) {
        this.description = description;
        this.simulation = simulation;
        this.mended =
                description.suspects().stream()
                        .collect(Collectors.groupingBy(s -> s.repair().id()));
        description.suspects().forEach(s -> repairs.put(s.repair().id(), s.repair().name()));
    }

    /** What can break in a vehicle of its kind, as far as it has the parts. */
    void with(Mechanics its) {
        for (Mechanics.Failing f : its.failures()) {
            if (f.at().stream().anyMatch(a -> simulation.has(a.part()))) {
                failings.put(f.id(), f);
                repairs.putIfAbsent(f.repair(), "Mend: " + f.name());
            }
        }
    }

    /** All that can break in it and is not electrical. */
    List<Mechanics.Failing> failings() {
        return List.copyOf(failings.values());
    }

    /**
     * One of {@link #failings}.
     *
     * @throws IllegalArgumentException when there is no such
     */
    Mechanics.Failing failing(String id) {
        return Optional.ofNullable(failings.get(id))
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "Nothing called '"
                                                + id
                                                + "' can break in "
                                                + description.id()));
    }

    /** Whether something is broken in it that is not electrical. */
    boolean isBroken() {
        return !broken.isEmpty();
    }

    /**
     * Something that is not electrical breaks.
     *
     * @param size in the unit of its modes
     */
    void fail(Mechanics.Failing failing, double size) {
        broken.add(failing);
        for (Mechanics.At at : failing.at()) {
            if (simulation.has(at.part())) {
                simulation.fail(at.part(), at.mode(), at.of(), at.size() == 0 ? size : at.size());
            }
        }
    }

    /** Offered repairs, id → name, beside those of the wires. */
    Map<String, String> repairs() {
        return Map.copyOf(repairs);
    }

    /** Carries out a repair; it mends what it concerns, if that was broken. */
    void repair(String id) {
        mend(id);
        mended.getOrDefault(id, List.of()).forEach(this::mend);
    }

    private void mend(Suspect suspect) {
        mend(suspect.id());
        suspect.effect().flatMap(Effect::part).ifPresent(this::mend);
    }

    private void mend(Mechanics.Failing failing) {
        failing.at().stream()
                .filter(a -> simulation.has(a.part()))
                .forEach(a -> simulation.fail(a.part(), a.mode(), a.of(), a.whole()));
    }

    void mend(String what) {
        broken.stream().filter(f -> f.repair().equals(what)).forEach(this::mend);
        broken.removeIf(f -> f.repair().equals(what));
        simulation.all().forEach(part -> part.mend(what));
    }
}
