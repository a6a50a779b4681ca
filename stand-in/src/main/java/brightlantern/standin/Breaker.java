package brightlantern.standin;

import brightlantern.core.circuit.Gauge;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;

/** Breaks parts of a stand-in's circuits, chosen or drawn, and tells what its driver says then. */
public final class Breaker {
    /** So many draws are made for one that somebody notices; far fewer are needed. */
    private static final int MOST_DRAWS = 60;

    /** A driver tells of so many things. */
    private static final int TOLD = 2;

    private final StandInVehicle vehicle;

    public Breaker(StandInVehicle vehicle) {
        this.vehicle = vehicle;
    }

    /**
     * What was broken in it.
     *
     * @param part id of what is broken
     * @param truth in words, with its size
     * @param complaint what its driver says of it
     * @param symptoms ids of the gauges that the driver saw
     */
    public record Broken(String part, String truth, String complaint, List<String> symptoms) {}

    /** Ways in which its circuits can break, those of one part after each other. */
    public List<Part.Failure> breakable() {
        return vehicle.simulation().circuits().map(Circuits::failures).orElse(List.of());
    }

    /**
     * Breaks something in its circuits that nobody chose, drawn by how often it happens, and lets
     * its driver use everything once.
     *
     * @param beside whether what is broken already stays so; otherwise it is mended first
     * @throws IllegalStateException when it has no circuits
     */
    public Broken breakSomething(Random random, boolean beside) {
        List<Part.Failure> all = breakable();
        double sum = all.stream().mapToDouble(Part.Failure::common).sum();
        for (int draw = 0; draw < MOST_DRAWS && !all.isEmpty(); draw++) {
            double at = random.nextDouble() * sum;
            int drawn = 0;
            while (drawn < all.size() - 1 && at >= all.get(drawn).common()) {
                at -= all.get(drawn++).common();
            }
            Optional<Broken> broken = breakPart(all.get(drawn), random.nextDouble(), beside);
            if (broken.isPresent()) {
                return broken.get();
            }
        }
        throw new IllegalStateException(
                "Nothing that breaks in " + vehicle.description().id() + " is noticed");
    }

    /**
     * Breaks a part of its circuits.
     *
     * @param size 0 … 1, from the least to the most of it
     * @param beside whether what is broken already stays so; otherwise it is mended first
     * @return nothing, with this part whole, when nobody would notice it
     */
    public Optional<Broken> breakPart(Part.Failure failure, double size, boolean beside) {
        synchronized (vehicle) {
            if (!beside) {
                vehicle.whole();
            }
            return broken(failure, size);
        }
    }

    private Optional<Broken> broken(Part.Failure failure, double size) {
        double ohm = failure.least() * Math.pow(failure.most() / failure.least(), size);
        Circuits circuits = vehicle.simulation().circuits().orElseThrow();
        Driver before = vehicle.simulation().driver();
        vehicle.simulation().driver(before.key(2));
        List<Gauge> already = circuits.used(vehicle::report);
        circuits.fail(failure.mode(), failure.of(), ohm);
        List<Gauge> wrong = new ArrayList<>(circuits.used(vehicle::report));
        wrong.removeAll(already);
        vehicle.simulation().driver(before);
        if (wrong.isEmpty()) {
            circuits.mend(failure.of());
            return Optional.empty();
        }
        List<Gauge> seen = wrong.stream().filter(Gauge::told).toList();
        String complaint =
                seen.isEmpty()
                        ? "A warning came up in the cluster; nothing else was noticed."
                        : seen.stream()
                                .limit(TOLD)
                                .map(circuits::complaint)
                                .collect(Collectors.joining(" "));
        return Optional.of(
                new Broken(
                        failure.of(),
                        "%s (%.3g Ω)".formatted(failure.name(), ohm),
                        complaint,
                        seen.stream().limit(TOLD).map(Gauge::id).toList()));
    }
}
