package brightlantern.app.probe;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.reason.InQuestion;
import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;

/** The circuit as a drawing, from the description's grid. Figures in SVG units. */
record CircuitSheet(
        int width,
        int height,
        List<Wire> wires,
        List<Pin> pins,
        List<Motor> motors,
        List<Load> loads) {
    private static final int LEFT = 60;
    private static final int TOP = 46;
    private static final int COLUMN = 128;
    private static final int ROW = 84;

    /** From so much on the fault may well be there, and is likely there. */
    private static final double WELL = 0.05;

    private static final double LIKELY = 0.3;

    /**
     * @param path SVG path of the wire
     * @param common part of the way of both motors
     * @param x middle of the wire, for its sign
     * @param label how far its name stands above that
     * @param lit whether the fault may still be there: none, may, well or likely
     */
    record Wire(
            String id,
            String name,
            SegmentKind kind,
            String path,
            boolean common,
            int x,
            int y,
            boolean upright,
            boolean named,
            int label,
            String lit) {
        /** What stands beside it; the plug of a bridge stands at either of its ends. */
        public String shown() {
            return kind == SegmentKind.BRIDGE ? "Bridge" : name;
        }
    }

    private static final int NEAR = 16;

    /** How wide a letter of a name is, about. */
    private static final int LETTER = 6;

    /** What the ids of splices begin with. */
    private static final String SPLICE = "S-";

    /** So far it is from what switches to earth to the sign, and how that is drawn. */
    private static final int TO_EARTH = 96;

    private static final String EARTH_SIGN = "v12m-11 0h22m-17 5h12m-9 5h6";

    /** What a load is drawn with at either end, at least. */
    private static final int LEAD = 26;

    private static final int LEAD_OF_A_SENSOR = 38;

    /** Names of what switches are long; they stand above those of the wires beside it. */
    private static final int FAR = 32;

    /**
     * @param state none, holds or fails by the newest readings there
     */
    record Pin(
            String id,
            String name,
            String place,
            String minutes,
            int x,
            int y,
            boolean probe,
            boolean chosen,
            String state,
            boolean below,
            boolean named) {
        /** What it is, for those who do not see the sheet. */
        public String label() {
            return id
                    + ", "
                    + name
                    + ", "
                    + place
                    + ", "
                    + minutes
                    + (state.equals("none") ? "" : ", " + state);
        }
    }

    /**
     * @param lit as of a wire
     */
    record Motor(String name, int x, int y, String lit) {}

    /**
     * What a drawn circuit feeds, or a sensor.
     *
     * @param kind lamp, motor, or other
     * @param lead how far its wires reach up and down from its middle
     * @param lit as of a wire
     */
    record Load(String name, String kind, int x, int y, int lead, String lit) {}

    /** Rows between which the wires of drawn sheets turn, each earth in a row of its own. */
    private static final double TURN = 0.75;

    private static final double EARTH_TURN = 0.35;
    private static final double EARTH_STEP = 0.16;

    /**
     * @param doubt part → probability that the fault is there
     */
    static CircuitSheet of(
            Circuit circuit,
            List<String> common,
            String chosen,
            List<Evidence.Reading> taken,
            Map<String, Double> doubt) {
        List<Wire> wires = new ArrayList<>();
        for (Segment s : circuit.segments()) {
            ProbePoint a = circuit.point(s.from());
            ProbePoint b = circuit.point(s.to());
            if (!circuit.gauges().isEmpty()) {
                if (!isInside(circuit, s)) {
                    wires.add(drawn(circuit, s, a, b, lit(s.id(), doubt)));
                }
                continue;
            }
            // supply wires run along their row first and earth wires along their column first, so
            // that none cross
            boolean rowFirst = a.y() <= b.y() && a.side().equals("supply");
            String path =
                    "M"
                            + x(a)
                            + " "
                            + y(a)
                            + (rowFirst ? "H" + x(b) + "V" + y(b) : "V" + y(b) + "H" + x(b));
            boolean upright = a.x() == b.x();
            wires.add(
                    new Wire(
                            s.id(),
                            s.name(),
                            s.kind(),
                            path,
                            common.contains(s.id()),
                            (x(a) + x(b)) / 2,
                            upright ? (y(a) + y(b)) / 2 : rowFirst ? y(a) : y(b),
                            upright,
                            true,
                            NEAR,
                            lit(s.id(), doubt)));
        }
        double bottom = circuit.points().stream().mapToDouble(ProbePoint::y).max().orElse(1);
        List<Pin> pins = new ArrayList<>();
        for (ProbePoint p : circuit.points()) {
            String state = state(p, taken);
            pins.add(
                    new Pin(
                            p.id(),
                            p.name(),
                            p.place(),
                            minutes(p),
                            x(p),
                            y(p),
                            p.canBeProbed(),
                            p.id().equals(chosen),
                            state,
                            p.y() >= bottom,
                            p.canBeProbed() || p.id().startsWith(SPLICE)));
        }
        List<Motor> motors = new ArrayList<>();
        for (MotorPart m : circuit.motors()) {
            ProbePoint a = circuit.point(m.from());
            ProbePoint b = circuit.point(m.to());
            motors.add(new Motor(m.name(), x(a), (y(a) + y(b)) / 2, lit(m.id(), doubt)));
        }
        double right = circuit.points().stream().mapToDouble(ProbePoint::x).max().orElse(1);
        int named =
                wires.stream()
                        .filter(w -> w.named() && w.upright())
                        .mapToInt(w -> w.x() + NEAR + LETTER * w.name().length())
                        .max()
                        .orElse(0);
        return new CircuitSheet(
                Math.max(LEFT + (int) (right * COLUMN) + 150, named),
                TOP + (int) (bottom * ROW) + 50,
                wires,
                pins,
                motors,
                loads(circuit, doubt));
    }

    /** What a module holds its own inputs down with is not on the harness. */
    private static boolean isInside(Circuit circuit, Segment s) {
        return s.kind() == SegmentKind.DRIVER && circuit.point(s.from()).side().equals("signal");
    }

    /** A wire of a sheet that the program has laid out: down, along, and down again. */
    private static Wire drawn(Circuit circuit, Segment s, ProbePoint a, ProbePoint b, String lit) {
        if (switchesToEarth(s)) {
            return toEarth(s, a, lit);
        }
        boolean upright = a.x() == b.x();
        boolean level = a.y() == b.y();
        ProbePoint low = a.y() > b.y() ? a : b;
        // at a splice the wires of many come together
        ProbePoint own = low.id().startsWith(SPLICE) ? low == a ? b : a : low;
        List<String> earths =
                circuit.segments().stream()
                        .filter(e -> e.kind() == SegmentKind.EARTH)
                        .map(Segment::from)
                        .toList();
        int rank = earths.indexOf(low.id());
        double turn =
                rank < 0
                        ? Math.min(low.y() - EARTH_STEP, Math.min(a.y(), b.y()) + TURN)
                        : low.y() - EARTH_TURN - EARTH_STEP * rank;
        int yTurn = TOP + (int) Math.round(turn * ROW);
        String path =
                "M"
                        + x(a)
                        + " "
                        + y(a)
                        + (upright || level
                                ? "L" + x(b) + " " + y(b)
                                : "V" + yTurn + "H" + x(b) + "V" + y(b));
        boolean earth = s.kind() == SegmentKind.EARTH;
        boolean switches =
                s.kind() == SegmentKind.DRIVER
                        || s.kind() == SegmentKind.SWITCH
                        || s.kind() == SegmentKind.RELAY;
        return new Wire(
                s.id(),
                s.name(),
                s.kind(),
                path,
                false,
                upright || level ? (x(a) + x(b)) / 2 : earth ? x(a) : x(own),
                upright || level ? (y(a) + y(b)) / 2 : (yTurn + (earth ? y(a) : y(own))) / 2,
                !level,
                s.kind() != SegmentKind.CONTACT && s.kind() != SegmentKind.DRIVER
                        || s.name().startsWith("Output"),
                switches ? FAR : NEAR,
                lit);
    }

    private static boolean switchesToEarth(Segment s) {
        return s.to().equals(Circuit.MINUS)
                && (s.kind() == SegmentKind.DRIVER || s.kind() == SegmentKind.SWITCH);
    }

    /** What leads to an earth of its own, inside a module or a switch, ends in an earth's sign. */
    private static Wire toEarth(Segment s, ProbePoint from, String lit) {
        return new Wire(
                s.id(),
                s.name(),
                s.kind(),
                "M" + x(from) + " " + y(from) + "h" + TO_EARTH + EARTH_SIGN,
                false,
                x(from) + TO_EARTH / 2,
                y(from),
                false,
                true,
                FAR,
                lit);
    }

    private static String lit(String part, Map<String, Double> doubt) {
        double p = doubt.getOrDefault(part, 0.0);
        return p >= LIKELY ? "likely" : p >= WELL ? "well" : p >= InQuestion.FAINT ? "may" : "none";
    }

    private static List<Load> loads(Circuit circuit, Map<String, Double> doubt) {
        List<Load> loads = new ArrayList<>();
        circuit.consumers()
                .forEach(c -> loads.add(load(circuit, c, c.kind().word(), lit(c.id(), doubt))));
        circuit.dividers().forEach(d -> loads.add(load(circuit, d, "sensor", lit(d.id(), doubt))));
        return loads;
    }

    private static Load load(Circuit circuit, Component of, String kind, String lit) {
        ProbePoint a = circuit.point(of.from());
        ProbePoint b = circuit.point(of.to());
        int lead =
                kind.equals("sensor")
                        ? LEAD_OF_A_SENSOR
                        : Math.max(LEAD, Math.abs(y(b) - y(a)) / 2);
        return new Load(of.name(), kind, x(a), (y(a) + y(b)) / 2, lead, lit);
    }

    /** How many parts are lit. */
    public long lit() {
        return lights().filter(l -> !l.equals("none")).count();
    }

    /** How many parts it shows. */
    public long parts() {
        return lights().count();
    }

    private Stream<String> lights() {
        return Stream.of(
                        wires.stream().map(Wire::lit),
                        loads.stream().map(Load::lit),
                        motors.stream().map(Motor::lit))
                .flatMap(l -> l);
    }

    /**
     * By the newest reading of each condition: a bad one says fails, until it was measured good in
     * the same condition.
     */
    private static String state(ProbePoint point, List<Evidence.Reading> taken) {
        Map<String, Boolean> newest = new HashMap<>();
        taken.stream()
                .filter(r -> r.pointId().equals(point.id()))
                .forEach(r -> newest.put(r.key(), r.right()));
        return newest.isEmpty() ? "none" : newest.containsValue(false) ? "fails" : "holds";
    }

    private static String minutes(ProbePoint p) {
        return p.canBeProbed()
                ? String.format(Locale.ROOT, "%.0f min", p.minutes())
                : "not reachable";
    }

    private static int x(ProbePoint p) {
        return LEFT + (int) Math.round(p.x() * COLUMN);
    }

    private static int y(ProbePoint p) {
        return TOP + (int) Math.round(p.y() * ROW);
    }
}
