package brightlantern.app.exercise;

import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Step;
import brightlantern.wire.WireException;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;

/** Who carries out which kind of act. */
final class ActExecutors {
    private final RunDesk desk;
    private final Map<Class<? extends Act>, ActExecutor<Act>> all = new HashMap<>();

    ActExecutors(RunDesk desk) {
        this.desk = desk;
        WatchingExecutors watching = new WatchingExecutors(desk);
        CommandExecutors commands = new CommandExecutors(desk);
        ConfigurationExecutors configurations = new ConfigurationExecutors(desk);
        KnowledgeExecutors knowledge = new KnowledgeExecutors(desk);
        with(Act.Wait.class, watching::waitFor);
        with(Act.Measure.class, watching::measure);
        with(Act.Command.class, commands::command);
        with(Act.GiveBack.class, commands::giveBack);
        with(Act.RunRoutine.class, commands::routine);
        with(Act.Keep.class, configurations::keep);
        with(Act.Build.class, configurations::build);
        with(Act.Write.class, configurations::write);
        with(Act.Codes.class, knowledge::codes);
        with(Act.Study.class, knowledge::study);
    }

    private <A extends Act> void with(Class<A> kind, ActExecutor<A> executor) {
        all.put(kind, (step, act) -> executor.carryOut(step, kind.cast(act)));
    }

    /** Carries out an act; one that waits for a person goes on reading what was read before. */
    void carryOut(Step step) throws WireException {
        ActExecutor<Act> executor = all.get(step.act().getClass());
        if (executor != null) {
            executor.carryOut(step, step.act());
        } else {
            desk.read(desk.its.followed, new LinkedHashMap<>(), true);
            RunDesk.pause();
        }
    }
}
