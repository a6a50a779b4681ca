package brightlantern.core.circuit;

import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Draws a fused circuit: every wire, pin, splice and earth between the battery and what is fed. */
final class FeedingPlan extends SheetPlan {
    private static final double FUSE_OHM = 0.006;

    private static final double RELAY_OHM = 0.008;

    /** A module's high-side output, as transistors have it. */
    private static final double DRIVER_OHM = 0.04;

    /** Below the one it gets nothing, below the other too little. */
    private static final double DEAD = 0.35;

    private static final double WEAK = 0.82;

    /** Of what a module is made for: below the one it stops, below the other it complains. */
    private static final double SILENT = 0.55;

    private static final double LOW = 0.82;

    private static final double MOST = 9;

    /** What draws more than this would burn the lead that feeds it. */
    private static final double MOST_FED_WATTS = 200;

    /** What may be fed for longer than its module would. */
    private static final Set<ConsumerKind> FED =
            EnumSet.of(
                    ConsumerKind.LAMP, ConsumerKind.HEATER, ConsumerKind.MOTOR, ConsumerKind.HORN);

    /** What a meter on ohms tells something of. */
    private static final Set<ConsumerKind> OHMS =
            EnumSet.complementOf(EnumSet.of(ConsumerKind.SOCKET, ConsumerKind.MODULE));

    /** What draws the same current as long as it is on; a cold filament draws more at first. */
    private static final Set<ConsumerKind> CLAMPED =
            EnumSet.of(ConsumerKind.COIL, ConsumerKind.MOTOR, ConsumerKind.HEATER);

    private static final double NO_AMPS = 0.1;
    private static final double FEW_AMPS = 0.78;

    /** The coil of a relay for 12 V and some twenty amperes. */
    private static final double COIL_OHM = 90;

    private static final double CONTROL_METRES = 2.5;

    /** A module's low-side output for a relay. */
    private static final double LOW_SIDE_OHM = 0.6;

    /** So far above the other rows stands the coil, and so far right what switches it. */
    private static final double COIL_ROW = 1.1;

    private static final double CONTROL_COLUMN = 4;

    private static final double TOP = 0.15;

    /** Columns and rows of the sheet. */
    private static final double COLUMN = 1.35;

    private FeedingPlan(Map<String, EarthStud> studs) {
        super(studs);
    }

    /** Sections of wires that fuses of so many amperes protect, mm². */
    private static double section(double amps) {
        return amps <= 5 ? 0.5 : amps <= 10 ? 0.75 : amps <= 15 ? 1 : amps <= 20 ? 1.5 : 2.5;
    }

    private static String millimetres(double section) {
        return section == Math.rint(section)
                ? String.format(Locale.ROOT, "%.0f", section)
                : String.valueOf(section);
    }

    /**
     * The sheet of a fused circuit.
     *
     * @param boxes and studs by their ids
     */
    static Circuit of(Feeding f, Map<String, FuseBox> boxes, Map<String, EarthStud> studs) {
        FeedingPlan plan = new FeedingPlan(studs);
        plan.draw(f, boxes.get(f.box()));
        return plan.circuit(f.id(), f.name(), f.system());
    }

    private void draw(Feeding f, FuseBox box) {
        double section = section(f.amps());
        String wire = "Wire " + f.colour() + " " + millimetres(section);
        lift = f.by() != null && f.by().coil() != null ? COIL_ROW + TOP : 0;
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
            point(splice, "Splice of " + lower(f.name()), "supply", 5, 0, 0, "loom, taped");
            segment(new Segment("W-" + f.id(), wire, SegmentKind.WIRE, end, splice, ohm));
            end = splice;
        }
        if (f.by() != null) {
            f.feeds().stream().filter(c -> !c.hidden()).findFirst().ifPresent(c -> stays(f, c));
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
                        by.coil() == null ? by.id() + "-on" : "",
                        "",
                        by.coil() == null ? null : new Segment.Coil(coilOf(by), by.id() + "-on")));
        settings.put(
                by.id() + "-on",
                new Setting(by.id() + "-on", by.setting(), by.does(), by.madeBy()));
        if (by.coil() != null) {
            coil(f.box(), by, by.coil());
        }
        return out;
    }

    private static String coilOf(Feeding.Switching relay) {
        return relay.id() + "-coil";
    }

    /** Terminal 85 of a relay, where its coil ends (DIN 72552). */
    private static String coilEnd(Feeding.Switching relay) {
        return relay.id() + ".85";
    }

    /** The coil of a relay, fed in its box, and what leads its current to earth. */
    private void coil(String box, Feeding.Switching relay, Feeding.Control by) {
        String end = coilEnd(relay);
        String its = relay.name() + ", terminal 85";
        point(end, its, "earth", 1, -COIL_ROW, relay.minutes(), relay.place());
        point(by.id(), by.name(), "earth", CONTROL_COLUMN, -COIL_ROW, by.minutes(), by.place());
        Consumer coil =
                new Consumer(
                        coilOf(relay),
                        relay.name() + " (coil)",
                        ConsumerKind.RELAY,
                        box,
                        end,
                        COIL_OHM);
        consumers.add(coil);
        gauges.add(Ohms.gauge(coil, relay.id(), box, end));
        segment(
                new Segment(
                        "W-" + relay.id() + "-coil",
                        "Wire " + by.colour() + " 0.5",
                        SegmentKind.WIRE,
                        end,
                        by.id(),
                        copper(CONTROL_METRES, section(0))));
        segment(
                new Segment(
                        by.id() + "-control",
                        by.name(),
                        by.kind(),
                        by.id(),
                        Circuit.MINUS,
                        by.kind() == SegmentKind.DRIVER ? LOW_SIDE_OHM : RELAY_OHM,
                        relay.id() + "-on",
                        ""));
        gauges.add(
                new Gauge(
                        relay.id() + "-click",
                        relay.name(),
                        coil.id(),
                        box,
                        end,
                        Consumer.NOMINAL_VOLTS,
                        List.of(
                                new Band("dead", "does not click", Segment.Coil.HOLDS, "", false),
                                new Band("well", "clicks", MOST, "", true)),
                        relay.id() + "-on",
                        "",
                        "",
                        Gauge.Scale.NONE,
                        Gauge.By.ARMATURE));
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
        Consumer its =
                new Consumer(
                        c.id(),
                        c.name(),
                        c.kind(),
                        plus,
                        minus,
                        Consumer.NOMINAL_VOLTS * Consumer.NOMINAL_VOLTS / c.watts());
        consumers.add(its);
        if (OHMS.contains(c.kind())) {
            gauges.add(Ohms.gauge(its, c.plug(), supply, back));
        }
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
        if (FED.contains(c.kind()) && c.watts() <= MOST_FED_WATTS) {
            gauges.add(fedByLead(c, plus, minus));
        }
        String under = f.by() == null ? "" : f.by().id() + "-on";
        if (CLAMPED.contains(c.kind())) {
            gauges.add(clamped(c, plus, minus, under));
        }
        gauges.add(
                new Gauge(
                        c.id(),
                        c.name(),
                        c.id(),
                        plus,
                        minus,
                        Consumer.NOMINAL_VOLTS,
                        bands(c, c.code()),
                        under,
                        c.module(),
                        c.value(),
                        Gauge.Scale.NONE,
                        noticedBy(c)));
    }

    private static Gauge.By noticedBy(Feeding.Fed c) {
        if (c.kind() == ConsumerKind.MODULE) {
            return Gauge.By.ANSWERS;
        }
        return c.hidden() ? Gauge.By.HANDS : Gauge.By.DRIVER;
    }

    /** What it does when a lead from the battery feeds its pin: the way to it is left out. */
    private static Gauge fedByLead(Feeding.Fed c, String plus, String minus) {
        return new Gauge(
                c.id() + "-fed",
                c.name() + " with its pin " + c.pins().get(0) + " fed from the battery",
                c.id(),
                plus,
                minus,
                Consumer.NOMINAL_VOLTS,
                bands(c, ""),
                "",
                "",
                "",
                Gauge.Scale.NONE,
                Gauge.By.LEAD);
    }

    /** What a clamp round its wire shows while it works; nothing is unplugged for that. */
    private static Gauge clamped(Feeding.Fed c, String plus, String minus, String under) {
        String amps = String.format(Locale.ROOT, "%.2g A", c.watts() / Consumer.NOMINAL_VOLTS);
        return new Gauge(
                Gauge.ampsOf(c.id()),
                "Amps through " + lower(c.name()) + ", by a clamp round its wire",
                c.id(),
                plus,
                minus,
                Consumer.NOMINAL_VOLTS,
                List.of(
                        new Band("none", "no current", NO_AMPS, "", false),
                        new Band("little", "clearly less than " + amps, FEW_AMPS, "", false),
                        new Band("right", "about " + amps, MOST, "", true)),
                under,
                "",
                "",
                Gauge.Scale.NONE,
                Gauge.By.CLAMP);
    }

    /**
     * @param code that is set when nothing arrives, or in what is fed itself when too little does;
     *     empty where nobody watches
     */
    private static List<Band> bands(Feeding.Fed c, String code) {
        if (c.kind() == ConsumerKind.MODULE) {
            return List.of(
                    new Band("dead", c.kind().dead(), SILENT, "", false),
                    new Band("weak", c.kind().weak(), LOW, code, false),
                    new Band("well", c.kind().well(), MOST, "", true));
        }
        return List.of(
                new Band("dead", c.kind().dead(), DEAD, code, false),
                new Band("weak", c.kind().weak(), WEAK, "", false),
                new Band("well", c.kind().well(), MOST, "", true));
    }

    /** Whether it goes on when it was switched off, by the first that a driver would notice. */
    private void stays(Feeding f, Feeding.Fed c) {
        gauges.add(
                new Gauge(
                        f.by().id() + "-off",
                        f.name() + " when switched off",
                        c.id(),
                        c.id() + "+",
                        c.id() + "-",
                        Consumer.NOMINAL_VOLTS,
                        List.of(
                                new Band("off", "off", DEAD, "", true),
                                new Band("on", "still on", MOST, "", false)),
                        f.by().id() + "-on",
                        "",
                        "",
                        Gauge.Scale.NONE,
                        Gauge.By.SWITCHED_OFF));
    }

    /** Ids of studs that a feeding names and nobody described. */
    static Set<String> studsOf(Feeding f) {
        Set<String> named = new LinkedHashSet<>();
        f.feeds().forEach(c -> named.add(c.earth()));
        return named;
    }
}
