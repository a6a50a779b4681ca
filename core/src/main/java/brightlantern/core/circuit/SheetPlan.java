package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * What all drawn sheets have in common: points with their places, the parts between them, plugs and
 * earths. A part that several circuits share, such as a fuse or an earth stud, bears the same id in
 * all of them.
 */
abstract class SheetPlan {
    private static final String BODY = "BODY";

    private static final String STRAP = "STRAP";

    private static final double STRAP_OHM = 0.003;

    private static final double STUD_OHM = 0.003;

    private static final double CONTACT_OHM = 0.004;

    /** Copper at 20 °C, Ω·mm²/m. */
    private static final double COPPER = 0.0175;

    static final double EARTH_METRES = 0.8;

    /** Of the earth wire of a module, mm². */
    private static final double MODULE_SECTION = 1.5;

    /** Left of the first column stand the names of its points. */
    static final double MARGIN = 0.4;

    private final Map<String, ProbePoint> points = new LinkedHashMap<>();
    private final Map<String, Segment> segments = new LinkedHashMap<>();
    final List<Consumer> consumers = new ArrayList<>();
    final List<Source> sources = new ArrayList<>();
    final List<Divider> dividers = new ArrayList<>();
    final Map<String, Setting> settings = new LinkedHashMap<>();
    final List<Gauge> gauges = new ArrayList<>();
    private final Map<String, EarthStud> studs;

    /** Rows by which the sheet begins lower, for what stands above its first one. */
    double lift;

    SheetPlan(Map<String, EarthStud> studs) {
        this.studs = studs;
    }

    /** Copper of so many metres, in ohms. */
    static double copper(double metres, double section) {
        return COPPER * metres / section;
    }

    final void point(
            String id, String name, String side, double x, double y, double minutes, String place) {
        points.putIfAbsent(id, new ProbePoint(id, name, side, x, y + lift, minutes, place));
    }

    final void segment(Segment s) {
        segments.putIfAbsent(s.id(), s);
    }

    final Circuit circuit(String id, String name, String system) {
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

    static String lower(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }

    static String pin(String part, String pin) {
        return part + ", pin " + pin;
    }

    final void contact(String plug, String pin, String at, String inside) {
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

    /**
     * The inside of a module that feeds what is on the sheet, with its own earth; the battery
     * itself is not on it.
     *
     * @param x and y of the inside, in columns and rows
     * @return its node
     */
    final String inside(String module, String stud, double x, double y, String place) {
        String inner = module + "-earth";
        point(Circuit.PLUS, "Battery plus", "supply", 0, 0, 0, "battery");
        earth(stud, x);
        point(inner, "Inside the " + named(module), "earth", x, y, 0, place);
        segment(
                new Segment(
                        "E-" + module,
                        "Earth wire of the " + named(module),
                        SegmentKind.WIRE,
                        inner,
                        stud,
                        copper(EARTH_METRES, MODULE_SECTION)));
        return inner;
    }

    /** A module by its id, in words. */
    static String named(String module) {
        return lower(module) + " module";
    }

    final void earth(String stud, double x) {
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
}
