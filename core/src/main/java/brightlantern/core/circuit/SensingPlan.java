package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Draws sensors that share a module's reference and earth, with the module's own pins. */
final class SensingPlan extends SheetPlan {
    private static final double REFERENCE_VOLTS = 5;

    private static final double REFERENCE_OHM = 4;

    /** An input that nothing drives is held down by so much. */
    private static final double INPUT_OHM = 220_000;

    private static final double TRACE_OHM = 0.02;

    private static final double SENSOR_WIRE_OHM = 0.12;

    /** Nearer than this to earth or reference no healthy sensor comes. */
    private static final double LOW = 0.04;

    private static final double HIGH = 0.96;

    /**
     * What is nearer than the first of these to what it should be agrees with an instrument of
     * one's own; from there on it is off by so much.
     */
    private static final double[] AWAY = {0.04, 0.1, 0.2};

    private static final String[] FAR = {"somewhat", "clearly", "far"};

    /** A meter across a sound wire of a sensor shows less than this share of the reference. */
    private static final double LOST = 0.01;

    private static final double TEN = 10;

    /** No share is beyond this. */
    private static final double MOST = 9;

    private static final String NO_FIGURE = "tells no figure to compare";

    private static final double SENSOR_COLUMN = 1.9;

    private SensingPlan(Map<String, EarthStud> studs) {
        super(studs);
    }

    /**
     * The sheet of sensors that share a module's reference and earth.
     *
     * @param studs by their ids
     */
    static Circuit of(Sensing s, Map<String, EarthStud> studs) {
        SensingPlan plan = new SensingPlan(studs);
        plan.draw(s);
        return plan.circuit(s.id(), s.name(), s.system());
    }

    private void draw(Sensing s) {
        double right = MARGIN + s.sensors().size() * SENSOR_COLUMN;
        String ground = s.plug() + "." + s.ground();
        String module = named(s.module());
        String inner = inside(s.module(), s.stud(), right, 3.4, s.place());
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
            Consumer its = new Consumer(f.id(), f.name(), ConsumerKind.SENSOR, out, minus, f.ohm());
            consumers.add(its);
            gauges.add(Ohms.gauge(its, f.plug(), signal, earth));
            sources.add(
                    new Source(
                            "R-" + at,
                            "Bias of the input " + at,
                            at,
                            inner,
                            REFERENCE_VOLTS,
                            f.pull()));
        }
        lost(
                "W-" + f.id(),
                "the signal wire of " + lower(f.name()) + ", " + at + " to " + signal,
                divider ? signal : at,
                divider ? at : signal);
        String input = (divider ? "I-" : "R-") + at;
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
                                        MOST,
                                        f.high(),
                                        false)),
                        "",
                        s.module(),
                        f.value(),
                        new Gauge.Scale(!divider, f.most(), input, "", f.rest()),
                        Gauge.By.MODULE));
        if (!f.beside().isEmpty()) {
            gauges.add(compared(s, f, at, inner, input));
        }
    }

    /** Its value held against what an instrument of one's own tells at the same place. */
    private static Gauge compared(
            Sensing s, Sensing.Felt f, String at, String inner, String input) {
        boolean falls = f.kind() == Sensing.Kind.RESISTIVE;
        double right = falls ? f.ohm() / (f.ohm() + f.pull()) : f.share();
        List<Band> bands = new ArrayList<>();
        bands.add(new Band("none-low", NO_FIGURE, LOW, "", false));
        for (int i = AWAY.length - 1; i >= 0; i--) {
            double to = right - AWAY[i];
            if (to > LOW) {
                bands.add(new Band("less-" + i, off(i, falls), to, f.implausible(), false));
            }
        }
        bands.add(new Band("agrees", "agrees", right + AWAY[0], "", true));
        for (int i = 0; i < AWAY.length; i++) {
            double to = i + 1 < AWAY.length ? right + AWAY[i + 1] : HIGH;
            bands.add(new Band("more-" + i, off(i, !falls), to, f.implausible(), false));
        }
        bands.add(new Band("none-high", NO_FIGURE, MOST, "", false));
        return new Gauge(
                f.id() + "-compared",
                f.name() + " against " + f.beside(),
                f.id(),
                at,
                inner,
                REFERENCE_VOLTS,
                bands,
                "",
                s.module(),
                f.value(),
                new Gauge.Scale(falls, f.most(), input, f.beside(), f.rest()),
                Gauge.By.INSTRUMENT);
    }

    private static String off(int far, boolean high) {
        return "tells " + FAR[far] + " too " + (high ? "much" : "little");
    }

    /** What is lost on a wire whose both ends can be reached, whatever the sensor feels. */
    private void lost(String wire, String name, String from, String to) {
        gauges.add(
                new Gauge(
                        wire + "-lost",
                        "Meter across " + name,
                        wire,
                        from,
                        to,
                        REFERENCE_VOLTS,
                        List.of(
                                new Band("nothing", "below 0.05 V", LOST, "", true),
                                new Band("some", "0.05 to 0.5 V", LOST * TEN, "", false),
                                new Band("much", "more than 0.5 V", MOST, "", false)),
                        "",
                        "",
                        "",
                        Gauge.Scale.NONE,
                        Gauge.By.METER));
    }
}
