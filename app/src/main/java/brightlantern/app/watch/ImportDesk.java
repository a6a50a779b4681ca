package brightlantern.app.watch;

import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Value;
import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.core.vehicle.VehicleDescription;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * A log that was sent and waits to be taken: where it lies, what it is looked at as, and what its
 * columns mean.
 */
@Component
class ImportDesk {
    private final ColumnMappings mappings;
    private final Path waiting;

    ImportDesk(
            ColumnMappings mappings,
            @org.springframework.beans.factory.annotation.Value("${lantern.data}") String data) {
        this.mappings = mappings;
        this.waiting = Path.of(data).toAbsolutePath().resolve("brought-in");
    }

    /** How the file is to be read, as somebody said on the page. */
    record Said(String separator, String decimal, String time, String clock, String dates) {
        static Said of(Map<String, String> form) {
            return new Said(
                    form.getOrDefault("separator", ""),
                    form.getOrDefault("decimal", ""),
                    form.getOrDefault("time", ""),
                    form.getOrDefault("clock", ""),
                    form.getOrDefault("dates", ""));
        }

        CsvLook.Corrections corrections() {
            return new CsvLook.Corrections(
                    Optional.of(separator)
                            .filter(t -> !t.isEmpty())
                            .map(t -> t.equals("tab") ? '\t' : t.charAt(0)),
                    Optional.of(decimal).filter(t -> !t.isEmpty()).map(t -> t.equals("comma")),
                    time.matches("-?\\d{1,4}")
                            ? OptionalInt.of(Integer.parseInt(time))
                            : OptionalInt.empty(),
                    // each of several columns of times has a clock of its own
                    time.isEmpty() ? Optional.empty() : named(Dialect.Clock.values(), clock),
                    named(Dialect.DateOrder.values(), dates));
        }

        private static <T extends Enum<T>> Optional<T> named(T[] all, String name) {
            return Arrays.stream(all).filter(t -> t.name().equals(name)).findFirst();
        }
    }

    /** What was looked at and never taken waits for a day. */
    /** The folder of logs that were sent and not yet taken. */
    Path folder() throws IOException {
        return Files.createDirectories(waiting);
    }

    void forgetOld() throws IOException {
        Instant oldest = Instant.now().minus(Duration.ofDays(1));
        try (Stream<Path> files = Files.list(waiting)) {
            for (Path file : files.toList()) {
                if (Files.getLastModifiedTime(file).toInstant().isBefore(oldest)) {
                    Files.deleteIfExists(file);
                }
            }
        }
    }

    Path kept(String token) {
        Path file = waiting.resolve(token);
        if (!token.matches("[0-9a-f-]{36}") || !Files.exists(file)) {
            throw new IllegalArgumentException(
                    "This file is no longer waiting here; choose it once more");
        }
        return file;
    }

    /**
     * @param form what was chosen so far; a first look has nothing in it
     */
    ImportRows.LookPage lookPage(JobPages.Context context, String token, Map<String, String> form)
            throws IOException {
        Path file = kept(token);
        CsvLook look = ImportRows.lookAt(file, Said.of(form).corrections());
        VehicleDescription d = context.description();
        Dialect dialect = look.dialect();
        Map<String, ColumnMappings.Said> known = mappings.of(d.id());
        List<ImportRows.Row> rows =
                dialect.columns().stream()
                        .map(
                                c ->
                                        ImportRows.row(
                                                d,
                                                look,
                                                c,
                                                Optional.ofNullable(known.get(c.name())),
                                                form))
                        .toList();
        Optional<Dialect.Column> time =
                dialect.columns().stream().filter(c -> c.role() == Dialect.Role.TIME).findFirst();
        boolean several =
                dialect.columns().stream().filter(c -> c.role() == Dialect.Role.TIME).count() > 1;
        List<ImportRows.Choice> times = new ArrayList<>();
        if (several) {
            times.add(new ImportRows.Choice("", "several, each for the columns after it", true));
        }
        times.add(new ImportRows.Choice("-1", "none: a line a second", time.isEmpty()));
        dialect.columns().stream()
                .filter(c -> c.role() != Dialect.Role.MARK)
                .limit(ImportRows.MOST_TIME_CHOICES)
                .forEach(
                        c ->
                                times.add(
                                        new ImportRows.Choice(
                                                String.valueOf(c.index()),
                                                c.name(),
                                                !several
                                                        && time.map(t -> t.index() == c.index())
                                                                .orElse(false))));
        List<String> remarks = new ArrayList<>(look.remarks());
        Path told = file.resolveSibling(file.getFileName() + ".told");
        if (Files.exists(told)) {
            remarks.add(0, Files.readString(told));
        }
        remarks.add("Letters: " + dialect.charset() + ".");
        return new ImportRows.LookPage(
                token,
                Files.readString(waiting.resolve(token + ".name")),
                remarks,
                List.of(
                        new ImportRows.Choice(",", "comma", dialect.separator() == ','),
                        new ImportRows.Choice(";", "semicolon", dialect.separator() == ';'),
                        new ImportRows.Choice("tab", "tab", dialect.separator() == '\t'),
                        new ImportRows.Choice("|", "bar |", dialect.separator() == '|')),
                List.of(
                        new ImportRows.Choice("point", "point, 1.5", !dialect.decimalComma()),
                        new ImportRows.Choice("comma", "comma, 1,5", dialect.decimalComma())),
                times,
                Arrays.stream(Dialect.Clock.values())
                        .map(
                                k ->
                                        new ImportRows.Choice(
                                                k.name(),
                                                k.words(),
                                                time.flatMap(Dialect.Column::clock)
                                                        .equals(Optional.of(k))))
                        .toList(),
                Arrays.stream(Dialect.DateOrder.values())
                        .map(o -> new ImportRows.Choice(o.name(), o.words(), dialect.dates() == o))
                        .toList(),
                rows,
                d.values().stream().map(Value::name).distinct().sorted().toList(),
                ImportRows.units());
    }

    /**
     * What was said of each column; it is remembered for the next log.
     *
     * @throws IllegalArgumentException names the column, what was typed and what was expected
     */
    Map<Integer, CsvImport.Mapped> mapped(
            VehicleDescription d, Dialect dialect, Map<String, String> form) {
        Map<Integer, CsvImport.Mapped> own = CsvImport.own(dialect);
        Map<Integer, CsvImport.Mapped> mapped = new LinkedHashMap<>();
        Map<String, ColumnMappings.Said> said = new LinkedHashMap<>();
        for (Dialect.Column c : dialect.columns()) {
            if (!own.containsKey(c.index())) {
                continue;
            }
            String to = form.getOrDefault("to-" + c.index(), ImportRows.OWN).trim();
            String unit = form.getOrDefault("unit-" + c.index(), c.unit()).trim();
            if (to.equals(ImportRows.LEFT_OUT)) {
                said.put(c.name(), new ColumnMappings.Said("none", unit));
                continue;
            }
            Optional<Value> value = ImportRows.valueOf(d, to);
            if (value.isEmpty() && !to.isEmpty() && !to.equals(ImportRows.OWN)) {
                throw new IllegalArgumentException(
                        "Column '%s': '%s' is no value of this vehicle. Choose one, or type '%s' or '%s'."
                                .formatted(c.name(), to, ImportRows.OWN, ImportRows.LEFT_OUT));
            }
            String known = value.map(v -> ImportUnits.inUnitOf(c.name(), unit, v)).orElse(unit);
            said.put(c.name(), new ColumnMappings.Said(value.map(Value::id).orElse("own"), known));
            mapped.put(
                    c.index(),
                    value.map(v -> new CsvImport.Mapped(v, known))
                            .orElseGet(() -> ImportUnits.inUnit(own.get(c.index()), known)));
        }
        if (mapped.isEmpty()) {
            throw new IllegalArgumentException("Every column is left out; choose at least one.");
        }
        said.forEach((column, its) -> mappings.keep(d.id(), column, its));
        return mapped;
    }
}
