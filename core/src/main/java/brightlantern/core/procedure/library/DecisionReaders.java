package brightlantern.core.procedure.library;

import brightlantern.core.procedure.Act;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** Acts that decide by what is known. */
final class DecisionReaders {
    static final Map<String, ActReader> ALL =
            Map.of(
                    "judge",
                    (step, in) -> decide(step, "judge", in),
                    "branch",
                    (step, in) -> decide(step, "branch", in),
                    "study",
                    (ActReader.Telling) DecisionReaders::study,
                    "repeat",
                    DecisionReaders::repeat);

    private DecisionReaders() {}

    private static Act decide(RawStep step, String kind, ReadingContext in) {
        List<Act.Case> cases = new ArrayList<>();
        for (JsonNode c : step.node().path(kind)) {
            cases.add(
                    new Act.Case(
                            RawStep.text(c, "when"),
                            in.condition(step.place(), RawStep.text(c, "when")),
                            RawStep.text(c, "says"),
                            ReadingContext.passes(c),
                            in.tells(step, c),
                            c.has("next") ? RawStep.text(c, "next") : step.following()));
        }
        return new Act.Decide(
                cases, step.has("otherwise") ? step.text("otherwise") : step.following());
    }

    private static Act study(RawStep step, ReadingContext in) {
        String study = step.text("study");
        if (!Studies.knows(study)) {
            in.wrong(step, "there is no study '" + study + "'");
        }
        Map<String, Double> with = new LinkedHashMap<>();
        step.node()
                .path("with")
                .properties()
                .forEach(e -> with.put(e.getKey(), e.getValue().asDouble()));
        String finding = step.text("finding");
        if (!finding.isEmpty() && in.vehicle().finding(finding).isEmpty()) {
            in.wrong(step, "expected a finding, found '" + finding + "', which is not described");
        }
        return new Act.Study(
                study, step.text("about"), finding, with, step.next(), Studies.outcomes(study));
    }

    private static Act repeat(RawStep step, ReadingContext in) {
        if (step.node().path("times").asInt(0) < 1) {
            in.wrong(step, "expected 'times', how often at most");
        }
        return new Act.Repeat(
                step.text("repeat"),
                step.text("until"),
                in.condition(step.place(), step.text("until")),
                step.node().path("times").asInt(1),
                step.next(),
                step.has("otherwise") ? step.text("otherwise") : step.next());
    }
}
