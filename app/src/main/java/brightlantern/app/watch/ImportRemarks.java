package brightlantern.app.watch;

import java.util.List;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What an import has to say of a log, told on the next page. */
final class ImportRemarks {

    private ImportRemarks() {}

    static void told(RedirectAttributes flash, List<String> remarks) {
        flash.addFlashAttribute(
                "notice",
                remarks.isEmpty() ? "Everything was read." : "Read. " + String.join(" ", remarks));
    }
}
