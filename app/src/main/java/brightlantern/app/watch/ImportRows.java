package brightlantern.app.watch;

import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.core.take.csv.LongForm;
import brightlantern.core.vehicle.VehicleDescription;
import java.io.IOException;
import java.io.InputStream;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/** Columns of a log as the page of an import shows them. */
final class ImportRows {
    /** More columns than these are not offered as the one of times; it is among the first. */
    static final int MOST_TIME_CHOICES = 60;

    static final String OWN = "a value of its own";
    static final String LEFT_OUT = "left out";

    private ImportRows() {}

    /**
     * A column as the page shows it, with what it is to become.
     *
     * @param kind what it is when it is no value, in words; empty for values
     * @param becomes name of a described value, or that it is one of its own, or left out
     * @param asked whether its unit has to be told before it can be read
     */
    record Row(
            int index,
            String name,
            String kind,
            String examples,
            String becomes,
            String unit,
            boolean asked) {}

    /** One of several ways to read the file, and whether it is the present one. */
    record Choice(String value, String words, boolean now) {}

    /** All that the page shows of a file that was looked at. */
    record LookPage(
            String token,
            String name,
            List<String> remarks,
            List<Choice> separators,
            List<Choice> decimals,
            List<Choice> times,
            List<Choice> clocks,
            List<Choice> dates,
            List<Row> rows,
            List<String> values,
            List<String> units) {}

    /** A log with a line for each name and value becomes one with a column for each name. */
    static void widen(Path file) throws IOException {
        Optional<LongForm> longForm = LongForm.of(lookAt(file, CsvLook.Corrections.none()));
        if (longForm.isEmpty()) {
            return;
        }
        Path wide = file.resolveSibling(file.getFileName() + ".wide");
        List<String> remarks;
        try (Writer out = Files.newBufferedWriter(wide)) {
            remarks = longForm.get().widen(() -> Files.newInputStream(file), out);
        }
        Files.move(wide, file, StandardCopyOption.REPLACE_EXISTING);
        Files.writeString(
                file.resolveSibling(file.getFileName() + ".told"), String.join("\n", remarks));
    }

    static CsvLook lookAt(Path file, CsvLook.Corrections said) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return CsvLook.at(in.readNBytes(CsvLook.ENOUGH_BYTES), said);
        }
    }

    static Row row(
            VehicleDescription d,
            CsvLook look,
            Dialect.Column c,
            Optional<ColumnMappings.Said> said,
            Map<String, String> form) {
        String kind =
                switch (c.role()) {
                    case TIME -> "times, as " + c.clock().map(Dialect.Clock::words).orElse("text");
                    case MARK -> "marks";
                    case EMPTY -> "empty, left out";
                    default -> "";
                };
        String id = said.map(ColumnMappings.Said::value).orElseGet(() -> guess(d, c.name()));
        String becomes =
                form.getOrDefault(
                        "to-" + c.index(),
                        id.equals("none") ? LEFT_OUT : d.value(id).map(Value::name).orElse(OWN));
        // what stands in the file is surer than what was said of another file
        String unit =
                form.getOrDefault(
                        "unit-" + c.index(),
                        !c.unit().isEmpty()
                                ? Units.spelledAs(c.unit()).orElse(c.unit())
                                : said.map(ColumnMappings.Said::unit)
                                        .filter(u -> !u.isEmpty())
                                        .orElseGet(() -> d.value(id).map(Value::unit).orElse("")));
        boolean asked =
                !unit.isEmpty()
                        && Units.spelledAs(unit).isEmpty()
                        && valueOf(d, becomes)
                                .map(v -> !v.unit().isEmpty() && !v.unit().equals(unit))
                                .orElse(false);
        return new Row(
                c.index(),
                c.name(),
                kind,
                look.rows().stream()
                        .limit(3)
                        .map(r -> r.get(c.index()))
                        .collect(Collectors.joining("  ")),
                becomes,
                unit,
                asked);
    }

    static Optional<Value> valueOf(VehicleDescription d, String typed) {
        return d.values().stream()
                .filter(v -> v.name().equalsIgnoreCase(typed.trim()) || v.id().equals(typed.trim()))
                .findFirst();
    }

    static List<String> units() {
        return Units.choices().values().stream().flatMap(List::stream).toList();
    }

    /** A described value of the very same name. */
    private static String guess(VehicleDescription d, String name) {
        return d.values().stream()
                .filter(v -> v.name().equalsIgnoreCase(name) || v.id().equalsIgnoreCase(name))
                .map(Value::id)
                .findFirst()
                .orElse("own");
    }
}
