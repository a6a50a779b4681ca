package brightlantern.standin;

import brightlantern.core.code.Code;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Part;
import java.util.List;
import java.util.Set;

/**
 * The tests of all codes for which a vehicle has no monitor of its own: they run as real ones do,
 * the emission system's with the engine running, all others with the key on, and find nothing.
 */
final class QuietMonitors {
    /** A test of the emission system takes so long with the engine running, s. */
    private static final double RUNNING_SECONDS = 20;

    /** Any other test is through so long after the key was turned on, s. */
    private static final double AWAKE_SECONDS = 10;

    /** A test that a low supply would disturb waits. */
    private static final double LEAST_VOLTS = 11;

    private final List<Code> engineCodes;
    private final List<Code> otherCodes;
    private double running;
    private double awake;

    /**
     * @param monitored codes that have a monitor of their own, each as module and code with a blank
     *     between
     */
    QuietMonitors(VehicleDescription description, Set<String> monitored) {
        List<Code> all =
                description.codes().stream()
                        .filter(c -> c.misses().isEmpty() && !c.sets().equals("network"))
                        .filter(c -> !monitored.contains(c.module() + " " + c.code()))
                        .toList();
        engineCodes = all.stream().filter(c -> EmissionSide.concerns(c.code())).toList();
        otherCodes = all.stream().filter(c -> !EmissionSide.concerns(c.code())).toList();
    }

    void reset() {
        running = 0;
        awake = 0;
    }

    /** Time passes with the key on. */
    void watch(double seconds, boolean engineRuns, double volts, Part.Watcher sink) {
        if (volts < LEAST_VOLTS) {
            return;
        }
        running = engineRuns ? running + seconds : 0;
        awake += seconds;
        if (running >= RUNNING_SECONDS) {
            running = 0;
            engineCodes.forEach(c -> sink.report(c.module(), c.code(), false));
        }
        if (awake >= AWAKE_SECONDS) {
            awake = 0;
            otherCodes.forEach(c -> sink.report(c.module(), c.code(), false));
        }
    }
}
