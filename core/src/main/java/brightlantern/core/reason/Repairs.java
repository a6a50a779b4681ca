package brightlantern.core.reason;

import brightlantern.core.circuit.Wear;
import brightlantern.core.suspect.Afterwards;
import brightlantern.core.suspect.Repair;

/** Repairs as they follow from how a part of a circuit breaks. */
final class Repairs {
    private static final String AS_FOUND = "as found";
    private static final String MODULE = "module";

    private Repairs() {}

    /** What is mended where it is. */
    static Repair mended(String id, Wear wear, String what) {
        return of(id, wear, what, AS_FOUND);
    }

    /** What is replaced with its module, which has to be configured. */
    static Repair ofModule(String id, Wear wear, String what) {
        return new Repair(
                        CircuitSuspects.REPAIR + id,
                        wear.repair() + " " + what,
                        wear.minutes(),
                        wear.price(),
                        MODULE,
                        "needs its configuration written afterwards")
                .afterwards(
                        new Afterwards("Write the configuration of the old module into it", ""));
    }

    /**
     * @param id of the suspect, without what all have before it
     * @param what it is done to, in words
     * @param parts that it takes
     */
    static Repair of(String id, Wear wear, String what, String parts) {
        return new Repair(
                CircuitSuspects.REPAIR + id,
                wear.repair() + " " + what,
                wear.minutes(),
                wear.price(),
                parts,
                "none to speak of");
    }
}
