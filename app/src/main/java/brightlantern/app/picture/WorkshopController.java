package brightlantern.app.picture;

import brightlantern.app.job.Workshop;
import brightlantern.app.job.Workshops;
import brightlantern.app.page.JobPages;
import brightlantern.core.attachment.Content;
import brightlantern.core.attachment.FileKind;
import java.io.IOException;
import java.util.Arrays;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What the workshop says of itself on reports; for its lead. */
@Controller
@RequestMapping("/workshop")
class WorkshopController {
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_ADDRESS = 600;
    private static final int LONGEST_CURRENCY = 10;
    private static final double MOST_RATE = 10_000;
    private static final double MOST_TAX = 100;
    private static final int MOST_MONTHS = 600;

    private final Workshops workshops;
    private final Pictures pictures;

    WorkshopController(Workshops workshops, Pictures pictures) {
        this.workshops = workshops;
        this.pictures = pictures;
    }

    @GetMapping
    String page(Model model) {
        if (!model.containsAttribute("workshop")) {
            model.addAttribute("workshop", workshops.get());
        }
        model.addAttribute("hasLogo", workshops.logo().isPresent());
        return "picture/workshop";
    }

    @PostMapping
    String keep(
            @RequestParam("name") String name,
            @RequestParam("address") String address,
            @RequestParam("rate") double rate,
            @RequestParam("tax") double tax,
            @RequestParam("currency") String currency,
            @RequestParam(name = "comma", defaultValue = "false") boolean comma,
            @RequestParam(name = "months", defaultValue = "0") int months,
            RedirectAttributes flash) {
        String wrong = wrong(name, address, rate, tax, currency, months);
        Workshop told =
                new Workshop(
                        name.trim(), address.strip(), rate, tax, currency.trim(), comma, months);
        if (wrong.isEmpty()) {
            workshops.keep(told);
            flash.addFlashAttribute("notice", "Kept; it stands on reports from now on.");
        } else {
            flash.addFlashAttribute("error", wrong + " Nothing was changed.");
            flash.addFlashAttribute("workshop", told);
        }
        return "redirect:/workshop";
    }

    private static String wrong(
            String name, String address, double rate, double tax, String currency, int months) {
        if (name.length() > LONGEST_NAME || address.length() > LONGEST_ADDRESS) {
            return "Name and address are too long: at most %d and %d characters."
                    .formatted(LONGEST_NAME, LONGEST_ADDRESS);
        }
        if (!(rate >= 0 && rate <= MOST_RATE)) {
            return "The rate of an hour should be 0 to 10,000.";
        }
        if (!(tax >= 0 && tax <= MOST_TAX)) {
            return "The tax should be 0 to 100 %.";
        }
        if (months < 0 || months > MOST_MONTHS) {
            return "The months should be 0 to 600.";
        }
        return currency.isBlank() || currency.length() > LONGEST_CURRENCY
                ? "The currency should be a sign or a few letters, such as EUR."
                : "";
    }

    @PostMapping("/logo")
    String logo(@RequestParam("file") MultipartFile file, RedirectAttributes flash)
            throws IOException {
        byte[] bytes = file.getBytes();
        try {
            Content content =
                    Content.of(
                            "logo",
                            Arrays.copyOf(bytes, Math.min(bytes.length, Content.ENOUGH_BYTES)));
            if (content.kind() != FileKind.PICTURE) {
                throw new IllegalArgumentException("a logo should be a picture (JPEG, PNG, GIF)");
            }
            workshops.keepLogo(pictures.scaled(content, bytes, false).small());
            flash.addFlashAttribute("notice", "The logo stands on reports from now on.");
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute(
                    "error", file.getOriginalFilename() + ": " + wrong.getMessage() + ".");
        }
        return "redirect:/workshop";
    }

    @GetMapping("/logo")
    ResponseEntity<byte[]> logo() {
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_JPEG)
                .cacheControl(CacheControl.noCache())
                .body(JobPages.found(workshops.logo(), "logo", "of the workshop"));
    }
}
