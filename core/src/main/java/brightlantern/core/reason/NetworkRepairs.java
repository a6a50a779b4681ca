package brightlantern.core.reason;

import brightlantern.core.network.NetworkModel.Kind;
import brightlantern.core.suspect.Afterwards;
import brightlantern.core.suspect.RepairStep;
import java.util.List;

/** How what is broken of a network is mended. */
final class NetworkRepairs {
    private static final RepairStep KEY_OFF =
            RepairStep.of(
                    "Key off; wait until the modules sleep, then the battery's earth off", "");

    private static final RepairStep OHMS =
            RepairStep.of(
                    "Measure between both wires, battery off",
                    "as Probe says for this bus: two terminators side by side");

    private static final RepairStep CALL =
            RepairStep.of("Battery and key on; call the roll", "all answer, none is missed");

    private NetworkRepairs() {}

    static List<RepairStep> steps(Kind kind) {
        return switch (kind) {
            case GAP ->
                    List.of(
                            KEY_OFF,
                            RepairStep.of(
                                    "Open the connector or the loom where it is accused",
                                    "dry it; look for green, for pins that were pushed back"),
                            RepairStep.of(
                                    "Renew the pin, or join the wire with a crimp that seals",
                                    "keep the pair twisted to within 4 cm of the joint"),
                            OHMS,
                            CALL);
            case SHORT ->
                    List.of(
                            KEY_OFF,
                            RepairStep.of(
                                    "Find where the wires touch each other or the body",
                                    "brackets, sills, where a seat was bolted down"),
                            RepairStep.of("Part them, bind each, and lead them freely", ""),
                            OHMS,
                            CALL);
            case TERMINATOR ->
                    List.of(
                            KEY_OFF,
                            RepairStep.of("Fit the resistor, or the module that holds it", ""),
                            OHMS,
                            CALL);
            case FEED ->
                    List.of(
                            RepairStep.of("Key off; pull the fuse, look at the earth", ""),
                            RepairStep.of(
                                    "Renew what is burnt; brush the earth bright",
                                    "a fuse that blew has a reason: look for it first"),
                            RepairStep.of("Hang a lamp on the module's plug: supply and earth", ""),
                            CALL);
            case MODULE, BABBLING ->
                    List.of(
                            RepairStep.of(
                                    "Before it is replaced: supply and earth at its plug, with a lamp",
                                    "a module without either is as dumb as a dead one"),
                            KEY_OFF,
                            RepairStep.of("Fit the new module", "the part number must fit"),
                            CALL);
        };
    }

    static List<Afterwards> afterwards(Kind kind) {
        return kind == Kind.MODULE || kind == Kind.BABBLING
                ? List.of(new Afterwards("Write the configuration of the old module into it", ""))
                : List.of();
    }
}
