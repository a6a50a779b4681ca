package brightlantern.core.circuit;

import java.util.List;
import java.util.Map;

/** Draws a loop: out of its module, through one plug after another, and back. */
final class LoopPlan extends SheetPlan {
    /** A module sends it over a resistor, so that it bears a short, and watches it by another. */
    private static final double SENT_VOLTS = 10;

    private static final double SENT_OHM = 1000;
    private static final double INPUT_OHM = 10_000;

    private static final double WIRE_OHM = 0.1;
    private static final double BRIDGE_OHM = 0.02;

    /** Below this share nothing has come back. */
    private static final double BACK = 0.6;

    private static final double MOST = 9;

    /** Columns between two pins of a link, and between links; rows of the way out and back. */
    private static final double PINS = 0.9;

    private static final double LINKS = 0.9;
    private static final double OUTWARDS = 0.4;
    private static final double BACKWARDS = 1.7;

    private LoopPlan(Map<String, EarthStud> studs) {
        super(studs);
    }

    /**
     * @param studs by their ids
     */
    static Circuit of(Loop loop, Map<String, EarthStud> studs) {
        LoopPlan plan = new LoopPlan(studs);
        plan.draw(loop);
        return plan.circuit(loop.id(), loop.name(), loop.system());
    }

    private void draw(Loop loop) {
        String module = named(loop.module());
        String inner = inside(loop.module(), loop.stud(), 1, 3.1, loop.place());
        String out = loop.plug() + "." + loop.out();
        String back = loop.plug() + "." + loop.back();
        point(
                out,
                "Out of the " + module + ", " + pin(loop.plug(), loop.out()),
                "signal",
                1,
                OUTWARDS,
                loop.minutes(),
                loop.place());
        point(
                back,
                "Back into the " + module + ", " + pin(loop.plug(), loop.back()),
                "signal",
                1,
                BACKWARDS,
                loop.minutes(),
                loop.place());
        sources.add(
                new Source(
                        "R-" + out,
                        "Output " + out + " of the " + module,
                        out,
                        inner,
                        SENT_VOLTS,
                        SENT_OHM));
        String input = "I-" + back;
        segment(new Segment(input, "Input " + back, SegmentKind.DRIVER, back, inner, INPUT_OHM));
        String end = out;
        List<Loop.Link> links = loop.links();
        int outwards = (links.size() + 1) / 2;
        for (int i = 0; i < links.size(); i++) {
            boolean forth = i < outwards;
            double column = 1 + LINKS + (forth ? i : 2 * outwards - 1 - i) * (PINS + LINKS);
            end = link(loop, links.get(i), end, column, forth);
        }
        wire(loop, "back", end, back);
        gauges.add(
                new Gauge(
                        loop.id(),
                        loop.name(),
                        input,
                        back,
                        inner,
                        SENT_VOLTS,
                        List.of(
                                new Band("open", "does not come back", BACK, loop.code(), false),
                                new Band("closed", "comes back", MOST, "", true)),
                        "",
                        loop.module(),
                        "",
                        Gauge.Scale.NONE,
                        Gauge.By.MODULE));
    }

    /** Its pins and the bridge between them; where the loop goes on. */
    private String link(Loop loop, Loop.Link its, String from, double column, boolean forth) {
        double y = forth ? OUTWARDS : BACKWARDS;
        String in = its.plug() + "." + its.pins().get(0);
        String out = its.plug() + "." + its.pins().get(1);
        double x = forth ? column : column + PINS;
        double way = forth ? PINS : -PINS;
        point(in, pin(its.name(), its.pins().get(0)), "signal", x, y, its.minutes(), its.place());
        point(its.id() + "<", its.name() + " inside", "signal", x + way / 4, y, 0, its.place());
        point(its.id() + ">", its.name() + " inside", "signal", x + way * 0.75, y, 0, its.place());
        point(
                out,
                pin(its.name(), its.pins().get(1)),
                "signal",
                x + way,
                y,
                its.minutes(),
                its.place());
        wire(loop, its.id(), from, in);
        contact(its.plug(), its.pins().get(0), in, its.id() + "<");
        segment(
                new Segment(
                        "B-" + its.id(),
                        its.bridge(),
                        SegmentKind.BRIDGE,
                        its.id() + "<",
                        its.id() + ">",
                        BRIDGE_OHM));
        contact(its.plug(), its.pins().get(1), out, its.id() + ">");
        return out;
    }

    private void wire(Loop loop, String to, String from, String at) {
        segment(
                new Segment(
                        "W-" + loop.id() + "-" + to,
                        "Wire " + loop.colour() + " 0.5",
                        SegmentKind.WIRE,
                        from,
                        at,
                        WIRE_OHM));
    }
}
