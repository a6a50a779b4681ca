package brightlantern.app.watch;

import brightlantern.core.filter.Filter;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.filter.Stretch;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import brightlantern.core.take.Span;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Parts of a take that were asked for by a condition, with what every value did in them.
 *
 * @param when the condition as it was typed
 * @param trouble the same with a mark where it goes wrong; empty when it was understood
 * @param told how many were found, in words; empty when nothing was asked
 */
record StretchSearch(String when, String trouble, String told, List<Found> found) {
    private static final double BRIDGE_SECONDS = 0.5;

    /** Shorter ones are flickers. */
    private static final double LEAST_SECONDS = 0.5;

    private static final int MOST = 20;

    record Found(String from, String to, String seconds, List<Row> rows) {}

    record Row(String name, String unit, String least, String mean, String most) {}

    static StretchSearch of(Take take, VehicleDescription description, String when) {
        if (when.isBlank()) {
            return new StretchSearch("", "", "", List.of());
        }
        Filter filter;
        try {
            filter = FilterParser.parse(when, description.signals());
        } catch (FilterException wrong) {
            return new StretchSearch(when, wrong.shownIn(when), "", List.of());
        }
        List<String> lacking =
                filter.values().stream().filter(v -> !take.columns().containsKey(v)).toList();
        if (!lacking.isEmpty()) {
            return new StretchSearch(
                    when,
                    "This take does not hold "
                            + String.join(
                                    ", ",
                                    lacking.stream()
                                            .map(v -> description.value(v).orElseThrow().name())
                                            .toList())
                            + "; add it to the watch list and record again.",
                    "",
                    List.of());
        }
        // the value that was read most often sees most
        Optional<Take.Column> clock =
                filter.values().stream()
                        .map(take.columns()::get)
                        .max(Comparator.comparingInt(Take.Column::size));
        List<Stretch> stretches =
                Stretch.find(take, filter, clock.orElseThrow(), BRIDGE_SECONDS).stream()
                        .filter(s -> s.seconds() >= LEAST_SECONDS)
                        .toList();
        double all = stretches.stream().mapToDouble(Stretch::seconds).sum();
        return new StretchSearch(
                when,
                "",
                stretches.isEmpty()
                        ? "It never held for half a second."
                        : text("It held %d time(s), %.0f s together.", stretches.size(), all),
                stretches.stream().limit(MOST).map(s -> found(take, description, s)).toList());
    }

    private static Found found(Take take, VehicleDescription description, Stretch stretch) {
        List<Row> rows = new ArrayList<>();
        take.columns()
                .forEach(
                        (id, column) ->
                                description
                                        .value(id)
                                        .filter(v -> !v.isState())
                                        .map(v -> row(v, column, stretch))
                                        .ifPresent(rows::add));
        return new Found(
                text("%.1f", stretch.from()),
                text("%.1f", stretch.to()),
                text("%.1f", stretch.seconds()),
                rows);
    }

    private static Row row(Value value, Take.Column column, Stretch stretch) {
        Span span = Span.of(column, stretch.from(), stretch.to());
        return new Row(
                value.name(),
                value.show(),
                Scaling.show(value, span.least()),
                Scaling.show(value, span.mean()),
                Scaling.show(value, span.most()));
    }

    private static String text(String format, Object... figures) {
        return Words.counted(String.format(Locale.ROOT, format, figures));
    }
}
