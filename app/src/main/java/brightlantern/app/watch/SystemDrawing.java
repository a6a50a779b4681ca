package brightlantern.app.watch;

import brightlantern.core.signal.Drawing;
import brightlantern.core.signal.DrawnPart;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.stream.IntStream;

/** A system as a picture, laid out for the page; figures in SVG units. */
record SystemDrawing(
        String id, String name, double width, double height, List<Part> parts, List<Pipe> pipes) {
    private static final double COLUMN = 226;
    private static final double ROW = 200;
    private static final double WIDTH = 196;
    private static final double LINE = 46;
    private static final double HEAD = 32;
    private static final double MARGIN = 14;

    record Part(
            String name, String shape, double x, double y, double w, double h, List<Line> lines) {}

    record Line(String id, String name, String unit, double y) {}

    /** From edge to edge, in the direction of the flow. */
    record Pipe(double x1, double y1, double x2, double y2) {}

    static List<SystemDrawing> of(VehicleDescription d) {
        return d.drawings().stream().map(g -> of(d, g)).toList();
    }

    private static SystemDrawing of(VehicleDescription d, Drawing g) {
        // a drawing fills its sheet wherever its grid begins
        double left = g.parts().stream().mapToDouble(DrawnPart::x).min().orElse(0);
        double top = g.parts().stream().mapToDouble(DrawnPart::y).min().orElse(0);
        List<Part> parts = g.parts().stream().map(p -> part(d, p, left, top)).toList();
        double width = parts.stream().mapToDouble(p -> p.x() + p.w()).max().orElse(0) + MARGIN;
        double height = parts.stream().mapToDouble(p -> p.y() + p.h()).max().orElse(0) + MARGIN;
        List<Pipe> pipes =
                g.pipes().stream()
                        .map(
                                p ->
                                        pipe(
                                                parts.get(index(g, p.get(0))),
                                                parts.get(index(g, p.get(1)))))
                        .toList();
        return new SystemDrawing(g.id(), g.name(), width, height, parts, pipes);
    }

    private static int index(Drawing g, String id) {
        for (int i = 0; i < g.parts().size(); i++) {
            if (g.parts().get(i).id().equals(id)) {
                return i;
            }
        }
        throw new IllegalArgumentException("No part '" + id + "' in drawing " + g.id());
    }

    private static Part part(VehicleDescription d, DrawnPart p, double left, double top) {
        double h = HEAD + LINE * Math.max(1, p.values().size()) + 6;
        List<Line> lines =
                IntStream.range(0, p.values().size())
                        .mapToObj(
                                i ->
                                        d.value(p.values().get(i))
                                                .map(
                                                        v ->
                                                                new Line(
                                                                        v.id(),
                                                                        v.name(),
                                                                        v.isState() ? "" : v.show(),
                                                                        HEAD + LINE * i))
                                                .orElseThrow())
                        .toList();
        return new Part(
                p.name(),
                p.shape(),
                MARGIN + (p.x() - left) * COLUMN,
                MARGIN + (p.y() - top) * ROW,
                WIDTH,
                h,
                lines);
    }

    private static Pipe pipe(Part a, Part b) {
        double ax = a.x() + a.w() / 2;
        double bx = b.x() + b.w() / 2;
        if (Math.abs(ax - bx) < 1) {
            boolean down = b.y() > a.y();
            return new Pipe(ax, down ? a.y() + a.h() : a.y(), bx, down ? b.y() : b.y() + b.h());
        }
        boolean right = bx > ax;
        boolean level = Math.abs(a.y() - b.y()) < 1;
        double ay = a.y() + (level ? Math.min(a.h(), b.h()) / 2 : a.h() / 2);
        double by = b.y() + (level ? Math.min(a.h(), b.h()) / 2 : b.h() / 2);
        return new Pipe(right ? a.x() + a.w() : a.x(), ay, right ? b.x() : b.x() + b.w(), by);
    }
}
