package brightlantern.core.proof;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.Divider;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.circuit.Source;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.RepairStep;
import brightlantern.core.suspect.Suspect;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** How a repair is done: as it is described, or as the kind of part wants it. */
public final class RepairSteps {
    private static final RepairStep KEY_OFF =
            RepairStep.of("Key off; take the battery's earth off", "codes first: they may be lost");

    private static final RepairStep PLUG_IN =
            RepairStep.of("Push the plug home until it clicks", "pull at it: it must not come off");

    private static final RepairStep AGAIN =
            RepairStep.of("Battery on; measure again what failed", "under load, as before");

    private RepairSteps() {}

    /**
     * @param circuits in which its part is looked for
     * @return empty when neither says how
     */
    public static List<RepairStep> of(Suspect suspect, List<Circuit> circuits) {
        return suspect.repair().steps().isEmpty()
                ? suspect.effect()
                        .flatMap(Effect::part)
                        .flatMap(
                                id ->
                                        circuits.stream()
                                                .flatMap(c -> c.component(id).stream())
                                                .findFirst())
                        .map(RepairSteps::of)
                        .orElse(List.of())
                : suspect.repair().steps();
    }

    /** Where the part of a suspect is reached soonest; empty when it is on no sheet. */
    public static Optional<ProbePoint> reached(Suspect suspect, List<Circuit> circuits) {
        return suspect.effect()
                .flatMap(Effect::part)
                .flatMap(
                        id ->
                                circuits.stream()
                                        .flatMap(c -> ends(c, id))
                                        .filter(ProbePoint::canBeProbed)
                                        .min(Comparator.comparing(ProbePoint::minutes)));
    }

    /** Both ends of a part, and the pins before those that are inside a housing. */
    private static Stream<ProbePoint> ends(Circuit circuit, String part) {
        Set<String> ends =
                circuit.component(part).stream()
                        .flatMap(c -> Stream.of(c.from(), c.to()))
                        .collect(Collectors.toSet());
        Stream<String> pins =
                circuit.segments().stream()
                        .filter(s -> s.kind() == SegmentKind.CONTACT && ends.contains(s.to()))
                        .map(Segment::from);
        return Stream.concat(ends.stream(), pins).map(circuit::point);
    }

    private static List<RepairStep> of(Component part) {
        if (part instanceof Segment segment) {
            return of(segment);
        }
        if (part instanceof Source) {
            return List.of(
                    KEY_OFF,
                    RepairStep.of("Unplug the module and take it out", "touch earth first"),
                    RepairStep.of("Fit the new one and plug it in", "the part number must fit"),
                    AGAIN);
        }
        if (part instanceof Consumer || part instanceof Divider) {
            return List.of(
                    RepairStep.of("Key off; unplug it", "look at its pins while it is off"),
                    RepairStep.of("Fit the new one", "new seals where it had some"),
                    PLUG_IN,
                    RepairStep.of("Switch it on, and measure again what failed", ""));
        }
        return List.of();
    }

    private static List<RepairStep> of(Segment segment) {
        return switch (segment.kind()) {
            case WIRE, SPLICE ->
                    List.of(
                            KEY_OFF,
                            RepairStep.of(
                                    "Open the loom where it is accused",
                                    "look for green, for a bend, for a bracket that rubs"),
                            RepairStep.of(
                                    "Cut out what is bad; join with the same section",
                                    "a crimp with a sleeve that seals, never twisted by hand"),
                            RepairStep.of("Bind it as it was, with slack where it moves", ""),
                            AGAIN);
            case CONTACT ->
                    List.of(
                            KEY_OFF,
                            RepairStep.of("Unplug it and pull the pin out of its housing", ""),
                            RepairStep.of(
                                    "Clean it, or crimp a new one",
                                    "both halves: the other one is as old"),
                            PLUG_IN,
                            AGAIN);
            case EARTH ->
                    List.of(
                            KEY_OFF,
                            RepairStep.of(
                                    "Undo the nut; brush stud, ring and sheet bright",
                                    "bare metal on every face"),
                            RepairStep.of("Fit a new contact washer and tighten it", ""),
                            RepairStep.of("Seal it with wax", ""),
                            AGAIN);
            case FUSE ->
                    List.of(
                            RepairStep.of("Key off; pull the fuse", "its rating is on the sheet"),
                            RepairStep.of(
                                    "Renew the springs of its holder; fit a fuse of the same rating",
                                    "if it blows at once, something behind it touches earth"),
                            AGAIN);
            case BRIDGE ->
                    List.of(
                            RepairStep.of(
                                    "Make the high voltage safe: key off, service plug out, wait, measure that nothing is left",
                                    "only who is trained for it, with what protects him"),
                            RepairStep.of(
                                    "Look at the plug and its lock; seat it until it locks",
                                    "a lock that is half shut opens the loop and nothing else"),
                            RepairStep.of("Replace it where its bridge is bent or burnt", ""),
                            AGAIN);
            case RELAY, SWITCH ->
                    List.of(
                            RepairStep.of("Key off; take it out", ""),
                            RepairStep.of("Look at its socket before the new one goes in", ""),
                            AGAIN);
            case DRIVER ->
                    List.of(
                            KEY_OFF,
                            RepairStep.of(
                                    "Before a module is replaced: make sure that what it drives is sound",
                                    "a short would kill the new one too"),
                            RepairStep.of("Unplug the module, fit the new one", ""),
                            AGAIN);
        };
    }
}
