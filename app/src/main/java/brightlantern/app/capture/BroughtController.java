package brightlantern.app.capture;

import brightlantern.app.page.JobPages;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureOfTake;
import brightlantern.core.capture.SoundReader;
import brightlantern.core.capture.comtrade.ComtradeReader;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import brightlantern.core.take.mdf.MdfReader;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.Principal;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Captures that were recorded elsewhere. */
@Controller
class BroughtController {
    private final JobPages pages;
    private final Captures captures;

    BroughtController(JobPages pages, Captures captures) {
        this.pages = pages;
        this.captures = captures;
    }

    @PostMapping("/jobs/{id}/probe/captures/bring")
    String bring(
            @PathVariable("id") long id,
            @RequestParam("file") List<MultipartFile> files,
            Principal who,
            RedirectAttributes flash)
            throws IOException {
        pages.context(id);
        String name = name(files.get(0));
        Path kept = Files.createTempFile("capture", "");
        try {
            Brought read = files.size() == 1 ? read(files.get(0), kept) : pair(files);
            long captureId = captures.keep(id, name, who.getName(), read.capture());
            flash.addFlashAttribute(
                    "notice",
                    "Say under 'What each lane shows' what was connected where, and it is read anew. "
                            + String.join(" ", read.remarks()));
            return "redirect:/jobs/" + id + "/probe/captures/" + captureId;
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", name + ": " + wrong.getMessage() + ".");
            return "redirect:/jobs/" + id + "/probe/captures";
        } finally {
            Files.deleteIfExists(kept);
        }
    }

    private static String name(MultipartFile file) {
        return Optional.ofNullable(file.getOriginalFilename())
                .map(n -> n.replaceAll(".*[/\\\\]", ""))
                .filter(n -> !n.isBlank())
                .orElse("file");
    }

    /**
     * Two files of one record of IEEE C37.111.
     *
     * @throws IllegalArgumentException says what was expected
     */
    private static Brought pair(List<MultipartFile> files) throws IOException {
        Map<String, byte[]> byEnding = new HashMap<>();
        for (MultipartFile f : files) {
            byEnding.put(name(f).replaceAll(".*\\.", "").toLowerCase(Locale.ROOT), f.getBytes());
        }
        if (!byEnding.keySet().equals(Set.of("cfg", "dat"))) {
            throw new IllegalArgumentException(
                    "several files are one capture only as .cfg with its .dat; found "
                            + String.join(", ", files.stream().map(f -> name(f)).toList()));
        }
        String configuration = new String(byEnding.get("cfg"), StandardCharsets.UTF_8);
        return new Brought(ComtradeReader.read(configuration, byEnding.get("dat")), List.of());
    }

    /**
     * @param remarks what was left out or assumed, in words
     */
    private record Brought(Capture capture, List<String> remarks) {}

    /**
     * @throws IllegalArgumentException says what was expected
     */
    private static Brought read(MultipartFile brought, Path file) throws IOException {
        brought.transferTo(file);
        byte[] beginning;
        try (InputStream in = Files.newInputStream(file)) {
            beginning = in.readNBytes(CsvLook.ENOUGH_BYTES);
        }
        String first =
                new String(beginning, 0, Math.min(8, beginning.length), StandardCharsets.US_ASCII);
        if (first.startsWith("RIFF") || first.startsWith("FORM") || first.startsWith(".snd")) {
            return new Brought(SoundReader.read(file), List.of());
        }
        if (ComtradeReader.isWhole(beginning)) {
            return new Brought(ComtradeReader.read(Files.readAllBytes(file)), List.of());
        }
        if (first.startsWith("MDF ") || first.startsWith("UnFinMF")) {
            MdfReader.Read read = MdfReader.read(file);
            return new Brought(of(read.take(), read.values()), read.remarks());
        }
        Dialect dialect = CsvLook.at(beginning).dialect();
        try (InputStream in = new BufferedInputStream(Files.newInputStream(file))) {
            CsvImport.Imported read = CsvImport.read(in, dialect, CsvImport.own(dialect));
            return new Brought(of(read.take(), read.values()), read.remarks());
        }
    }

    private static Capture of(Take take, List<Value> values) {
        if (take.columns().isEmpty() || take.columns().size() > Capture.MOST_LANES) {
            throw new IllegalArgumentException(
                    "it has "
                            + take.columns().size()
                            + " columns of numbers; expected 1 to "
                            + Capture.MOST_LANES);
        }
        Map<String, Value> byId =
                values.stream()
                        .collect(Collectors.toMap(Value::id, Function.identity(), (a, b) -> a));
        return CaptureOfTake.of(take, byId::get);
    }
}
