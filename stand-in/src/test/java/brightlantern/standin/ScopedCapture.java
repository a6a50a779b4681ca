package brightlantern.standin;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.Lane;
import brightlantern.core.network.Bus;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.instrument.Scope;
import brightlantern.standin.instrument.StatusModel;
import brightlantern.standin.plant.Driver;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.scpi.ScpiLine;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Captures of a stand-in, recorded by its oscilloscope as a plan says. */
final class ScopedCapture {
    private static final double FIRES_BEFORE = 6;
    private static final int AT_ONCE = 25_000;

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
                        .record(CapturePlan.cranking(d.cylinders().orElseThrow()));
        return CrankingStudy.judge(capture, d.cylinders().orElseThrow().order(), FIRES_BEFORE);
    }

    /** The same, of an engine that turns. */
    static CrankingStudy.Judgement judged(StandInVehicle vehicle) {
        return cranked(vehicle).orElseThrow();
    }

    /** Both ends of a bus, with the key on. */
    static Capture ofBus(StandInVehicle vehicle, Bus bus) {
        return new ScopedCapture(vehicle).record(CapturePlan.bus(bus, "here", "there"));
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

    private Capture record(CapturePlan plan) {
        scope.reset();
        for (int i = 0; i < plan.lanes().size(); i++) {
            ask("ROUT:CLOS (@%d!%s)", i + 1, plan.lanes().get(i).place());
            ask("SENS:VOLT:RANG %s,(@%d)", plan.lanes().get(i).range(), i + 1);
        }
        ask("SENS:SWE:TINT %s", plan.interval());
        ask("SENS:SWE:POIN %d", plan.points());
        ask("SENS:SWE:OREF:POIN %d", (int) (plan.before() * plan.points()));
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
        List<Lane> lanes = new ArrayList<>();
        for (int i = 0; i < plan.lanes().size(); i++) {
            lanes.add(lane(plan.lanes().get(i), i + 1, plan.points()));
        }
        return new Capture(plan.interval(), lanes);
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
