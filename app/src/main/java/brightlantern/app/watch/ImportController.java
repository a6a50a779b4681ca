package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.page.Format;
import brightlantern.app.page.JobPages;
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
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
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
    private final ImportDesk importDesk;

    ImportController(JobPages pages, Takes takes, ImportDesk importDesk) {
        this.pages = pages;
        this.takes = takes;
        this.importDesk = importDesk;
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
        Path waiting = importDesk.folder();
        importDesk.forgetOld();
        String token = UUID.randomUUID().toString();
        Path kept = waiting.resolve(token);
        file.transferTo(kept);
        Files.writeString(waiting.resolve(token + ".name"), name);
        try {
            ImportRows.widen(kept);
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", name + ": " + wrong.getMessage() + ".");
            return back(id);
        }
        return "redirect:/jobs/" + id + "/watch/import/" + token;
    }

    private static String back(long id) {
        return "redirect:/jobs/" + id + "/watch/import";
    }

    private String mdf(
            JobPages.Context context, String name, MultipartFile file, RedirectAttributes flash)
            throws IOException {
        Path kept = Files.createTempFile(importDesk.folder(), "mdf", "");
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
            ImportRemarks.told(flash, read.remarks());
            return "redirect:/jobs/" + context.job().id() + "/watch/takes/" + take;
        } finally {
            Files.deleteIfExists(kept);
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
            model.addAttribute("look", importDesk.lookPage(context, token, form));
        } catch (IllegalArgumentException gone) {
            flash.addFlashAttribute("error", gone.getMessage() + ".");
            return back(id);
        }
        return "watch/import";
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
            Path file = importDesk.kept(token);
            Dialect dialect =
                    ImportRows.lookAt(file, ImportDesk.Said.of(form).corrections()).dialect();
            Map<Integer, CsvImport.Mapped> mapped;
            try {
                mapped = importDesk.mapped(context.description(), dialect, form);
            } catch (IllegalArgumentException unclear) {
                // nothing that was chosen is lost: the page comes back as it was
                pages.fill(id, "watch", model);
                model.addAttribute("look", importDesk.lookPage(context, token, form));
                model.addAttribute("error", unclear.getMessage());
                return "watch/import";
            }
            String name = Files.readString(importDesk.folder().resolve(token + ".name"));
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
                Files.deleteIfExists(importDesk.folder().resolve(token + part));
            }
            ImportRemarks.told(flash, in.remarks());
            return "redirect:/jobs/" + id + "/watch/takes/" + take;
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage() + ".");
            return back(id);
        }
    }
}
