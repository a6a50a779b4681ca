package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * What joins two points.
 *
 * @param ohm resistance when healthy
 * @param closedBy the setting without which it is open; empty for what is always closed
 * @param openedBy the setting that opens it; empty for what nothing opens
 * @param coil what pulls it closed; null for all but the contacts of a relay with a drawn coil
 */
public record Segment(
        String id,
        String name,
        SegmentKind kind,
        String from,
        String to,
        double ohm,
        String closedBy,
        String openedBy,
        Coil coil)
        implements Component {
    /** What is open leaks less than any meter would see. */
    private static final double OPEN_OHM = 1e9;

    public Segment {
        closedBy = OrEmpty.text(closedBy);
        openedBy = OrEmpty.text(openedBy);
    }

    /**
     * What pulls the contacts of a relay.
     *
     * @param id of the part
     * @param by the setting that energises it
     */
    public record Coil(String id, String by) {
        /** From this share of its nominal voltage on a relay pulls in and holds. */
        static final double HOLDS = 0.55;

        /** Contacts that are welded together need none. */
        private static final Coil WELDED = new Coil("", "");
    }

    /** Whether a coil decides whether it is closed. */
    boolean isPulled() {
        return coil != null && coil != Coil.WELDED;
    }

    /** One without a coil. */
    public Segment(
            String id,
            String name,
            SegmentKind kind,
            String from,
            String to,
            double ohm,
            String closedBy,
            String openedBy) {
        this(id, name, kind, from, to, ohm, closedBy, openedBy, null);
    }

    /** One that nothing opens or closes. */
    public Segment(String id, String name, SegmentKind kind, String from, String to, double ohm) {
        this(id, name, kind, from, to, ohm, "", "");
    }

    /** A pin of a connector. */
    public record Pin(String plug, String number) {}

    /** The pin whose contact it is; empty for all else. */
    public Optional<Pin> pin() {
        if (kind != SegmentKind.CONTACT || openedBy.isEmpty()) {
            return Optional.empty();
        }
        int dot = from.lastIndexOf('.');
        return Optional.of(new Pin(from.substring(0, dot), from.substring(dot + 1)));
    }

    /** Connectors in which a wire ends. */
    public List<String> plugs() {
        return Stream.of(from, to)
                .filter(n -> n.indexOf('.') > 0)
                .map(n -> n.substring(0, n.lastIndexOf('.')))
                .distinct()
                .toList();
    }

    /** How it stays closed when it should open; empty for what nothing closes. */
    public Optional<Wear> stuck() {
        return closedBy.isEmpty() && !isPulled() ? Optional.empty() : kind.stuck();
    }

    /** Whether it is a thing that can be tapped or moved by hand to see if it comes and goes. */
    public boolean isTapped() {
        return kind.loose().isPresent() && !kind.isLine();
    }

    @Override
    public Wear wear() {
        return kind.wear();
    }

    @Override
    public Segment with(double moreOhm) {
        return new Segment(id, name, kind, from, to, ohm + moreOhm, closedBy, openedBy, coil);
    }

    /** The same without anything that opens or closes it. */
    Segment closed() {
        return new Segment(id, name, kind, from, to, ohm, "", "", Coil.WELDED);
    }

    @Override
    public void stamp(Equations into, OperatingState state, Voltages before) {
        into.resistor(from, to, isOpen(state) ? OPEN_OHM : ohm);
    }

    private boolean isOpen(OperatingState state) {
        return coil != Coil.WELDED && state.open().contains(id)
                || !closedBy.isEmpty() && !state.moving().contains(closedBy)
                || !openedBy.isEmpty() && state.moving().contains(openedBy);
    }
}
