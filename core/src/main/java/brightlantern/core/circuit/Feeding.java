package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * A circuit as it is written: a fuse, what switches it, and what it feeds. The wires, pins and
 * splices between them follow from that.
 *
 * @param box of its fuse
 * @param fuse number of the fuse, such as F12
 * @param amps of the fuse; decides the section of the wires
 * @param metres of wire from the fuse to the consumers
 * @param colour of the wires that feed
 * @param by what switches it; empty for a circuit that is always fed
 */
public record Feeding(
        String id,
        String name,
        String system,
        String box,
        String fuse,
        double amps,
        double metres,
        String colour,
        Switching by,
        List<Fed> feeds) {
    public Feeding {
        metres = metres == 0 ? 3 : metres;
        feeds = OrEmpty.list(feeds);
    }

    /**
     * What switches it.
     *
     * @param kind relay, switch, or driver for an output of a module
     * @param id of the part
     * @param setting as a state, such as "low beam on"
     * @param does what somebody does for it
     * @param madeBy what makes it; somebody's hand when nothing is said
     * @param coil of a relay, how its coil gets its current; null where that is not drawn
     */
    public record Switching(
            SegmentKind kind,
            String id,
            String name,
            String setting,
            String does,
            Setting.By madeBy,
            String place,
            double minutes,
            Control coil) {
        public Switching {
            madeBy = madeBy == null ? Setting.By.HAND : madeBy;
        }
    }

    /**
     * What leads the current of a relay's coil to earth; the other end of the coil is fed in its
     * box.
     *
     * @param kind switch, or driver for an output of a module
     * @param colour of the wire from the relay
     */
    public record Control(
            SegmentKind kind,
            String id,
            String name,
            String colour,
            String place,
            double minutes) {}

    /**
     * A consumer.
     *
     * @param watts at 12 V
     * @param plug number of its connector
     * @param pins of its supply and of its earth
     * @param earth the stud to which it goes
     * @param minutes to get at its connector
     * @param module that sees when it is dead; empty when none does
     * @param code that it sets then
     * @param value by which a module tells what arrives at it; empty when none does
     * @param hidden whether no driver can tell by itself that it does not work
     */
    public record Fed(
            String id,
            String name,
            ConsumerKind kind,
            double watts,
            String plug,
            List<String> pins,
            String earth,
            String place,
            double minutes,
            String module,
            String code,
            String value,
            boolean hidden) {
        public Fed {
            pins = OrEmpty.list(pins);
            module = OrEmpty.text(module);
            code = OrEmpty.text(code);
            value = OrEmpty.text(value);
        }
    }
}
