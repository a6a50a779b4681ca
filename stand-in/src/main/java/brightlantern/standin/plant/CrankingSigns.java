package brightlantern.standin.plant;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What somebody finds who compares the cylinders of an engine while it is cranked: with a clamp on
 * the starter's cable, at the intake, and at the exhaust.
 */
final class CrankingSigns {
    /** A cylinder that loses more of its pressure than this in a second stands out. */
    private static final double SHOWS = 2;

    private CrankingSigns() {}

    /** Where a cylinder leaks. */
    enum Leak {
        EXHAUST_VALVE,
        INTAKE_VALVE,
        RINGS
    }

    static Map<String, String> acts() {
        Map<String, String> acts = new LinkedHashMap<>();
        acts.put("clamp-starter", "Crank it with a clamp on the starter's cable");
        acts.put("feel-intake", "Crank it and compare the intake pulls");
        acts.put("feel-exhaust", "Crank it and compare the exhaust pulses");
        return acts;
    }

    /**
     * What is found; nothing for an act that is none of these.
     *
     * @param perSecond by cylinder, share of the pressure that is lost in a second
     * @param leaks by cylinder, where
     */
    static String found(String act, double[] perSecond, List<Leak> leaks) {
        for (int k = 0; k < perSecond.length; k++) {
            boolean weak = perSecond[k] > SHOWS;
            String its = " of cylinder " + (k + 1);
            if (weak && act.equals("clamp-starter")) {
                return "The peak" + its + " is lower than the others.";
            }
            if (weak && act.equals("feel-intake") && leaks.get(k) == Leak.INTAKE_VALVE) {
                return "The pull" + its + " is weaker than the others.";
            }
            if (weak && act.equals("feel-exhaust") && leaks.get(k) == Leak.EXHAUST_VALVE) {
                return "The pulse" + its + " is lower and blurred.";
            }
        }
        return switch (act) {
            case "clamp-starter" -> "All peaks are alike.";
            case "feel-intake" -> "All pulls are alike.";
            case "feel-exhaust" -> "All pulses are alike.";
            default -> "";
        };
    }
}
