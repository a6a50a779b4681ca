package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.page.Format;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.core.take.csv.LongForm;
import brightlantern.core.take.mdf.MdfReader;
import brightlantern.core.vehicle.VehicleDescription;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Brings logs from elsewhere in as takes: a look, what each column is, and the take. */
@Controller
@RequestMapping("/jobs/{id}/watch/import")
class ImportController {
    /** More columns than these are not offered as the one of times; it is among the first. */
    private static final int MOST_TIME_CHOICES = 60;

    private final JobPages pages;
    private final Takes takes;
    private final ColumnMappings mappings;
    private final Path waiting;

    ImportController(
            JobPages pages,
            Takes takes,
            ColumnMappings mappings,
            @org.springframework.beans.factory.annotation.Value("${lantern.data}") String data) {
        this.pages = pages;
        this.takes = takes;
        this.mappings = mappings;
        this.waiting = Path.of(data).toAbsolutePath().resolve("brought-in");
    }

    private static final String OWN = "a value of its own";
    private static final String LEFT_OUT = "left out";

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

    @GetMapping
    String page(@PathVariable("id") long id, Model model) {
        pages.fill(id, "watch", model);
        return "watch/import";
    }

    @PostMapping
    String look(
            @PathVariable("id") long id,
            @RequestParam("file") MultipartFile file,
            RedirectAttributes flash)
            throws IOException {
        JobPages.Context context = pages.context(id);
        String name =
                Optional.ofNullable(file.getOriginalFilename())
                        .map(n -> n.replaceAll(".*[/\\\\]", ""))
                        .filter(n -> !n.isBlank())
                        .orElse("log");
        if (file.isEmpty()) {
            flash.addFlashAttribute("error", "Choose a file first; " + name + " is empty.");
            return back(id);
        }
        try {
            byte[] beginning;
            try (InputStream in = file.getInputStream()) {
                beginning = in.readNBytes(CsvLook.ENOUGH_BYTES);
            }
            String first =
                    new String(
                            beginning, 0, Math.min(8, beginning.length), StandardCharsets.US_ASCII);
            if (first.startsWith("MDF ") || first.startsWith("UnFinMF")) {
                return mdf(context, name, file, flash);
            }
            CsvLook.at(beginning);
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", name + ": " + wrong.getMessage() + ".");
            return back(id);
        }
        Files.createDirectories(waiting);
        forgetOld();
        String token = UUID.randomUUID().toString();
        Path kept = waiting.resolve(token);
        file.transferTo(kept);
        Files.writeString(waiting.resolve(token + ".name"), name);
        try {
            widen(kept);
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", name + ": " + wrong.getMessage() + ".");
            return back(id);
        }
        return "redirect:/jobs/" + id + "/watch/import/" + token;
    }

    /** A log with a line for each name and value becomes one with a column for each name. */
    private static void widen(Path file) throws IOException {
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

    /** What was looked at and never taken waits for a day. */
    private void forgetOld() throws IOException {
        Instant oldest = Instant.now().minus(Duration.ofDays(1));
        try (Stream<Path> files = Files.list(waiting)) {
            for (Path file : files.toList()) {
                if (Files.getLastModifiedTime(file).toInstant().isBefore(oldest)) {
                    Files.deleteIfExists(file);
                }
            }
        }
    }

    private static String back(long id) {
        return "redirect:/jobs/" + id + "/watch/import";
    }

    private String mdf(
            JobPages.Context context, String name, MultipartFile file, RedirectAttributes flash)
            throws IOException {
        Files.createDirectories(waiting);
        Path kept = Files.createTempFile(waiting, "mdf", "");
        try {
            file.transferTo(kept);
            MdfReader.Read read = MdfReader.read(kept).in(context.description().signals());
            if (read.take().columns().isEmpty()) {
                throw new IllegalArgumentException(
                        "no channel of it can be read. " + String.join(" ", read.remarks()));
            }
            long take =
                    takes.keep(
                            context.job().id(),
                            name,
                            read.start(),
                            name,
                            read.take(),
                            read.values());
            told(flash, read.remarks());
            return "redirect:/jobs/" + context.job().id() + "/watch/takes/" + take;
        } finally {
            Files.deleteIfExists(kept);
        }
    }

    private static void told(RedirectAttributes flash, List<String> remarks) {
        flash.addFlashAttribute(
                "notice",
                remarks.isEmpty() ? "Everything was read." : "Read. " + String.join(" ", remarks));
    }

    private Path kept(String token) {
        Path file = waiting.resolve(token);
        if (!token.matches("[0-9a-f-]{36}") || !Files.exists(file)) {
            throw new IllegalArgumentException(
                    "This file is no longer waiting here; choose it once more");
        }
        return file;
    }

    private static CsvLook lookAt(Path file, CsvLook.Corrections said) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return CsvLook.at(in.readNBytes(CsvLook.ENOUGH_BYTES), said);
        }
    }

    @GetMapping("/{token}")
    String columns(
            @PathVariable("id") long id,
            @PathVariable("token") String token,
            @RequestParam Map<String, String> form,
            Model model,
            RedirectAttributes flash)
            throws IOException {
        JobPages.Context context = pages.fill(id, "watch", model);
        try {
            model.addAttribute("look", look(context, token, form));
        } catch (IllegalArgumentException gone) {
            flash.addFlashAttribute("error", gone.getMessage() + ".");
            return back(id);
        }
        return "watch/import";
    }

    /**
     * @param form what was chosen so far; a first look has nothing in it
     */
    private LookPage look(JobPages.Context context, String token, Map<String, String> form)
            throws IOException {
        Path file = kept(token);
        CsvLook look = lookAt(file, Said.of(form).corrections());
        VehicleDescription d = context.description();
        Dialect dialect = look.dialect();
        Map<String, ColumnMappings.Said> known = mappings.of(d.id());
        List<Row> rows =
                dialect.columns().stream()
                        .map(c -> row(d, look, c, Optional.ofNullable(known.get(c.name())), form))
                        .toList();
        Optional<Dialect.Column> time =
                dialect.columns().stream().filter(c -> c.role() == Dialect.Role.TIME).findFirst();
        boolean several =
                dialect.columns().stream().filter(c -> c.role() == Dialect.Role.TIME).count() > 1;
        List<Choice> times = new ArrayList<>();
        if (several) {
            times.add(new Choice("", "several, each for the columns after it", true));
        }
        times.add(new Choice("-1", "none: a line a second", time.isEmpty()));
        dialect.columns().stream()
                .filter(c -> c.role() != Dialect.Role.MARK)
                .limit(MOST_TIME_CHOICES)
                .forEach(
                        c ->
                                times.add(
                                        new Choice(
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
        return new LookPage(
                token,
                Files.readString(waiting.resolve(token + ".name")),
                remarks,
                List.of(
                        new Choice(",", "comma", dialect.separator() == ','),
                        new Choice(";", "semicolon", dialect.separator() == ';'),
                        new Choice("tab", "tab", dialect.separator() == '\t'),
                        new Choice("|", "bar |", dialect.separator() == '|')),
                List.of(
                        new Choice("point", "point, 1.5", !dialect.decimalComma()),
                        new Choice("comma", "comma, 1,5", dialect.decimalComma())),
                times,
                Arrays.stream(Dialect.Clock.values())
                        .map(
                                k ->
                                        new Choice(
                                                k.name(),
                                                k.words(),
                                                time.flatMap(Dialect.Column::clock)
                                                        .equals(Optional.of(k))))
                        .toList(),
                Arrays.stream(Dialect.DateOrder.values())
                        .map(o -> new Choice(o.name(), o.words(), dialect.dates() == o))
                        .toList(),
                rows,
                d.values().stream().map(Value::name).distinct().sorted().toList(),
                units());
    }

    private static Row row(
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

    private static Optional<Value> valueOf(VehicleDescription d, String typed) {
        return d.values().stream()
                .filter(v -> v.name().equalsIgnoreCase(typed.trim()) || v.id().equals(typed.trim()))
                .findFirst();
    }

    private static List<String> units() {
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

    @PostMapping("/{token}")
    String read(
            @PathVariable("id") long id,
            @PathVariable("token") String token,
            @RequestParam Map<String, String> form,
            Model model,
            RedirectAttributes flash)
            throws IOException {
        JobPages.Context context = pages.context(id);
        try {
            Path file = kept(token);
            Dialect dialect = lookAt(file, Said.of(form).corrections()).dialect();
            Map<Integer, CsvImport.Mapped> mapped;
            try {
                mapped = mapped(context.description(), dialect, form);
            } catch (IllegalArgumentException unclear) {
                // nothing that was chosen is lost: the page comes back as it was
                pages.fill(id, "watch", model);
                model.addAttribute("look", look(context, token, form));
                model.addAttribute("error", unclear.getMessage());
                return "watch/import";
            }
            String name = Files.readString(waiting.resolve(token + ".name"));
            CsvImport.Imported in;
            try (InputStream bytes = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
                in = CsvImport.read(bytes, dialect, mapped, Format.zone());
            }
            if (in.take().columns().isEmpty()) {
                flash.addFlashAttribute(
                        "error",
                        name + ": nothing could be read. " + String.join(" ", in.remarks()));
                return back(id) + "/" + token;
            }
            long take =
                    takes.keep(
                            id,
                            name,
                            in.start().orElseGet(Instant::now),
                            name,
                            in.take(),
                            in.values());
            for (String part : List.of("", ".name", ".told")) {
                Files.deleteIfExists(waiting.resolve(token + part));
            }
            told(flash, in.remarks());
            return "redirect:/jobs/" + id + "/watch/takes/" + take;
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage() + ".");
            return back(id);
        }
    }

    /**
     * What was said of each column; it is remembered for the next log.
     *
     * @throws IllegalArgumentException names the column, what was typed and what was expected
     */
    private Map<Integer, CsvImport.Mapped> mapped(
            VehicleDescription d, Dialect dialect, Map<String, String> form) {
        Map<Integer, CsvImport.Mapped> own = CsvImport.own(dialect);
        Map<Integer, CsvImport.Mapped> mapped = new LinkedHashMap<>();
        Map<String, ColumnMappings.Said> said = new LinkedHashMap<>();
        for (Dialect.Column c : dialect.columns()) {
            if (!own.containsKey(c.index())) {
                continue;
            }
            String to = form.getOrDefault("to-" + c.index(), OWN).trim();
            String unit = form.getOrDefault("unit-" + c.index(), c.unit()).trim();
            if (to.equals(LEFT_OUT)) {
                said.put(c.name(), new ColumnMappings.Said("none", unit));
                continue;
            }
            Optional<Value> value = valueOf(d, to);
            if (value.isEmpty() && !to.isEmpty() && !to.equals(OWN)) {
                throw new IllegalArgumentException(
                        "Column '%s': '%s' is no value of this vehicle. Choose one, or type '%s' or '%s'."
                                .formatted(c.name(), to, OWN, LEFT_OUT));
            }
            String known = value.map(v -> inUnitOf(c.name(), unit, v)).orElse(unit);
            said.put(c.name(), new ColumnMappings.Said(value.map(Value::id).orElse("own"), known));
            mapped.put(
                    c.index(),
                    value.map(v -> new CsvImport.Mapped(v, known))
                            .orElseGet(() -> inUnit(own.get(c.index()), known)));
        }
        if (mapped.isEmpty()) {
            throw new IllegalArgumentException("Every column is left out; choose at least one.");
        }
        said.forEach((column, its) -> mappings.keep(d.id(), column, its));
        return mapped;
    }

    /** A unit by the name that it has here; one that nobody knows is asked for. */
    private static String inUnitOf(String column, String unit, Value value) {
        if (unit.isEmpty() || value.unit().isEmpty() || unit.equals(value.unit())) {
            return unit;
        }
        Optional<String> known = Units.spelledAs(unit);
        boolean fits =
                known.flatMap(Units::quantity).equals(Units.quantity(value.unit()))
                        && known.isPresent();
        if (!fits) {
            throw new IllegalArgumentException(
                    "Column '%s': the unit '%s' cannot be turned into %s of '%s'. Which unit is it? One of %s."
                            .formatted(
                                    column,
                                    unit,
                                    value.unit(),
                                    value.name(),
                                    Units.quantity(value.unit())
                                            .map(q -> String.join(", ", Units.of(q)))
                                            .orElse(value.unit())));
        }
        return known.get();
    }

    private static CsvImport.Mapped inUnit(CsvImport.Mapped own, String unit) {
        Value v = own.value();
        return new CsvImport.Mapped(
                new Value(
                        v.id(),
                        v.module(),
                        v.did(),
                        v.bytes(),
                        v.signed(),
                        v.scale(),
                        v.offset(),
                        v.name(),
                        unit,
                        unit,
                        v.digits(),
                        v.states(),
                        v.words(),
                        v.ranges()),
                unit);
    }
}
