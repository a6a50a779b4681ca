package brightlantern.core.code;

import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** First and last freeze frame of a code side by side, and what both occasions had in common. */
public final class FrameComparison {
    /** Two occasions count as alike within a tenth of the larger reading. */
    private static final double ALIKE = 0.10;

    private FrameComparison() {}

    /** Texts are rounded to the value's digits; {@code alike} is empty when one side is missing. */
    public record Row(
            String name, String unit, String first, String last, Optional<Boolean> alike) {}

    public static List<Row> rows(StoredCode code, VehicleDescription description) {
        List<Row> rows = new ArrayList<>();
        if (code.frames().isEmpty()) {
            return rows;
        }
        StoredCode.Frame first = code.frames().get(0);
        StoredCode.Frame last = code.frames().get(code.frames().size() - 1);
        first.values()
                .forEach(
                        (id, value) ->
                                description
                                        .value(id)
                                        .ifPresent(
                                                known -> {
                                                    Double other =
                                                            code.frames().size() > 1
                                                                    ? last.values().get(id)
                                                                    : null;
                                                    Optional<Boolean> alike =
                                                            other == null
                                                                    ? Optional.empty()
                                                                    : Optional.of(
                                                                            Math.abs(value - other)
                                                                                    <= ALIKE
                                                                                            * Math
                                                                                                    .max(
                                                                                                            Math
                                                                                                                    .abs(
                                                                                                                            value),
                                                                                                            Math
                                                                                                                    .abs(
                                                                                                                            other)));
                                                    rows.add(
                                                            new Row(
                                                                    known.name(),
                                                                    known.isState()
                                                                            ? ""
                                                                            : known.show(),
                                                                    brightlantern.core.signal
                                                                            .Scaling.show(
                                                                            known, value),
                                                                    other == null
                                                                            ? ""
                                                                            : brightlantern.core
                                                                                    .signal.Scaling
                                                                                    .show(
                                                                                            known,
                                                                                            other),
                                                                    alike));
                                                }));
        return rows;
    }
}
