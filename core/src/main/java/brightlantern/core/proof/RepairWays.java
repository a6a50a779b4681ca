package brightlantern.core.proof;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.RepairWay;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The ways to mend a suspect: the one that is described, and those that its kind of part allows
 * beside it, such as a new wire instead of a joint in the old one.
 */
public final class RepairWays {
    /** Dearer parts are to be had used. */
    private static final double WORTH_USED = 250;

    /** A used part costs this share of what the repair with a new one costs. */
    private static final double USED_SHARE = 0.6;

    private static final String FOR_GOOD = "for good";

    private RepairWays() {}

    /**
     * @param circuits in which its part is looked for
     * @param minute price of a minute of work
     */
    public static List<RepairWay> of(Suspect suspect, List<Circuit> circuits, double minute) {
        Repair repair = suspect.repair();
        Optional<Component> part =
                suspect.effect()
                        .flatMap(Effect::part)
                        .flatMap(
                                id ->
                                        circuits.stream()
                                                .flatMap(c -> c.component(id).stream())
                                                .findFirst());
        List<RepairWay> ways = new ArrayList<>();
        Optional<SegmentKind> kind =
                part.filter(Segment.class::isInstance).map(p -> ((Segment) p).kind());
        double price = price(suspect, minute);
        ways.add(
                new RepairWay(
                        repair.name(),
                        repair.minutes(),
                        price,
                        repair.parts(),
                        kind.map(RepairWays::lasts).orElse(FOR_GOOD),
                        repair.risk()));
        ways.addAll(repair.instead());
        kind.ifPresent(k -> instead(k, repair, price, minute, ways));
        if (kind.isEmpty() && repair.instead().isEmpty() && price >= WORTH_USED) {
            ways.add(
                    new RepairWay(
                            repair.name() + ", with a used part",
                            repair.minutes(),
                            Math.round(USED_SHARE * price),
                            "used",
                            "nobody can say",
                            "no warranty on the part"));
        }
        return List.copyOf(ways);
    }

    /**
     * Work and parts. What is written of a repair is its price; what follows from a circuit tells
     * its parts alone.
     *
     * @param minute price of a minute of work
     */
    public static double price(Suspect suspect, double minute) {
        Repair repair = suspect.repair();
        return Reasoners.isDerived(suspect)
                ? Math.round(repair.price() + repair.minutes() * minute)
                : repair.price();
    }

    private static String lasts(SegmentKind kind) {
        return switch (kind) {
            case WIRE, SPLICE -> "for good, as long as the joint stays dry";
            case CONTACT, EARTH -> "for some years where it is wet";
            default -> FOR_GOOD;
        };
    }

    private static void instead(
            SegmentKind kind, Repair repair, double price, double minute, List<RepairWay> ways) {
        switch (kind) {
            case WIRE, SPLICE -> {
                ways.add(
                        way(
                                repair,
                                price,
                                minute,
                                "Lead a new wire beside the old one",
                                30,
                                15,
                                "wire, sleeve"));
                ways.add(way(repair, price, minute, "Replace the harness", 240, 420, "harness"));
            }
            case CONTACT ->
                    ways.add(
                            way(
                                    repair,
                                    price,
                                    minute,
                                    "Replace both halves of the plug",
                                    45,
                                    40,
                                    "plug, pins"));
            case EARTH ->
                    ways.add(
                            way(
                                    repair,
                                    price,
                                    minute,
                                    "Lead a new earth beside it",
                                    15,
                                    10,
                                    "wire, stud"));
            case FUSE ->
                    ways.add(
                            way(
                                    repair,
                                    price,
                                    minute,
                                    "Replace the fuse box",
                                    120,
                                    260,
                                    "fuse box"));
            case DRIVER ->
                    ways.add(
                            new RepairWay(
                                    "Lead it through a relay of its own",
                                    75,
                                    75 * minute + 25,
                                    "relay, wire",
                                    "as long as the relay",
                                    "a makeshift: the module goes on storing its code"));
            case RELAY, SWITCH -> {
                // there is nothing but a new one
            }
        }
    }

    private static RepairWay way(
            Repair repair,
            double price,
            double minute,
            String name,
            double more,
            double parts,
            String what) {
        return new RepairWay(
                name,
                repair.minutes() + more,
                Math.round(price + more * minute + parts),
                what,
                FOR_GOOD,
                "none to speak of");
    }
}
