package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Units;
import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.core.take.mdf.MdfReader;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleDescription.Value;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
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

    /** A column as the page shows it, with what it is to become. */
    record Row(Dialect.Column column, List<String> examples, String value, String unit) {}

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
            if (new String(beginning, 0, Math.min(4, beginning.length)).equals("MDF ")) {
                return mdf(context, name, file.getBytes(), flash);
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
        return "redirect:/jobs/" + id + "/watch/import/" + token;
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
            JobPages.Context context, String name, byte[] bytes, RedirectAttributes flash) {
        MdfReader.Read read = MdfReader.read(bytes);
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
                        read.values().stream()
                                .filter(v -> context.description().value(v.id()).isEmpty())
                                .toList());
        told(flash, read.remarks());
        return "redirect:/jobs/" + context.job().id() + "/watch/takes/" + take;
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

    private static CsvLook lookAt(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return CsvLook.at(in.readNBytes(CsvLook.ENOUGH_BYTES));
        }
    }

    @GetMapping("/{token}")
    String columns(
            @PathVariable("id") long id,
            @PathVariable("token") String token,
            Model model,
            RedirectAttributes flash)
            throws IOException {
        JobPages.Context context = pages.fill(id, "watch", model);
        CsvLook look;
        try {
            look = lookAt(kept(token));
        } catch (IllegalArgumentException gone) {
            flash.addFlashAttribute("error", gone.getMessage() + ".");
            return back(id);
        }
        VehicleDescription d = context.description();
        Map<String, ColumnMappings.Said> known = mappings.of(d.id());
        List<Row> rows = new ArrayList<>();
        for (Dialect.Column c : look.dialect().columns()) {
            ColumnMappings.Said said = known.get(c.name());
            rows.add(
                    new Row(
                            c,
                            look.rows().stream().limit(3).map(r -> r.get(c.index())).toList(),
                            said != null ? said.value() : guess(d, c.name()),
                            said != null ? said.unit() : c.unit()));
        }
        model.addAttribute("look", look);
        model.addAttribute("rows", rows);
        model.addAttribute("token", token);
        model.addAttribute("name", Files.readString(waiting.resolve(token + ".name")));
        model.addAttribute("values", d.values().stream().map(v -> Shown.of(d, v)).toList());
        model.addAttribute("units", units());
        return "watch/import";
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
            RedirectAttributes flash)
            throws IOException {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        try {
            Path file = kept(token);
            Dialect dialect = lookAt(file).dialect();
            Map<Integer, CsvImport.Mapped> mapped = mapped(d, dialect, form);
            if (mapped.isEmpty()) {
                flash.addFlashAttribute("error", "Every column is left out; choose at least one.");
                return back(id) + "/" + token;
            }
            String name = Files.readString(waiting.resolve(token + ".name"));
            CsvImport.Imported in;
            try (InputStream bytes = new BufferedInputStream(Files.newInputStream(file), 1 << 16)) {
                in = CsvImport.read(bytes, dialect, mapped);
            }
            if (in.take().columns().isEmpty()) {
                flash.addFlashAttribute(
                        "error",
                        name + ": nothing could be read. " + String.join(" ", in.remarks()));
                return back(id) + "/" + token;
            }
            long take = takes.keep(id, name, Instant.now(), name, in.take(), in.values());
            Files.deleteIfExists(file);
            Files.deleteIfExists(waiting.resolve(token + ".name"));
            told(flash, in.remarks());
            return "redirect:/jobs/" + id + "/watch/takes/" + take;
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage() + ".");
            return back(id);
        }
    }

    /** What was said of each column; it is remembered for the next log. */
    private Map<Integer, CsvImport.Mapped> mapped(
            VehicleDescription d, Dialect dialect, Map<String, String> form) {
        Map<Integer, CsvImport.Mapped> own = CsvImport.own(dialect);
        Map<Integer, CsvImport.Mapped> mapped = new LinkedHashMap<>();
        for (Dialect.Column c : dialect.columns()) {
            if (!own.containsKey(c.index())) {
                continue;
            }
            String to = form.getOrDefault("to-" + c.index(), "own");
            String unit = form.getOrDefault("unit-" + c.index(), c.unit()).trim();
            mappings.keep(d.id(), c.name(), new ColumnMappings.Said(to, unit));
            if (to.equals("none")) {
                continue;
            }
            Optional<Value> value = d.value(to);
            mapped.put(
                    c.index(),
                    value.map(v -> new CsvImport.Mapped(v, unit))
                            .orElseGet(() -> inUnit(own.get(c.index()), unit)));
        }
        return mapped;
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
