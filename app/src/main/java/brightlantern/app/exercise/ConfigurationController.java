package brightlantern.app.exercise;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.link.OutputSession;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.JobPages;
import brightlantern.core.configuration.Configuration;
import brightlantern.core.configuration.Item;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.GateState;
import brightlantern.core.signal.Words;
import brightlantern.wire.WireException;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** What a module was told: read, changed after a look at before and after, and taken back. */
@Controller
@RequestMapping("/jobs/{id}/exercise/configurations/{configuration}")
class ConfigurationController {
    private final JobPages pages;
    private final VehicleLinks links;
    private final Writes writes;
    private final CommandLog log;
    private final Findings findings;

    ConfigurationController(
            JobPages pages, VehicleLinks links, Writes writes, CommandLog log, Findings findings) {
        this.pages = pages;
        this.links = links;
        this.writes = writes;
        this.log = log;
        this.findings = findings;
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

    private Configuration configuration(JobPages.Context context, String id) {
        return links.equipment(context.job())
                .flatMap(
                        e -> e.configurations().stream().filter(c -> c.id().equals(id)).findFirst())
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "This vehicle has no configuration '" + id + "'."));
    }

    private List<GateState> gates(JobPages.Context context) {
        List<brightlantern.core.procedure.Procedure.GateRule> rules =
                links.equipment(context.job()).map(Equipment::writing).orElse(List.of());
        List<String> ids =
                rules.stream().flatMap(r -> r.filter().values().stream()).distinct().toList();
        return GateState.at(
                rules, context.description(), context.link().read(context.description(), ids));
    }

    private void gates(JobPages.Context context, Model model) {
        List<GateState> gates = gates(context);
        model.addAttribute("gates", gates);
        model.addAttribute("opens", "write");
        model.addAttribute("open", gates.stream().allMatch(GateState::open));
    }

    @GetMapping("/gates")
    String gatesNow(@PathVariable("id") long id, Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute("job", context.job());
        gates(context, model);
        return "exercise/ready :: gates";
    }

    @GetMapping
    String page(@PathVariable("id") long id, @PathVariable("configuration") String c, Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        Configuration its = configuration(context, c);
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
        gates(context, model);
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

    private List<Past> past(long job, Configuration c) {
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
        Configuration its = configuration(context, c);
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
        return agree(context, its, changes, model);
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
        Configuration its = configuration(context, c);
        Optional<Writes.Written> past =
                writes.of(id, c).stream().filter(w -> w.id() == write).findFirst();
        if (past.isEmpty()) {
            flash.addFlashAttribute("error", "There is no write " + write + " in this job.");
            return back(id, c);
        }
        try {
            Item item = its.item(past.get().item()).orElseThrow();
            String now = Writes.read(context, its).get(item.id());
            if (now.equals(past.get().before())) {
                flash.addFlashAttribute(
                        "error", item.name() + " already holds what it held before.");
                return back(id, c);
            }
            return agree(context, its, List.of(Change.of(item, now, past.get().before())), model);
        } catch (WireException silent) {
            flash.addFlashAttribute("error", context.description().named(silent.getMessage()));
            return back(id, c);
        }
    }

    private String agree(
            JobPages.Context context, Configuration its, List<Change> changes, Model model) {
        model.addAttribute("configuration", its);
        model.addAttribute("changes", changes);
        gates(context, model);
        return "exercise/agree";
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
        Configuration its = configuration(context, c);
        try {
            GateState.whyShut(gates(context))
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
        return back(id, c);
    }

    private static String back(long id, String configuration) {
        return "redirect:/jobs/" + id + "/exercise/configurations/" + configuration;
    }
}
