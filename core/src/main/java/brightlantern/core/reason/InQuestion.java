package brightlantern.core.reason;

import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** The parts of circuits in which the fault may still be. */
public final class InQuestion {
    /** Fainter than this nobody looks for it there. */
    public static final double FAINT = 0.01;

    private InQuestion() {}

    /** Part → probability that the fault is in it, whatever its kind; those that are not faint. */
    public static Map<String, Double> parts(VehicleDescription d, List<Standing> standings) {
        Map<String, Double> all = new HashMap<>();
        standings.forEach(
                s ->
                        d.suspect(s.suspectId())
                                .flatMap(Suspect::effect)
                                .flatMap(Effect::part)
                                .ifPresent(p -> all.merge(p, s.sureness(), Double::sum)));
        all.values().removeIf(p -> p < FAINT);
        return all;
    }
}
