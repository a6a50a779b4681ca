package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Draws a circuit from what was written of it: every wire, pin, splice and earth between the
 * battery and what is fed, with a place on the sheet. A part that several circuits share, such as a
 * fuse or an earth stud, bears the same id in all of them.
 */
final class WiringPlan {
    private static final String BODY = "BODY";
    private static final String STRAP = "STRAP";
    private static final double STRAP_OHM = 0.003;
    private static final double STUD_OHM = 0.003;
    private static final double FUSE_OHM = 0.006;
    private static final double CONTACT_OHM = 0.004;
    private static final double RELAY_OHM = 0.008;

    /** A module's high-side output, as transistors have it. */
    private static final double DRIVER_OHM = 0.04;

    /** Copper at 20 °C, Ω·mm²/m. */
    private static final double COPPER = 0.0175;

    private static final double EARTH_METRES = 0.8;
    private static final double REFERENCE_VOLTS = 5;
    private static final double REFERENCE_OHM = 4;

    /** An input that nothing drives is held down by so much. */
    private static final double INPUT_OHM = 220_000;

    private static final double TRACE_OHM = 0.02;
    private static final double SENSOR_WIRE_OHM = 0.12;

    /** Below the one it gets nothing, below the other too little. */
    private static final double DEAD = 0.35;

    private static final double WEAK = 0.82;

    /** Nearer than this to earth or reference no healthy sensor comes. */
    private static final double LOW = 0.04;

    private static final double HIGH = 0.96;

    /** Columns and rows of the sheet. */
    private static final double COLUMN = 1.35;

    private static final double SENSOR_COLUMN = 1.9;

    /** Left of the first column stand the names of its points. */
    private static final double MARGIN = 0.4;

    private final Map<String, ProbePoint> points = new LinkedHashMap<>();
    private final Map<String, Segment> segments = new LinkedHashMap<>();
    private final List<Consumer> consumers = new ArrayList<>();
    private final List<Source> sources = new ArrayList<>();
    private final List<Divider> dividers = new ArrayList<>();
    private final Map<String, Setting> settings = new LinkedHashMap<>();
    private final List<Gauge> gauges = new ArrayList<>();
    private final Map<String, EarthStud> studs;

    private WiringPlan(Map<String, EarthStud> studs) {
        this.studs = studs;
    }

    /** Sections of wires that fuses of so many amperes protect, mm². */
    private static double section(double amps) {
        return amps <= 5 ? 0.5 : amps <= 10 ? 0.75 : amps <= 15 ? 1 : amps <= 20 ? 1.5 : 2.5;
    }

    /** Copper of so many metres, in ohms. */
    private static double copper(double metres, double section) {
        return COPPER * metres / section;
    }

    private static String millimetres(double section) {
        return section == Math.rint(section)
                ? String.format(Locale.ROOT, "%.0f", section)
                : String.valueOf(section);
    }

    private void point(
            String id, String name, String side, double x, double y, double minutes, String place) {
        points.putIfAbsent(id, new ProbePoint(id, name, side, x, y, minutes, place));
    }

    private void segment(Segment s) {
        segments.putIfAbsent(s.id(), s);
    }

    private Circuit circuit(String id, String name, String system) {
        return new Circuit(
                id,
                name,
                system,
                List.copyOf(points.values()),
                List.copyOf(segments.values()),
                List.of(),
                consumers,
                sources,
                dividers,
                List.copyOf(settings.values()),
                gauges);
    }

    /**
     * The sheet of a fused circuit.
     *
     * @param boxes and studs by their ids
     */
    static Circuit of(Feeding f, Map<String, FuseBox> boxes, Map<String, EarthStud> studs) {
        WiringPlan plan = new WiringPlan(studs);
        plan.draw(f, boxes.get(f.box()));
        return plan.circuit(f.id(), f.name(), f.system());
    }

    private void draw(Feeding f, FuseBox box) {
        double section = section(f.amps());
        String wire = "Wire " + f.colour() + " " + millimetres(section);
        poles(box);
        point(f.fuse(), "Fuse " + f.fuse() + ", load side", "supply", 2, 0, 2, box.place());
        String rating = String.format(Locale.ROOT, "Fuse %s %.0f A", f.fuse(), f.amps());
        segment(new Segment(f.fuse(), rating, SegmentKind.FUSE, box.id(), f.fuse(), FUSE_OHM));
        String end = f.fuse();
        if (f.by() != null) {
            end = switched(f, wire, section);
        }
        double ohm = copper(f.metres() / 2, section);
        if (f.feeds().size() > 1) {
            String splice = "S-" + f.id();
            point(splice, "Splice of " + f.name(), "supply", 5, 0, 0, "loom, taped");
            segment(new Segment("W-" + f.id(), wire, SegmentKind.WIRE, end, splice, ohm));
            end = splice;
        }
        for (int i = 0; i < f.feeds().size(); i++) {
            fed(f, f.feeds().get(i), i, end, wire, ohm);
        }
    }

    private void poles(FuseBox box) {
        point(Circuit.PLUS, "Battery plus", "supply", 0, 0, 1, "battery");
        point(box.id(), box.name() + ", feed", "supply", 1, 0, box.minutes(), box.place());
        segment(
                new Segment(
                        box.cable(),
                        "Cable to " + lower(box.name()),
                        SegmentKind.WIRE,
                        Circuit.PLUS,
                        box.id(),
                        box.ohm()));
    }

    private static String lower(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }

    /** Its switch, relay or output, and the wire to it; where it goes on. */
    private String switched(Feeding f, String wire, double section) {
        Feeding.Switching by = f.by();
        String in = by.id() + ".in";
        String out = by.id() + ".out";
        point(in, by.name() + ", in", "supply", 3, 0, by.minutes(), by.place());
        point(out, by.name() + ", out", "supply", 4, 0, by.minutes(), by.place());
        segment(
                new Segment(
                        "W-" + f.fuse() + "-" + by.id(),
                        wire,
                        SegmentKind.WIRE,
                        f.fuse(),
                        in,
                        copper(f.metres() / 2, section)));
        segment(
                new Segment(
                        by.id(),
                        by.name(),
                        by.kind(),
                        in,
                        out,
                        by.kind() == SegmentKind.DRIVER ? DRIVER_OHM : RELAY_OHM,
                        by.id() + "-on",
                        ""));
        settings.put(by.id() + "-on", new Setting(by.id() + "-on", by.setting(), by.does()));
        return out;
    }

    private void fed(Feeding f, Feeding.Fed c, int column, String from, String wire, double ohm) {
        double x = MARGIN + column * COLUMN;
        String supply = c.plug() + "." + c.pins().get(0);
        String back = c.plug() + "." + c.pins().get(1);
        String plus = c.id() + "+";
        String minus = c.id() + "-";
        point(supply, pin(c.name(), c.pins().get(0)), "supply", x, 1.7, c.minutes(), c.place());
        point(plus, c.name() + " inside", "supply", x, 2.0, 0, c.place());
        point(minus, c.name() + " inside", "earth", x, 2.6, 0, c.place());
        point(back, pin(c.name(), c.pins().get(1)), "earth", x, 2.9, c.minutes(), c.place());
        segment(new Segment("W-" + c.id(), wire, SegmentKind.WIRE, from, supply, ohm));
        contact(c.plug(), c.pins().get(0), supply, plus);
        consumers.add(
                new Consumer(
                        c.id(),
                        c.name(),
                        c.kind(),
                        plus,
                        minus,
                        Consumer.NOMINAL_VOLTS * Consumer.NOMINAL_VOLTS / c.watts()));
        contact(c.plug(), c.pins().get(1), back, minus);
        double section = section(f.amps());
        earth(c.earth(), x);
        segment(
                new Segment(
                        "E-" + c.id(),
                        "Wire brown " + millimetres(section),
                        SegmentKind.WIRE,
                        back,
                        c.earth(),
                        copper(EARTH_METRES, section)));
        String under = f.by() == null ? "" : f.by().id() + "-on";
        gauges.add(
                new Gauge(
                        c.id(),
                        c.name(),
                        c.id(),
                        plus,
                        minus,
                        Consumer.NOMINAL_VOLTS,
                        List.of(
                                new Band("dead", c.kind().dead(), DEAD, c.code(), false),
                                new Band("weak", c.kind().weak(), WEAK, "", false),
                                new Band("well", c.kind().well(), 9, "", true)),
                        under,
                        c.module(),
                        "",
                        Gauge.Scale.NONE,
                        !c.hidden()));
    }

    private static String pin(String part, String pin) {
        return part + ", pin " + pin;
    }

    private void contact(String plug, String pin, String at, String inside) {
        segment(
                new Segment(
                        "C-" + plug + "." + pin,
                        "Contact of " + plug + " pin " + pin,
                        SegmentKind.CONTACT,
                        at,
                        inside,
                        CONTACT_OHM,
                        "",
                        Setting.unplugged(plug).id()));
        settings.put(Setting.unplugged(plug).id(), Setting.unplugged(plug));
    }

    private void earth(String stud, double x) {
        EarthStud its = studs.get(stud);
        point(stud, its.name() + ", ring terminal", "earth", x, 3.9, its.minutes(), its.place());
        point(BODY, "Body metal", "earth", 1, 4.9, 2, "bare metal of the body, away from any stud");
        point(Circuit.MINUS, "Battery minus", "earth", 0, 4.9, 1, "battery");
        segment(new Segment(stud, its.name(), SegmentKind.EARTH, stud, BODY, STUD_OHM));
        segment(
                new Segment(
                        STRAP,
                        "Body to battery",
                        SegmentKind.WIRE,
                        BODY,
                        Circuit.MINUS,
                        STRAP_OHM));
    }

    /**
     * The sheet of sensors that share a module's reference and earth.
     *
     * @param studs by their ids
     */
    static Circuit of(Sensing s, Map<String, EarthStud> studs) {
        WiringPlan plan = new WiringPlan(studs);
        plan.draw(s);
        return plan.circuit(s.id(), s.name(), s.system());
    }

    private void draw(Sensing s) {
        String inner = s.module() + "-earth";
        double right = MARGIN + s.sensors().size() * SENSOR_COLUMN;
        String ground = s.plug() + "." + s.ground();
        String module = lower(s.module()) + " module";
        // the module feeds its sensors; the battery itself is not on their sheet
        point(Circuit.PLUS, "Battery plus", "supply", 0, 0, 0, "battery");
        earth(s.stud(), right);
        point(inner, "Inside the " + module, "earth", right, 3.4, 0, s.place());
        segment(
                new Segment(
                        "E-" + s.module(),
                        "Earth wire of the " + module,
                        SegmentKind.WIRE,
                        inner,
                        s.stud(),
                        copper(EARTH_METRES, 1.5)));
        point(
                ground,
                "Sensor earth, " + pin(s.plug(), s.ground()),
                "earth",
                right,
                2.6,
                s.minutes(),
                s.place());
        segment(
                new Segment(
                        "T-" + ground,
                        "Sensor earth inside the " + module,
                        SegmentKind.DRIVER,
                        ground,
                        inner,
                        TRACE_OHM));
        String back = spliced(s, ground, "earth", 3.2);
        String feed = "";
        if (!s.reference().isEmpty()) {
            String pin = s.plug() + "." + s.reference();
            point(
                    pin,
                    "Reference, " + pin(s.plug(), s.reference()),
                    "supply",
                    right,
                    0.8,
                    s.minutes(),
                    s.place());
            sources.add(
                    new Source(
                            "R-" + pin,
                            "Reference of the " + module + " at " + pin,
                            pin,
                            inner,
                            REFERENCE_VOLTS,
                            REFERENCE_OHM));
            feed = spliced(s, pin, "supply", 0);
        }
        for (int i = 0; i < s.sensors().size(); i++) {
            sensor(s, s.sensors().get(i), MARGIN + i * SENSOR_COLUMN, feed, back, inner);
        }
    }

    /** Where a wire of all sensors is split up; the pin itself for a single sensor. */
    private String spliced(Sensing s, String pin, String side, double y) {
        if (s.sensors().size() < 2) {
            return pin;
        }
        String splice = "S-" + s.id() + "-" + side;
        point(
                splice,
                (side.equals("earth") ? "Earth splice of " : "Reference splice of ") + s.name(),
                side,
                MARGIN + s.sensors().size() * SENSOR_COLUMN - 0.5,
                y,
                0,
                "loom, taped");
        segment(
                new Segment(
                        "W-" + pin,
                        side.equals("earth") ? "Wire brown-white 0.5" : "Wire yellow 0.5",
                        SegmentKind.WIRE,
                        pin,
                        splice,
                        SENSOR_WIRE_OHM));
        return splice;
    }

    private void sensor(
            Sensing s, Sensing.Felt f, double x, String feed, String back, String inner) {
        boolean divider = f.kind() == Sensing.Kind.DIVIDER;
        int first = divider ? 1 : 0;
        String signal = f.plug() + "." + f.pins().get(first);
        String earth = f.plug() + "." + f.pins().get(first + 1);
        String at = s.plug() + "." + f.at();
        String out = f.id() + "=";
        String minus = f.id() + "-";
        point(
                signal,
                "Signal of " + pin(lower(f.name()), f.pins().get(first)),
                "signal",
                divider ? x + 0.95 : x,
                divider ? 1.55 : 0.8,
                f.minutes(),
                f.place());
        point(
                out,
                f.name() + " inside",
                "signal",
                divider ? x + 0.1 : x,
                divider ? 1.55 : 1.1,
                0,
                f.place());
        point(minus, f.name() + " inside", "earth", x, 2.0, 0, f.place());
        point(
                earth,
                "Earth of " + pin(lower(f.name()), f.pins().get(first + 1)),
                "earth",
                x,
                2.4,
                f.minutes(),
                f.place());
        point(
                at,
                "Signal of " + lower(f.name()) + ", " + pin(s.plug(), f.at()),
                "signal",
                x + 0.95,
                0.8,
                s.minutes(),
                s.place());
        segment(
                new Segment(
                        "W-" + f.id(),
                        "Wire green 0.5",
                        SegmentKind.WIRE,
                        signal,
                        at,
                        SENSOR_WIRE_OHM));
        segment(
                new Segment(
                        "E-" + f.id(),
                        "Wire brown-white 0.5",
                        SegmentKind.WIRE,
                        earth,
                        back,
                        SENSOR_WIRE_OHM));
        contact(f.plug(), f.pins().get(first), signal, out);
        contact(f.plug(), f.pins().get(first + 1), earth, minus);
        if (divider) {
            String reference = f.plug() + "." + f.pins().get(0);
            String plus = f.id() + "+";
            point(
                    reference,
                    "Reference of " + pin(lower(f.name()), f.pins().get(0)),
                    "supply",
                    x,
                    0.8,
                    f.minutes(),
                    f.place());
            point(plus, f.name() + " inside", "supply", x, 1.1, 0, f.place());
            segment(
                    new Segment(
                            "R-" + f.id(),
                            "Wire yellow 0.5",
                            SegmentKind.WIRE,
                            feed,
                            reference,
                            SENSOR_WIRE_OHM));
            contact(f.plug(), f.pins().get(0), reference, plus);
            dividers.add(new Divider(f.id(), f.name(), plus, out, minus, f.ohm(), f.share()));
            segment(
                    new Segment(
                            "I-" + at, "Input " + at, SegmentKind.DRIVER, at, inner, INPUT_OHM));
        } else {
            consumers.add(new Consumer(f.id(), f.name(), ConsumerKind.SENSOR, out, minus, f.ohm()));
            sources.add(
                    new Source(
                            "R-" + at,
                            "Bias of the input " + at,
                            at,
                            inner,
                            REFERENCE_VOLTS,
                            f.pull()));
        }
        gauges.add(
                new Gauge(
                        f.id(),
                        f.name(),
                        f.id(),
                        at,
                        inner,
                        REFERENCE_VOLTS,
                        List.of(
                                new Band(
                                        "low", "at the low end of its signal", LOW, f.low(), false),
                                new Band("within", "within its range", HIGH, "", true),
                                new Band(
                                        "high",
                                        "at the high end of its signal",
                                        9,
                                        f.high(),
                                        false)),
                        "",
                        s.module(),
                        f.value(),
                        new Gauge.Scale(!divider, f.most()),
                        false));
    }

    /** Ids of studs that a feeding names and nobody described. */
    static Set<String> studsOf(Feeding f) {
        Set<String> named = new LinkedHashSet<>();
        f.feeds().forEach(c -> named.add(c.earth()));
        return named;
    }
}
