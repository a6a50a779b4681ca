package brightlantern.app.probe;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.SegmentKind;
import brightlantern.core.suspect.Evidence;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The circuit as a drawing, from the description's grid. Figures in SVG units. */
record CircuitSheet(int width, int height, List<Wire> wires, List<Pin> pins, List<Motor> motors) {
    private static final int LEFT = 60;
    private static final int TOP = 46;
    private static final int COLUMN = 128;
    private static final int ROW = 84;

    /**
     * @param path SVG path of the wire
     * @param common part of the way of both motors
     * @param x middle of the wire, for its sign
     */
    record Wire(
            String id,
            String name,
            SegmentKind kind,
            String path,
            boolean common,
            int x,
            int y,
            boolean upright) {}

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
            boolean below) {
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

    record Motor(String name, int x, int y) {}

    static CircuitSheet of(
            Circuit circuit, List<String> common, String chosen, List<Evidence.Reading> taken) {
        List<Wire> wires = new ArrayList<>();
        for (Segment s : circuit.segments()) {
            ProbePoint a = circuit.point(s.from());
            ProbePoint b = circuit.point(s.to());
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
                            upright));
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
                            p.y() >= bottom));
        }
        List<Motor> motors = new ArrayList<>();
        for (MotorPart m : circuit.motors()) {
            ProbePoint a = circuit.point(m.from());
            ProbePoint b = circuit.point(m.to());
            motors.add(new Motor(m.name(), x(a), (y(a) + y(b)) / 2));
        }
        double right = circuit.points().stream().mapToDouble(ProbePoint::x).max().orElse(1);
        return new CircuitSheet(
                LEFT + (int) (right * COLUMN) + 150,
                TOP + (int) (bottom * ROW) + 50,
                wires,
                pins,
                motors);
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
