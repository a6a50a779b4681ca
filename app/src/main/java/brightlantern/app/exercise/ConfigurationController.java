package brightlantern.app.exercise;

import brightlantern.app.page.JobPages;
import brightlantern.core.configuration.Configuration;
import brightlantern.core.configuration.Item;
import brightlantern.wire.WireException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What a module was told: read, changed after a look at before and after, and taken back. */
@Controller
@RequestMapping("/jobs/{id}/exercise/configurations/{configuration}")
class ConfigurationController {
    private final JobPages pages;
    private final Writes writes;
    private final ConfigurationDesk configurationDesk;

    ConfigurationController(JobPages pages, Writes writes, ConfigurationDesk configurationDesk) {
        this.pages = pages;
        this.writes = writes;
        this.configurationDesk = configurationDesk;
    }

    /** An item as the page shows it; raw is what its field holds. */
    record Row(Item item, String hex, String told, String typed, List<Word> words) {}

    record Word(String word, boolean set) {}

    /** A change to be agreed to. */
    record Change(Item item, String before, String after, String beforeTold, String afterTold) {
        static Change of(Item item, String before, String after) {
            return new Change(item, before, after, item.told(before), item.told(after));
        }
    }

    record Past(long id, Instant at, String who, String name, String how, boolean confirmed) {}

    @GetMapping("/gates")
    String gatesNow(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute("job", context.job());
        configurationDesk.gates(context, model);
        return "exercise/ready :: gates";
    }

    @GetMapping
    String page(@PathVariable("id") long id, @PathVariable("configuration") String c, Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        Configuration its = configurationDesk.configuration(context, c);
        model.addAttribute("configuration", its);
        Map<String, String> now = Map.of();
        try {
            now = Writes.read(context, its);
        } catch (WireException silent) {
            model.addAttribute("trouble", context.description().named(silent.getMessage()));
        }
        Map<String, String> held = now;
        @SuppressWarnings("unchecked")
        Map<String, String> typed =
                (Map<String, String>)
                        Optional.ofNullable(model.getAttribute("typed")).orElse(Map.of());
        model.addAttribute(
                "rows",
                its.items().stream()
                        .filter(i -> held.containsKey(i.id()))
                        .map(i -> row(i, held.get(i.id()), typed.get(i.id())))
                        .toList());
        configurationDesk.gates(context, model);
        model.addAttribute("past", past(id, its));
        return "exercise/configuration";
    }

    private static Row row(Item item, String hex, String typed) {
        String told = item.told(hex);
        String field = typed != null ? typed : item.blank(hex) ? "" : fieldOf(item, told);
        List<String> set = Arrays.asList(field.split(", "));
        return new Row(
                item,
                hex,
                told,
                field,
                item.words().values().stream().map(w -> new Word(w, set.contains(w))).toList());
    }

    private static String fieldOf(Item item, String told) {
        return item.kind() == Item.Kind.NUMBER ? told.split(" ")[0] : told;
    }

    List<Past> past(long job, Configuration c) {
        return writes.of(job, c.id()).stream()
                .flatMap(
                        w ->
                                c.item(w.item()).stream()
                                        .map(
                                                i ->
                                                        new Past(
                                                                w.id(),
                                                                w.at(),
                                                                w.who(),
                                                                i.name(),
                                                                i.told(w.after())
                                                                        + " instead of "
                                                                        + i.told(w.before()),
                                                                w.confirmed())))
                .toList();
    }

    /** Shows before and after of what was typed; nothing is written yet. */
    @PostMapping("/compare")
    String compare(
            @PathVariable("id") long id,
            @PathVariable("configuration") String c,
            @RequestParam MultiValueMap<String, String> form,
            RedirectAttributes flash,
            Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        Configuration its = configurationDesk.configuration(context, c);
        Map<String, String> typed = new LinkedHashMap<>();
        List<String> wrong = new ArrayList<>();
        List<Change> changes = new ArrayList<>();
        try {
            Map<String, String> now = Writes.read(context, its);
            for (Item item : its.items()) {
                String field = String.join(", ", form.getOrDefault("i." + item.id(), List.of()));
                typed.put(item.id(), field);
                if (field.isBlank() && item.kind() != Item.Kind.OPTIONS) {
                    // an empty field leaves what is there
                    continue;
                }
                try {
                    String after = item.coded(field);
                    if (!after.equals(now.get(item.id()))) {
                        changes.add(Change.of(item, now.get(item.id()), after));
                    }
                } catch (IllegalArgumentException bad) {
                    wrong.add(bad.getMessage());
                }
            }
        } catch (WireException silent) {
            wrong.add(context.description().named(silent.getMessage()));
        }
        if (!wrong.isEmpty() || changes.isEmpty()) {
            flash.addFlashAttribute(
                    "error",
                    wrong.isEmpty()
                            ? "Nothing differs from what the module holds."
                            : String.join(" ", wrong));
            flash.addFlashAttribute("typed", typed);
            return back(id, c);
        }
        return configurationDesk.agree(context, its, changes, model);
    }

    static String back(long id, String configuration) {
        return "redirect:/jobs/" + id + "/exercise/configurations/" + configuration;
    }
}
