package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.DoubleSupplier;

/**
 * Parts that no module watches, such as brakes, wheels and steering: how worn each is, as a gauge
 * would tell it. Sensors are called {@code gear.} and its mode; drivers feel them.
 */
public final class RunningGear implements Part {
    private final Map<String, Double> worn = new TreeMap<>();

    /**
     * @param whole by mode, what a gauge tells of a part that is whole
     */
    public RunningGear(Map<String, Double> whole) {
        worn.putAll(whole);
    }

    @Override
    public void step(Whole whole, double dt) {
        // wear takes longer than any drive here
    }

    @Override
    public synchronized Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> sensors = new HashMap<>();
        worn.keySet().forEach(mode -> sensors.put("gear." + mode, () -> read(mode)));
        return sensors;
    }

    private synchronized double read(String mode) {
        return worn.get(mode);
    }

    @Override
    public synchronized void fail(String mode, String of, double size) {
        if (worn.replace(mode, size) == null) {
            Part.super.fail(mode, of, size);
        }
    }
}
