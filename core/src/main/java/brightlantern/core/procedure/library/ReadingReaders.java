package brightlantern.core.procedure.library;

import brightlantern.core.network.ControlModule;
import brightlantern.core.procedure.Act;
import brightlantern.core.signal.Value;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Acts that read codes and values of the vehicle. */
final class ReadingReaders {
    static final Map<String, ActReader> ALL =
            Map.of(
                    "codes",
                    (ActReader.Telling) ReadingReaders::codes,
                    "read",
                    (ActReader.Telling) (step, in) -> measure(step, "read", in),
                    "measure",
                    (ActReader.Telling) ReadingReaders::measure);

    private ReadingReaders() {}

    private static Act codes(RawStep step, ReadingContext in) {
        List<String> modules = step.texts("codes");
        modules.forEach(
                m ->
                        in.known(
                                step,
                                "a module",
                                in.vehicle().modules().stream().map(ControlModule::id),
                                m));
        return new Act.Codes(
                modules,
                step.text("as"),
                step.has("since") ? Optional.of(step.text("since")) : Optional.empty(),
                step.next());
    }

    private static Act measure(RawStep step, ReadingContext in) {
        if (!step.has("seconds")) {
            in.wrong(step, "expected 'seconds', how long to measure");
        }
        return measure(step, "measure", in);
    }

    private static Act measure(RawStep step, String field, ReadingContext in) {
        return new Act.Measure(
                values(step, field, in),
                step.number("seconds"),
                step.has("until")
                        ? Optional.of(in.condition(step.place(), step.text("until")))
                        : Optional.empty(),
                step.has("as") ? step.text("as") : step.id(),
                step.next());
    }

    /** The values that a field names; {@code cell.*} stands for all that are called so. */
    static List<String> values(RawStep step, String field, ReadingContext in) {
        List<String> values =
                step.texts(field).stream().flatMap(named -> unfolded(named, in)).toList();
        values.forEach(
                v -> in.known(step, "a value", in.vehicle().values().stream().map(Value::id), v));
        return values;
    }

    private static Stream<String> unfolded(String named, ReadingContext in) {
        if (!named.endsWith("*")) {
            return Stream.of(named);
        }
        Pattern numbered =
                Pattern.compile(Pattern.quote(named.substring(0, named.length() - 1)) + "\\d+");
        return in.vehicle().values().stream()
                .map(Value::id)
                .filter(id -> numbered.matcher(id).matches());
    }
}
