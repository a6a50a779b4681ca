package brightlantern.app.exercise;

import brightlantern.app.link.OutputSession;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.Study;
import brightlantern.core.signal.Words;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import java.util.LinkedHashMap;
import java.util.Map;

/** Acts that command outputs and routines of modules. */
final class CommandExecutors {
    /** Between two readings while an output moves. */
    private static final long FAST_MILLIS = 4;

    /** While an output moves, gates are looked at this often, s. */
    private static final double LOOK_SECONDS = 0.15;

    private final RunDesk desk;

    CommandExecutors(RunDesk desk) {
        this.desk = desk;
    }

    void command(Step step, Act.Command command) throws WireException {
        Procedure.Output output = desk.its.run().procedure().output(command.output()).orElseThrow();
        desk.carried(
                step,
                () -> {
                    lead(command, output);
                    return new Event.Did(step.id(), Map.of());
                });
    }

    void giveBack(Step step, Act.GiveBack act) throws WireException {
        desk.sessions.giveBack();
        desk.tell(new Event.Did(step.id(), Map.of()));
    }

    void routine(Step step, Act.RunRoutine routine) throws WireException {
        Procedure.Routine described =
                desk.its.run().procedure().routine(routine.routine()).orElseThrow();
        // a module that works on a routine answers nothing else meanwhile
        GateKeeper others = desk.keeper.without(described.module());
        desk.carried(
                step,
                () ->
                        desk.patiently(
                                () -> {
                                    desk.people();
                                    desk.open(others.look());
                                },
                                () -> new Event.Did(step.id(), routine(described, routine.how()))));
    }

    /**
     * Leads an output through desk.its positions, reading meanwhile as fast as the module answers.
     * What is read in one message is of one moment: the middle of request and answer.
     */
    private void lead(Act.Command command, Procedure.Output output) throws WireException {
        VehicleDescription d = desk.vehicle();
        OutputSession session = desk.sessions.of(output.module());
        double nextLook = desk.its.seconds() + LOOK_SECONDS;
        for (Act.Leg leg : command.legs()) {
            session.drive(output.did(), output.name(), leg.to());
            double until = desk.its.seconds() + leg.seconds();
            while (desk.its.seconds() < until) {
                session.check();
                double before = desk.its.seconds();
                Map<String, Double> read =
                        new LinkedHashMap<>(desk.its.context.link().readAll(d, command.values()));
                double after = desk.its.seconds();
                read.put(Study.SLACK, (after - before) / 2);
                desk.its.sample((before + after) / 2, read);
                if (desk.its.seconds() > nextLook) {
                    desk.watch();
                    nextLook = desk.its.seconds() + LOOK_SECONDS;
                }
                RunDesk.pause(FAST_MILLIS);
            }
        }
    }

    private Map<String, Double> routine(Procedure.Routine routine, Act.How how)
            throws WireException {
        OutputSession session = desk.sessions.of(routine.module());
        int kind =
                switch (how) {
                    case START -> OutputSession.START;
                    case STOP -> OutputSession.STOP;
                    case RESULT -> OutputSession.ASK;
                };
        Bytes bytes = session.routine(kind, routine.rid(), routine.name());
        Map<String, Double> readings = new LinkedHashMap<>();
        if (how != Act.How.RESULT) {
            return readings;
        }
        int at = 0;
        for (Procedure.Result result : routine.results()) {
            if (at + result.bytes() > bytes.size()) {
                throw new RunBroken(
                        "%s: desk.its result ends after %s; %s was expected there."
                                .formatted(
                                        routine.name(),
                                        Words.count(bytes.size(), "byte"),
                                        result.name()));
            }
            int raw = 0;
            for (int i = 0; i < result.bytes(); i++) {
                raw = raw << 8 | bytes.at(at + i);
            }
            if (!result.states().isEmpty() && !result.states().containsKey(raw)) {
                throw new RunBroken(
                        "%s: %s is %d, which is not described."
                                .formatted(routine.name(), result.name(), raw));
            }
            readings.put(Scene.result(routine.id(), result.id()), raw * result.scale());
            at += result.bytes();
        }
        return readings;
    }
}
