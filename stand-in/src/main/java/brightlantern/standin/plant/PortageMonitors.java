package brightlantern.standin.plant;

import java.util.Set;

/** The monitors that the van's modules run themselves, and what a module does when one fails. */
final class PortageMonitors {
    static final Set<String> CODES =
            Set.of("engine P0299-00", "engine P0562-00", "trailer B1021-13");

    private static final double BOOST_BEHIND_KPA = 22;
    private static final double BOOST_BEHIND_SECONDS = 6;
    private static final double BOOST_GOOD_SECONDS = 10;
    private static final double BOOST_FROM_DEMAND = 0.7;
    private static final double BOOST_FROM_RPM = 1500;
    private static final double LOW_SUPPLY_VOLTS = 10.5;
    private static final double LOW_SUPPLY_SECONDS = 3;
    private static final double LAMP_SECONDS = 2;

    private double behind;
    private double good;
    private double low;
    private double lamp;

    void reset() {
        behind = 0;
        good = 0;
        low = 0;
        lamp = 0;
    }

    void supply(double volts, boolean cranking, double dt, Part.Watcher watcher) {
        low = volts < LOW_SUPPLY_VOLTS && !cranking ? low + dt : 0;
        if (low > LOW_SUPPLY_SECONDS) {
            watcher.report("engine", "P0562-00", true);
        }
    }

    void lamp(boolean open, double dt, Part.Watcher watcher) {
        lamp += dt;
        if (lamp > LAMP_SECONDS) {
            watcher.report("trailer", "B1021-13", open);
            lamp = 0;
        }
    }

    /**
     * The engine module limits torque when it sees boost stay behind for long.
     *
     * @param lagKpa how far boost is behind its target
     */
    void boost(PortagePlant plant, double lagKpa, double dt, Part.Watcher watcher) {
        boolean judged =
                plant.running()
                        && !plant.limited()
                        && plant.demand() > BOOST_FROM_DEMAND
                        && plant.rpm() > BOOST_FROM_RPM;
        if (!judged) {
            return;
        }
        boolean lags = lagKpa > BOOST_BEHIND_KPA;
        behind = Math.max(0, behind + (lags ? dt : -dt / 2));
        good = lags ? 0 : good + dt;
        if (behind > BOOST_BEHIND_SECONDS) {
            behind = 0;
            watcher.report("engine", "P0299-00", true);
            plant.limit();
        } else if (good > BOOST_GOOD_SECONDS && behind <= 0) {
            good = 0;
            watcher.report("engine", "P0299-00", false);
        }
    }
}
