package brightlantern.standin;

import brightlantern.core.take.Take;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Part;
import brightlantern.standin.plant.PlainPlant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleSupplier;

/** A plain plant with parts, driven as fast as it can be computed, and recorded. */
public final class Driven {
    private static final double DT = 0.01;
    private static final int EVERY = 10;

    private final PlainPlant plant;
    private final List<Part> parts;
    private final Map<String, DoubleSupplier> sensors = new HashMap<>();

    public Driven(PlainPlant plant, Part... parts) {
        this.plant = plant;
        this.parts = List.of(parts);
        sensors.put("engine.speed", plant::rpm);
        sensors.put("engine.load", () -> 100 * plant.load());
        sensors.put("engine.state", () -> plant.running() ? 2 : plant.cranking() ? 1 : 0);
        sensors.put("vehicle.speed", plant::kilometresPerHour);
        sensors.put("coolant", plant::coolant);
        this.parts.forEach(p -> sensors.putAll(p.sensors()));
    }

    public PlainPlant plant() {
        return plant;
    }

    public void start(Driver.Program program, double seconds) {
        plant.driver(Driver.away().key(2));
        plant.crank();
        pass(3);
        drive(program, seconds);
    }

    public void drive(Driver.Program program, double seconds) {
        plant.driver(plant.driver().drive(program));
        pass(seconds);
    }

    public void pass(double seconds) {
        for (long i = 0; i < Math.round(seconds / DT); i++) {
            step();
        }
    }

    private void step() {
        plant.step(DT);
        parts.forEach(p -> p.step(plant, DT));
    }

    /** Ten samples a second of each value. */
    public Take record(List<String> ids, double seconds) {
        int n = (int) Math.round(seconds / DT) / EVERY;
        double[] times = new double[n];
        Map<String, double[]> values = new LinkedHashMap<>();
        ids.forEach(id -> values.put(id, new double[n]));
        for (int i = 0; i < n; i++) {
            for (int k = 0; k < EVERY; k++) {
                step();
            }
            times[i] = i * EVERY * DT;
            int at = i;
            values.forEach((id, column) -> column[at] = sensors.get(id).getAsDouble());
        }
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        values.forEach((id, column) -> columns.put(id, new Take.Column(times, column)));
        return new Take(columns, List.of());
    }
}
