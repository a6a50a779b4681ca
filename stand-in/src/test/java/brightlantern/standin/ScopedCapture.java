package brightlantern.standin;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CapturePlans;
import brightlantern.core.capture.CaptureStudy;
import brightlantern.core.capture.ContactStudy;
import brightlantern.core.capture.CrankedPlans;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.CurrentStudy;
import brightlantern.core.capture.DepartureStudy;
import brightlantern.core.capture.HeldValue;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.PressureStudy;
import brightlantern.core.capture.RippleStudy;
import brightlantern.core.capture.SparkStudy;
import brightlantern.core.capture.StartingStudy;
import brightlantern.core.capture.ToothStudy;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Segment;
import brightlantern.core.circuit.Setting;
import brightlantern.core.code.Dtc;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.network.Bus;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.instrument.Scope;
import brightlantern.standin.instrument.StatusModel;
import brightlantern.standin.plant.Circuits;
import brightlantern.standin.plant.Driver;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.scpi.ScpiLine;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Captures of a stand-in, recorded by its oscilloscope as a plan says. */
final class ScopedCapture {
    private static final double FIRES_BEFORE = 6;
    private static final int AT_ONCE = 25_000;

    /** A module is asked for a value so often, s. */
    private static final double ASKED_EVERY = 0.2;

    private final StandInVehicle vehicle;
    private final Scope scope;
    private final StatusModel status = new StatusModel();

    private ScopedCapture(StandInVehicle vehicle) {
        this.vehicle = vehicle;
        this.scope = vehicle.scope();
    }

    /** What the study says of one cranking; empty where a battery does not turn the engine. */
    static Optional<CrankingStudy.Judgement> cranked(StandInVehicle vehicle) {
        VehicleDescription d = vehicle.description();
        Capture capture =
                new ScopedCapture(vehicle)
                        .record(CrankedPlans.cranking(d.cylinders().orElseThrow()));
        return CrankingStudy.judge(capture, d.cylinders().orElseThrow().order(), FIRES_BEFORE);
    }

    /** The same, of an engine that turns. */
    static CrankingStudy.Judgement judged(StandInVehicle vehicle) {
        return cranked(vehicle).orElseThrow();
    }

    /**
     * Pressure in a cylinder while it is cranked; empty where a battery does not turn the engine.
     */
    static Optional<PressureStudy.Judgement> pressed(StandInVehicle vehicle, int cylinder) {
        return new PressureStudy(vehicle.description().cylinders().orElseThrow())
                .judge(
                        new ScopedCapture(vehicle)
                                .record(CrankedPlans.pressure(cylinder, "the plug")));
    }

    /** Both ends of a bus, with the key on. */
    static Capture ofBus(StandInVehicle vehicle, Bus bus) {
        return new ScopedCapture(vehicle).record(CapturePlans.bus(bus, "here", "there"));
    }

    private String ask(String line, Object... with) {
        return new String(answer(line.formatted(with)), StandardCharsets.US_ASCII);
    }

    private byte[] answer(String line) {
        try {
            byte[] answer = scope.answer(ScpiLine.parse(line), status);
            String error = status.nextError();
            if (!error.startsWith("0,")) {
                throw new AssertionError(line + ": " + error);
            }
            return answer;
        } catch (WireFormatException bad) {
            throw new AssertionError(bad);
        }
    }

    /** Coil, injector and count of a cylinder on a climb; of the one that is stored, if one is. */
    static Optional<DepartureStudy.Judgement> leaving(StandInVehicle vehicle) {
        Cylinders cylinders = vehicle.description().cylinders().orElseThrow();
        int cylinder =
                cylinders.order().stream()
                        .filter(
                                n ->
                                        vehicle.stored()
                                                .contains(Dtc.parse("P030" + n + "-00").number()))
                        .findFirst()
                        .orElse(1);
        boolean coil =
                vehicle.description().circuits().stream()
                        .anyMatch(c -> c.component("coil-" + cylinder).isPresent());
        return DepartureStudy.judge(
                new ScopedCapture(vehicle)
                        .climbed(CapturePlans.leaving(cylinders, cylinder, coil)));
    }

    /** Volts behind a contact, all switched on, while these are moved in turn, with marks. */
    static ContactStudy.Judgement moved(
            StandInVehicle vehicle, String contact, List<String> things) {
        Circuits circuits = vehicle.simulation().circuits().orElseThrow();
        Circuit circuit =
                vehicle.description().circuits().stream()
                        .filter(c -> c.component(contact).isPresent())
                        .findFirst()
                        .orElseThrow();
        vehicle.simulation().driver(Driver.away().key(2));
        List<String> switches =
                circuit.settings().stream()
                        .map(Setting::id)
                        .filter(s -> !Setting.unplugs(s))
                        .toList();
        switches.forEach(s -> circuits.set(s, true));
        vehicle.live(1);
        Segment of = (Segment) circuit.component(contact).orElseThrow();
        CapturePlan plan = CapturePlans.point(circuit, circuit.point(of.to()));
        ScopedCapture its = new ScopedCapture(vehicle);
        its.prepare(plan);
        its.ask("TRIG:SOUR IMM");
        its.ask("INIT");
        double each = plan.seconds() / things.size();
        List<ContactStudy.Mark> marks = new ArrayList<>();
        for (String thing : things) {
            marks.add(new ContactStudy.Mark(each * marks.size() + 1, thing));
            vehicle.live(1);
            circuits.move(thing, 1.2);
            vehicle.live(each - 1);
        }
        vehicle.live(1);
        switches.forEach(s -> circuits.set(s, false));
        return ContactStudy.judge(
                        new Capture(plan.interval(), its.lanes(plan)), marks, Set.copyOf(things))
                .orElseThrow();
    }

    /** What the alternator gives at idle. */
    static RippleStudy.Judgement rippled(StandInVehicle vehicle) {
        Capture capture = new ScopedCapture(vehicle).idling(CapturePlans.ripple());
        return RippleStudy.judge(capture).orElseThrow();
    }

    /** Supply and cables at a start; empty where a battery does not turn the engine. */
    static Optional<StartingStudy.Judgement> started(StandInVehicle vehicle) {
        return StartingStudy.judge(new ScopedCapture(vehicle).record(CrankedPlans.starting()));
    }

    /** Crank and camshaft at idle; empty for an engine that a worn battery does not start. */
    static Optional<ToothStudy.Judgement> toothed(StandInVehicle vehicle) {
        Cylinders cylinders = vehicle.description().cylinders().orElseThrow();
        return ToothStudy.judge(
                new ScopedCapture(vehicle).idling(CapturePlans.teeth(cylinders)), cylinders);
    }

    /** Sparks beside each other at idle; empty for an engine that a worn battery does not start. */
    static Optional<SparkStudy.Judgement> sparked(StandInVehicle vehicle) {
        Cylinders cylinders = vehicle.description().cylinders().orElseThrow();
        return SparkStudy.judge(
                new ScopedCapture(vehicle).idling(CapturePlans.sparks(cylinders)),
                cylinders.order());
    }

    /** What coils and injectors draw at idle. */
    static CurrentStudy.Judgement drawn(StandInVehicle vehicle) {
        VehicleDescription d = vehicle.description();
        boolean coils = d.circuits().stream().anyMatch(c -> c.component("coil-1").isPresent());
        Capture capture =
                new ScopedCapture(vehicle)
                        .idling(CapturePlans.currents(d.cylinders().orElseThrow(), coils));
        CaptureStudy.Read read =
                CaptureStudy.read(CaptureStudy.of(d.cylinders(), d.circuits()), capture);
        return read.as(CurrentStudy.Judgement.class)
                .orElseThrow(() -> new AssertionError(read.sentence()));
    }

    private Capture idling(CapturePlan plan) {
        prepare(plan);
        vehicle.simulation().driver(Driver.away().key(2));
        vehicle.live(3);
        vehicle.simulation().crank();
        vehicle.live(8);
        ask("TRIG:SOUR IMM");
        ask("INIT");
        vehicle.live(plan.seconds() + 1);
        List<Lane> lanes = lanes(plan);
        for (CapturePlan.Followed f : plan.follows()) {
            HeldValue held = new HeldValue(f.step());
            held.answered(0, vehicle.reading(f.value()));
            short[] steps = held.steps(plan.interval(), 0, plan.points());
            lanes.add(new Lane(f.name(), f.role(), "", f.value(), f.step(), 0, steps));
        }
        Capture capture = new Capture(plan.interval(), lanes);
        vehicle.simulation().driver(Driver.away());
        vehicle.live(5);
        vehicle.simulation().driver(Driver.away().key(2));
        vehicle.live(3);
        return capture;
    }

    private Capture climbed(CapturePlan plan) {
        VehicleSimulation its = vehicle.simulation();
        prepare(plan);
        its.driver(Driver.away().key(2));
        vehicle.live(3);
        its.crank();
        vehicle.live(20);
        ask("TRIG:SOUR IMM");
        ask("INIT");
        its.driver(its.driver().drive(Driver.Program.CLIMB));
        CapturePlan.Followed followed = plan.follows().get(0);
        HeldValue held = new HeldValue(1);
        for (double t = 0; t < plan.seconds(); t += ASKED_EVERY) {
            vehicle.live(ASKED_EVERY);
            held.answered(t, vehicle.reading(followed.value()));
        }
        its.driver(Driver.away());
        vehicle.live(20);
        its.driver(Driver.away().key(2));
        vehicle.live(3);
        List<Lane> lanes = lanes(plan);
        lanes.add(
                new Lane(
                        followed.name(),
                        followed.role(),
                        "",
                        followed.value(),
                        1,
                        0,
                        held.steps(plan.interval(), 0, plan.points())));
        return new Capture(plan.interval(), lanes);
    }

    private List<Lane> lanes(CapturePlan plan) {
        List<Lane> lanes = new ArrayList<>();
        for (int i = 0; i < plan.lanes().size(); i++) {
            lanes.add(lane(plan.lanes().get(i), i + 1, plan.points()));
        }
        return lanes;
    }

    private void prepare(CapturePlan plan) {
        scope.reset();
        for (int i = 0; i < plan.lanes().size(); i++) {
            ask("ROUT:CLOS (@%d!%s)", i + 1, plan.lanes().get(i).place());
            ask("SENS:VOLT:RANG %s,(@%d)", plan.lanes().get(i).range(), i + 1);
        }
        ask("SENS:SWE:TINT %s", plan.interval());
        ask("SENS:SWE:POIN %d", plan.points());
        ask("SENS:SWE:OREF:POIN %d", (int) (plan.before() * plan.points()));
    }

    private Capture record(CapturePlan plan) {
        prepare(plan);
        vehicle.simulation().driver(Driver.away());
        vehicle.live(5);
        vehicle.simulation().driver(Driver.away().key(2));
        vehicle.live(1);
        if (plan.trigger().isPresent()) {
            ask("TRIG:SOUR INT");
            CapturePlan.Trigger trigger = plan.trigger().get();
            ask("TRIG:LEV %s,(@%d)", trigger.level(), trigger.lane());
            ask("INIT");
            vehicle.live(0.5);
            vehicle.simulation().act("crank-only");
        } else {
            ask("TRIG:SOUR IMM");
            ask("INIT");
        }
        vehicle.live(plan.seconds() + 2);
        vehicle.simulation().driver(Driver.away().key(2));
        return new Capture(plan.interval(), lanes(plan));
    }

    private Lane lane(CapturePlan.Probe probe, int number, int points) {
        double scale = Double.parseDouble(ask("TRAC:PRE? (@%d)", number).split(",")[0]);
        short[] steps = new short[points];
        for (int from = 0; from < points; from += AT_ONCE) {
            int count = Math.min(AT_ONCE, points - from);
            ByteBuffer block =
                    ByteBuffer.wrap(
                            answer("TRAC:DATA? (@%d),%d,%d".formatted(number, from, count)));
            block.position(2 + block.get(1) - '0');
            for (int i = 0; i < count; i++) {
                steps[from + i] = block.getShort();
            }
        }
        return new Lane(
                probe.name(), probe.role(), probe.role().unit(), probe.told(), scale, 0, steps);
    }
}
