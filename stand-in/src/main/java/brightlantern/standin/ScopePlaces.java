package brightlantern.standin;

import brightlantern.standin.instrument.Scope;
import brightlantern.standin.network.BusScope;
import brightlantern.standin.plant.Crank;
import brightlantern.standin.plant.EngineWaves;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;

/**
 * Where the lanes of an oscilloscope can be connected at a stand-in: clamps and pickups at its
 * engine, and every point of its circuits.
 */
final class ScopePlaces implements Scope.Places {
    private static final Map<String, EngineWaves.Place> ENGINE =
            Map.of(
                    "starter", EngineWaves.Place.STARTER,
                    "intake", EngineWaves.Place.INTAKE,
                    "exhaust", EngineWaves.Place.EXHAUST,
                    "crankcase", EngineWaves.Place.CRANKCASE,
                    "cylinder-1", EngineWaves.Place.FIRST);

    private static final double NOISE_VOLTS = 0.004;

    private final VehicleSimulation simulation;
    private final Optional<Crank> crank;
    private final Random random = new Random(11);

    private final BusScope buses;

    ScopePlaces(VehicleSimulation simulation, BusScope buses) {
        this.simulation = simulation;
        this.buses = buses;
        this.crank =
                simulation.all().stream()
                        .filter(Crank.class::isInstance)
                        .map(Crank.class::cast)
                        .findFirst();
    }

    @Override
    public boolean knows(String place) {
        return ENGINE.containsKey(place)
                ? crank.isPresent()
                : buses.knows(place) || simulation.volts(place).isPresent();
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
        Map<EngineWaves.Place, double[]> engine =
                wanted.stream().anyMatch(ENGINE::containsKey)
                        ? crank.orElseThrow().waves().turn(simulation.plant(), seconds, count)
                        : Map.of();
        for (String place : wanted) {
            if (ENGINE.containsKey(place)) {
                all.put(place, engine.get(ENGINE.get(place)));
            } else {
                all.computeIfAbsent(place, p -> volts(simulation.volts(p).orElse(0), count));
            }
        }
        return all;
    }

    private double[] volts(double volts, int count) {
        double[] samples = new double[count];
        Arrays.setAll(samples, i -> volts + NOISE_VOLTS * random.nextGaussian());
        return samples;
    }
}
