package brightlantern.app.exercise;

import brightlantern.core.configuration.Configuration;
import brightlantern.core.configuration.Item;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.wire.WireException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** Acts that read, build and write what a module can be told. */
final class ConfigurationExecutors {
    private final RunDesk desk;

    ConfigurationExecutors(RunDesk desk) {
        this.desk = desk;
    }

    void build(Step step, Act.Build build) {
        desk.tell(
                new Event.Kept(
                        step.id(), desk.its.run().built(build, desk.its.context.job().vin())));
    }

    void write(Step step, Act.Write write) throws WireException {
        desk.carried(
                step,
                // what is half written is worse than what was begun with a gate shut
                () ->
                        desk.patiently(
                                desk::stopped,
                                () -> {
                                    write(desk.its.run(), write);
                                    return new Event.Did(step.id(), Map.of());
                                }));
    }

    void keep(Step step, Act.Keep keep) {
        Configuration c =
                desk.its.run().procedure().configuration(keep.configuration()).orElseThrow();
        Map<String, String> data = new LinkedHashMap<>();
        try {
            Writes.read(desk.its.context, c)
                    .forEach((item, hex) -> data.put(Scene.item(keep.as(), item), hex));
            desk.tell(new Event.Kept(step.id(), data));
        } catch (WireException silent) {
            desk.tell(new Event.Refused(step.id(), desk.vehicle().named(silent.getMessage())));
        }
    }

    private void write(ProcedureRun run, Act.Write write) throws WireException {
        Configuration c = run.procedure().configuration(write.configuration()).orElseThrow();
        Map<String, String> wanted = new LinkedHashMap<>();
        for (Item item : c.items()) {
            Optional.ofNullable(run.data().get(Scene.item(Scene.WANTED, item.id())))
                    .filter(hex -> !item.blank(hex))
                    .ifPresent(hex -> wanted.put(item.id(), hex));
        }
        if (wanted.isEmpty()) {
            throw new RunBroken("Nothing is known that " + c.name() + " could be told.");
        }
        desk.tools
                .writes()
                .write(desk.its.context, desk.sessions.of(c.module()), c, wanted, desk.its.who);
    }
}
