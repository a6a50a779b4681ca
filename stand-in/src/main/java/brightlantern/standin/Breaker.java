package brightlantern.standin;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Need;
import brightlantern.core.reason.CircuitSuspects;
import brightlantern.core.suspect.Symptom;
import brightlantern.standin.network.NetworkBreaker;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.EverydayUse;
import brightlantern.standin.plant.Part;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;

/** Breaks parts of a stand-in, chosen or drawn, and tells what its driver says then. */
public final class Breaker {
    /** So many draws are made for one that somebody notices; far fewer are needed. */
    private static final int MOST_DRAWS = 60;

    /** A driver tells of so many things. */
    private static final int TOLD = 2;

    /** The mode of what is not in its circuits. */
    private static final String MECHANICAL = "mechanical";

    private static final String WARNING =
            "A warning came up in the cluster; nothing else was noticed.";

    /** With the key as it was, modules wake up and look within so many seconds. */
    private static final double AWAKE_SECONDS = 3;

    /** Modules that miss each other say so within this time. */
    private static final double MISSES_SECONDS = 12;

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
     * @param symptoms ids of the described symptoms that the driver noticed
     */
    public record Broken(String part, String truth, String complaint, List<String> symptoms) {}

    /** Ways in which it can break, those of one part after each other. */
    public List<Part.Failure> breakable() {
        List<Part.Failure> all = new ArrayList<>(inCircuits());
        all.addAll(inPlant());
        all.addAll(mechanical());
        all.addAll(onNetwork());
        return all;
    }

    /** What can break on its buses; nothing where modules do not watch each other. */
    public List<Part.Failure> onNetwork() {
        boolean watched =
                vehicle.description().modules().stream().anyMatch(m -> !m.watches().isEmpty());
        return watched ? network().failures() : List.of();
    }

    private NetworkBreaker network() {
        return new NetworkBreaker(vehicle.description(), vehicle.wires());
    }

    /** What can break in what moves it, where that is described as a circuit of its own. */
    public List<Part.Failure> inPlant() {
        return vehicle.simulation().plant().failures();
    }

    /** What can break in it that is neither in its circuits nor on its buses. */
    public List<Part.Failure> mechanical() {
        List<Part.Failure> all = new ArrayList<>();
        vehicle.simulation()
                .damage()
                .failings()
                .forEach(
                        f ->
                                all.add(
                                        new Part.Failure(
                                                MECHANICAL,
                                                f.id(),
                                                f.least(),
                                                f.most(),
                                                f.common(),
                                                f.name())));
        return all;
    }

    /** Ways in which its circuits can break, those of one part after each other. */
    public List<Part.Failure> inCircuits() {
        return vehicle.simulation().circuits().map(Circuits::failures).orElse(List.of());
    }

    /**
     * Breaks something that nobody chose, drawn by how often it happens, and lets its driver use
     * everything once.
     *
     * @param of those of which it is drawn
     * @param beside whether what is broken already stays so; otherwise it is mended first
     * @throws IllegalStateException when nothing of it is noticed
     */
    public Broken breakSomething(List<Part.Failure> of, Random random, boolean beside) {
        List<Part.Failure> all = of;
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
     * Breaks a part.
     *
     * @param size 0 … 1, from the least to the most of it
     * @param beside whether what is broken already stays so; otherwise it is mended first
     * @return nothing, with this part whole, when nobody would notice it
     */
    public Optional<Broken> breakPart(Part.Failure failure, double size, boolean beside) {
        synchronized (vehicle) {
            Driver before = vehicle.simulation().driver();
            if (!beside) {
                boolean unsettled = vehicle.simulation().damage().isBroken();
                vehicle.whole();
                if (unsettled) {
                    // what it had learned with the fault in place it has to forget
                    StandIns.day(vehicle);
                    vehicle.whole();
                    vehicle.simulation().driver(before);
                }
            }
            double its = failure.least() * Math.pow(failure.most() / failure.least(), size);
            if (inPlant().contains(failure)) {
                return inPlant(failure, its);
            }
            return switch (failure.mode()) {
                case MECHANICAL -> mechanically(failure, its);
                case NetworkBreaker.MODE -> onNetwork(failure, its);
                default -> inCircuit(failure, its);
            };
        }
    }

    /**
     * Its driver goes on an errand and up a hill, and lets it stand where that shows more; its
     * modules watch.
     */
    private Optional<Broken> mechanically(Part.Failure failure, double size) {
        Mechanics.Failing failing = vehicle.simulation().damage().failing(failure.of());
        return driven(
                failure,
                size,
                () -> vehicle.simulation().damage().fail(failing, size),
                failing.stood(),
                () -> vehicle.repair(failing.repair()));
    }

    private Optional<Broken> inPlant(Part.Failure failure, double size) {
        return driven(
                failure,
                size,
                () ->
                        vehicle.simulation()
                                .fail(VehicleSimulation.PLANT, failure.mode(), failure.of(), size),
                false,
                () -> vehicle.simulation().damage().mend(failure.of()));
    }

    private Optional<Broken> driven(
            Part.Failure failure, double size, Runnable breaks, boolean stood, Runnable mends) {
        VehicleSimulation its = vehicle.simulation();
        Driver before = its.driver();
        its.noticed();
        Set<Integer> stored = vehicle.stored();
        breaks.run();
        StandIns.day(vehicle);
        StandIns.hill(vehicle);
        if (stood) {
            StandIns.stood(vehicle);
        }
        its.driver(before);
        vehicle.live(AWAKE_SECONDS);
        List<Mechanics.Notice> noticed = its.noticed();
        if (noticed.isEmpty() && stored.containsAll(vehicle.stored())) {
            mends.run();
            return Optional.empty();
        }
        return Optional.of(
                new Broken(
                        failure.of(),
                        "%s (%.3g)".formatted(failure.name(), size),
                        noticed.isEmpty()
                                ? WARNING
                                : noticed.stream()
                                        .map(Mechanics.Notice::says)
                                        .distinct()
                                        .collect(Collectors.joining(" ")),
                        noticed.stream().map(Mechanics.Notice::symptom).distinct().toList()));
    }

    /** Its modules miss each other for a while with the key on, and say so. */
    private Optional<Broken> onNetwork(Part.Failure failure, double size) {
        Driver before = vehicle.simulation().driver();
        vehicle.simulation().driver(before.key(2));
        Set<Integer> stored = vehicle.stored();
        network().breakIt(failure.of(), size);
        vehicle.live(MISSES_SECONDS);
        boolean noticed = !stored.containsAll(vehicle.stored());
        vehicle.simulation().driver(before);
        vehicle.live(AWAKE_SECONDS);
        if (!noticed) {
            network().mend(failure.of());
            return Optional.empty();
        }
        Optional<Symptom> told =
                vehicle.description().symptoms().stream()
                        .filter(s -> s.families().contains("network"))
                        .findFirst();
        return Optional.of(
                new Broken(
                        failure.of(),
                        failure.name(),
                        told.map(s -> "Suddenly " + s.name() + ".").orElse(WARNING),
                        told.map(s -> List.of(s.id())).orElse(List.of())));
    }

    private Optional<Broken> inCircuit(Part.Failure failure, double size) {
        Circuits circuits = vehicle.simulation().circuits().orElseThrow();
        EverydayUse use = new EverydayUse(circuits);
        Driver before = vehicle.simulation().driver();
        vehicle.simulation().driver(before.key(2));
        List<Gauge> already = use.used(vehicle::report);
        List<Need> needs = vehicle.description().wiring().needs();
        List<Need> missed = use.unmet(needs);
        vehicle.simulation().fail(VehicleSimulation.CIRCUITS, failure.mode(), failure.of(), size);
        List<Gauge> wrong = new ArrayList<>(use.used(vehicle::report));
        wrong.removeAll(already);
        boolean missing = isMissed(use);
        vehicle.simulation().driver(before);
        if (wrong.isEmpty() && !missing) {
            vehicle.simulation().damage().mend(failure.of());
            return Optional.empty();
        }
        List<String> says = new ArrayList<>();
        List<String> symptoms = new ArrayList<>();
        for (Need n : use.unmet(needs)) {
            if (!missed.contains(n) && !symptoms.contains(n.symptom())) {
                says.add(says(n.what(), circuits.isAnyLoose()));
                symptoms.add(n.symptom());
            }
        }
        for (Gauge g : wrong.stream().filter(Gauge::told).toList()) {
            says.add(use.complaint(g));
            symptoms.add(CircuitSuspects.PREFIX + g.id());
        }
        return Optional.of(
                new Broken(
                        failure.of(),
                        failure.name() + " (" + Circuits.told(failure.mode(), size) + ")",
                        says.isEmpty()
                                ? WARNING
                                : says.stream().limit(TOLD).collect(Collectors.joining(" ")),
                        symptoms.stream().limit(TOLD).toList()));
    }

    /** Whether modules that are silent now are missed by others, which say so. */
    private boolean isMissed(EverydayUse use) {
        if (use.silenced().isEmpty()) {
            return false;
        }
        Set<Integer> stored = vehicle.stored();
        use.shaken(() -> vehicle.live(MISSES_SECONDS));
        return !stored.containsAll(vehicle.stored());
    }

    /** How a driver tells that the engine does not do what it should. */
    private static String says(Need.What what, boolean loose) {
        String says =
                switch (what) {
                    case TURNING -> "Nothing happens when the key is turned to start";
                    case RUNNING -> "It cranks, but does not start";
                    case BURNING -> "It shakes at idle";
                };
        return says + (loose ? ", now and then." : ".");
    }
}
