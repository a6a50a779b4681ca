package brightlantern.core.procedure.library;

import brightlantern.core.procedure.Act;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Acts in which somebody is told, asked or waited for. */
final class TalkReaders {
    static final Map<String, ActReader> ALL =
            Map.of(
                    "tell",
                    (step, in) -> new Act.Tell(step.next()),
                    "ask",
                    (ActReader.Telling) TalkReaders::ask,
                    "wait",
                    TalkReaders::waiting,
                    "conclude",
                    (step, in) ->
                            new Act.Conclude(
                                    ReadingContext.passes(step.node()),
                                    in.tells(step, step.node())));

    private TalkReaders() {}

    private static Act ask(RawStep step, ReadingContext in) {
        List<Act.Choice> choices = new ArrayList<>();
        for (JsonNode c : step.node().path("choices")) {
            choices.add(
                    new Act.Choice(
                            RawStep.text(c, "id"),
                            RawStep.text(c, "name"),
                            c.has("next") ? RawStep.text(c, "next") : step.next()));
        }
        Optional<Act.Figure> figure = Optional.empty();
        if (step.node().path("number") instanceof ObjectNode n) {
            figure =
                    Optional.of(
                            new Act.Figure(
                                    RawStep.text(n, "name"),
                                    RawStep.text(n, "unit"),
                                    n.path("least").asDouble(),
                                    n.path("most").asDouble()));
        }
        if (choices.isEmpty() == figure.isEmpty()) {
            in.wrong(step, "expected 'choices' or a 'number' as the answer, one of them");
        }
        if (step.has("shows")) {
            in.configuration(step, step.text("shows"));
        }
        return new Act.Ask(choices, figure, step.text("shows"), step.next());
    }

    private static Act waiting(RawStep step, ReadingContext in) {
        if (!step.has("seconds")) {
            in.wrong(step, "expected 'seconds', a limit; a wait without one never ends");
        }
        if (!step.has("late")) {
            in.wrong(step, "expected 'late', the step to go on with when the limit is reached");
        }
        return new Act.Wait(
                step.text("wait"),
                in.condition(step.place(), step.text("wait")),
                step.number("seconds"),
                step.node().path("asked").asBoolean(false),
                step.next(),
                step.text("late"));
    }
}
