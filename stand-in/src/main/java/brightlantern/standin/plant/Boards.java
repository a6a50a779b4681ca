package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleSupplier;

/**
 * What every module knows of itself: its supply, its warmth, how long and how often it was awake.
 */
public final class Boards implements Part {
    private static final double AMBIENT = 14;

    /** From the fuse to the module and back. */
    private static final double LEAD_OHM = 0.3;

    private final List<String> modules;
    private final double[] drop;
    private final double[] warm;
    private double volts = 12.6;
    private double awake;
    private double cycles;
    private boolean on;

    public Boards(List<String> modules, double cycles) {
        this.modules = modules;
        this.cycles = cycles;
        drop = new double[modules.size()];
        warm = new double[modules.size()];
        for (int i = 0; i < drop.length; i++) {
            // longer wires and more load lose more; by the module's name, so that it stays its own
            drop[i] = 0.02 + 0.012 * Math.floorMod(modules.get(i).hashCode(), 13);
            warm[i] = AMBIENT;
        }
    }

    /** Id of the value by which a module tells its supply. */
    public static String supplyOf(String module) {
        return module + ".board.supply";
    }

    @Override
    public synchronized void step(Whole w, double dt) {
        volts = w.volts();
        boolean now = w.driver().key() == 2;
        cycles += now && !on ? 1 : 0;
        on = now;
        awake = on ? awake + dt : 0;
        for (int i = 0; i < warm.length; i++) {
            double towards = on ? AMBIENT + 9 + 60 * drop[i] : AMBIENT;
            warm[i] += (towards - warm[i]) * Math.min(1, dt / 240);
        }
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        Map<String, DoubleSupplier> s = new HashMap<>();
        for (int i = 0; i < modules.size(); i++) {
            int its = i;
            String id = modules.get(i);
            s.put(supplyOf(id), () -> volts - drop[its]);
            s.put(id + ".board.temperature", () -> warm[its]);
            s.put(id + ".board.current", () -> on ? 1000 * drop[its] / LEAD_OHM : 0.2);
            s.put(id + ".board.awake", () -> awake);
            s.put(id + ".board.cycles", () -> cycles);
        }
        return s;
    }
}
