package brightlantern.standin;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Sensed;
import brightlantern.standin.instrument.Scope;
import brightlantern.standin.network.BusScope;
import brightlantern.standin.plant.Crank;
import brightlantern.standin.plant.EngineWaves;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Where the lanes of an oscilloscope can be connected at a stand-in: clamps and pickups at its
 * engine, and every point of its circuits.
 */
final class ScopePlaces implements Scope.Places {
    private static final double NOISE_VOLTS = 0.004;

    /** How long a contact that is moved stays open, and shut, on the mean, s. */
    private static final double OPEN_FOR = 0.008;

    private static final double SHUT_FOR = 0.06;

    /** Battery plus against battery minus. */
    static final String SUPPLY = "supply";

    private final VehicleSimulation simulation;
    private final Optional<Crank> crank;
    private final Random random = new Random(11);

    private final BusScope buses;

    /** Point → what marks make of the sensor whose signal is there. */
    private final Map<String, String> marked = new HashMap<>();

    private boolean open;

    ScopePlaces(VehicleSimulation simulation, BusScope buses) {
        this.simulation = simulation;
        this.buses = buses;
        this.crank =
                simulation.all().stream()
                        .filter(Crank.class::isInstance)
                        .map(Crank.class::cast)
                        .findFirst();
        simulation
                .description()
                .circuits()
                .forEach(
                        c -> {
                            mark(c, EngineWaves.CRANK, EngineWaves.CRANK_MARKS);
                            mark(c, EngineWaves.CAM, EngineWaves.CAM_MARKS);
                        });
    }

    private void mark(Circuit circuit, String sensor, String marks) {
        Sensed.signalOf(circuit, sensor).forEach(point -> marked.put(point, marks));
    }

    @Override
    public boolean knows(String place) {
        return place.equals(SUPPLY)
                || isEngine(place)
                || buses.knows(place)
                || simulation.volts(place).isPresent();
    }

    private boolean isEngine(String place) {
        return crank.filter(c -> c.waves().isPlace(place)).isPresent();
    }

    @Override
    public Map<String, double[]> feel(Iterable<String> places, double seconds, int count) {
        Set<String> wanted = new LinkedHashSet<>();
        places.forEach(wanted::add);
        Map<String, double[]> all =
                new HashMap<>(
                        buses.feel(
                                wanted.stream().filter(buses::knows).toList(),
                                simulation.seconds(),
                                seconds,
                                count));
        Set<String> engine =
                wanted.stream()
                        .map(p -> marked.getOrDefault(p, p))
                        .filter(this::isEngine)
                        .collect(Collectors.toSet());
        if (!engine.isEmpty()) {
            Map<String, double[]> waves =
                    crank.orElseThrow().waves().turn(simulation.plant(), engine, seconds, count);
            all.putAll(waves);
            wanted.stream()
                    .filter(p -> waves.containsKey(marked.get(p)))
                    .forEach(p -> all.put(p, arrived(p, waves.get(marked.get(p)))));
        }
        if (wanted.contains(SUPPLY)) {
            double[] wave = simulation.plant().supplyWave(seconds, count);
            Arrays.setAll(wave, i -> wave[i] + NOISE_VOLTS * random.nextGaussian());
            all.put(SUPPLY, wave);
        }
        for (String place : wanted) {
            all.computeIfAbsent(place, p -> volts(p, seconds, count));
        }
        return all;
    }

    /** What is left at a point of what marks make, by what is left there of a sensor at rest. */
    private double[] arrived(String point, double[] marks) {
        double left = simulation.volts(point).orElse(0) / EngineWaves.RESTS_VOLTS;
        return Arrays.stream(marks)
                .map(v -> v * left + NOISE_VOLTS * random.nextGaussian())
                .toArray();
    }

    /**
     * Volts at a point; of what is moved the contacts open and shut at random (telegraph noise).
     */
    private double[] volts(String place, double seconds, int count) {
        double rests = simulation.volts(place).orElse(0);
        OptionalDouble opens = simulation.flicker(place);
        double dt = seconds / count;
        double[] samples = new double[count];
        for (int i = 0; i < count; i++) {
            if (opens.isPresent()
                    && random.nextDouble() < 1 - Math.exp(-dt / (open ? OPEN_FOR : SHUT_FOR))) {
                open = !open;
            }
            samples[i] =
                    (opens.isPresent() && open ? opens.getAsDouble() : rests)
                            + NOISE_VOLTS * random.nextGaussian();
        }
        return samples;
    }
}
