package brightlantern.app.exercise;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.link.OutputSession;
import brightlantern.app.page.JobPages;
import brightlantern.core.configuration.Configuration;
import brightlantern.core.configuration.Item;
import brightlantern.core.procedure.GateState;
import brightlantern.core.signal.Words;
import brightlantern.wire.WireException;
import java.security.Principal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Writes what was agreed to, and takes a write back. */
@Controller
@RequestMapping("/jobs/{id}/exercise/configurations/{configuration}")
class ConfigurationWriteController {
    private final JobPages pages;
    private final Writes writes;
    private final CommandLog log;
    private final Findings findings;
    private final ConfigurationDesk configurationDesk;

    ConfigurationWriteController(
            JobPages pages,
            Writes writes,
            CommandLog log,
            Findings findings,
            ConfigurationDesk configurationDesk) {
        this.pages = pages;
        this.writes = writes;
        this.log = log;
        this.findings = findings;
        this.configurationDesk = configurationDesk;
    }

    /** Shows before and after of taking a write back. */
    @PostMapping("/undo")
    String undo(
            @PathVariable("id") long id,
            @PathVariable("configuration") String c,
            @RequestParam("write") long write,
            RedirectAttributes flash,
            Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        Configuration its = configurationDesk.configuration(context, c);
        Optional<Writes.Written> past =
                writes.of(id, c).stream().filter(w -> w.id() == write).findFirst();
        if (past.isEmpty()) {
            flash.addFlashAttribute("error", "There is no write " + write + " in this job.");
            return ConfigurationController.back(id, c);
        }
        try {
            Item item = its.item(past.get().item()).orElseThrow();
            String now = Writes.read(context, its).get(item.id());
            if (now.equals(past.get().before())) {
                flash.addFlashAttribute(
                        "error", item.name() + " already holds what it held before.");
                return ConfigurationController.back(id, c);
            }
            return configurationDesk.agree(
                    context,
                    its,
                    List.of(ConfigurationController.Change.of(item, now, past.get().before())),
                    model);
        } catch (WireException silent) {
            flash.addFlashAttribute("error", context.description().named(silent.getMessage()));
            return ConfigurationController.back(id, c);
        }
    }

    /**
     * Writes what was agreed to, when the module still holds what was shown as before.
     *
     * @param form item → after, and {@code before.item} → before, in hexadecimal digits
     */
    @PostMapping("/write")
    String write(
            @PathVariable("id") long id,
            @PathVariable("configuration") String c,
            @RequestParam Map<String, String> form,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        Configuration its = configurationDesk.configuration(context, c);
        try {
            GateState.whyShut(configurationDesk.gates(context))
                    .ifPresent(
                            shut -> {
                                throw new IllegalStateException(shut + " Nothing was written.");
                            });
            Map<String, String> now = Writes.read(context, its);
            Map<String, String> wanted = new LinkedHashMap<>();
            for (Item item : its.items()) {
                String after = form.get("after." + item.id());
                if (after == null) {
                    continue;
                }
                if (!item.fits(after)) {
                    throw new IllegalStateException(
                            "%s: expected %s in hexadecimal digits, found '%s'; nothing was written."
                                    .formatted(
                                            item.name(), Words.count(item.bytes(), "byte"), after));
                }
                if (!now.get(item.id()).equals(form.get("before." + item.id()))) {
                    throw new IllegalStateException(
                            item.name()
                                    + " was changed meanwhile; nothing was written. Compare again.");
                }
                wanted.put(item.id(), after);
            }
            try (OutputSession session =
                    new OutputSession(
                            context.link(),
                            log,
                            context.job(),
                            who.getName(),
                            its.name(),
                            context.description().module(its.module()).orElseThrow().address())) {
                writes.write(context, session, its, wanted, who.getName());
            }
            findings.note(
                    id,
                    "exercise",
                    who.getName(),
                    its.name()
                            + " written and read back: "
                            + Words.count(wanted.size(), "item")
                            + ".");
            flash.addFlashAttribute("notice", "Written, read back, and the same.");
        } catch (IllegalStateException refused) {
            flash.addFlashAttribute("error", refused.getMessage());
        } catch (WireException refused) {
            flash.addFlashAttribute(
                    "error",
                    context.description().named(refused.getMessage())
                            + ". What was held before is kept below.");
        }
        return ConfigurationController.back(id, c);
    }
}
