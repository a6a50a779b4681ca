package brightlantern.core.procedure.library;

import brightlantern.core.filter.Filter;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Procedure;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** Acts that command the vehicle or write into it. */
final class CommandReaders {
    static final Map<String, ActReader> ALL =
            Map.of(
                    "command",
                    CommandReaders::command,
                    "giveBack",
                    (step, in) -> new Act.GiveBack(step.next()),
                    "routine",
                    (ActReader.Telling) CommandReaders::routine,
                    "keep",
                    (ActReader.Telling) CommandReaders::keep,
                    "build",
                    CommandReaders::build,
                    "write",
                    CommandReaders::write);

    private CommandReaders() {}

    /** One position, or a sequence of them with the seconds for which each is held. */
    private static Act command(RawStep step, ReadingContext in) {
        in.known(
                step,
                "an output",
                in.equipment().outputs().stream().map(Procedure.Output::id),
                step.text("command"));
        List<Act.Leg> legs = new ArrayList<>();
        for (JsonNode leg : step.node().path("sequence")) {
            legs.add(new Act.Leg(leg.path(0).asDouble(), leg.path(1).asDouble()));
        }
        if (legs.isEmpty() == !step.has("to")) {
            in.wrong(step, "expected 'to' or a 'sequence', one of them");
        }
        if (step.has("to")) {
            legs.add(new Act.Leg(step.number("to"), 0));
        }
        return new Act.Command(
                step.text("command"),
                List.copyOf(legs),
                ReadingReaders.values(step, "values", in),
                step.next(),
                step.refused());
    }

    private static Act routine(RawStep step, ReadingContext in) {
        in.known(
                step,
                "a routine",
                in.equipment().routines().stream().map(Procedure.Routine::id),
                step.text("routine"));
        return new Act.RunRoutine(
                step.text("routine"),
                Act.How.valueOf(step.text("how").toUpperCase(Locale.ROOT)),
                step.next(),
                step.refused());
    }

    private static Act keep(RawStep step, ReadingContext in) {
        in.configuration(step, step.text("keep"));
        return new Act.Keep(step.text("keep"), step.text("as"), step.next(), step.refused());
    }

    private static Act build(RawStep step, ReadingContext in) {
        in.configuration(step, step.text("build"));
        Map<String, Filter> options = new LinkedHashMap<>();
        step.node()
                .path("options")
                .properties()
                .forEach(
                        o ->
                                options.put(
                                        o.getKey(),
                                        in.condition(step.place(), o.getValue().asString())));
        return new Act.Build(step.text("build"), Map.copyOf(options), step.next());
    }

    private static Act write(RawStep step, ReadingContext in) {
        in.configuration(step, step.text("write"));
        return new Act.Write(step.text("write"), step.next(), step.refused());
    }
}
