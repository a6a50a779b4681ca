package brightlantern.app.sweep;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.Sweeps;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.page.JobPages;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.FrameComparison;
import brightlantern.core.code.Occasions;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.signal.Words;
import brightlantern.core.sweep.CodeWeigher;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.sweep.SweepComparison;
import brightlantern.wire.WireException;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** The Sweep page: which module, which code matters? */
@Controller
@RequestMapping("/jobs/{id}/sweep")
class SweepController {
    private static final int ALL_GROUPS = 0xFFFFFF;

    /** Nobody reads more at once; the rest is a click away. */
    private static final int MOST_ROWS = 40;

    private final JobPages pages;
    private final Sweeps sweeps;
    private final SweepRunner runner;
    private final Findings findings;
    private final CommandLog log;
    private final CodeParts parts;

    SweepController(
            JobPages pages,
            Sweeps sweeps,
            SweepRunner runner,
            Findings findings,
            CommandLog log,
            CodeParts parts) {
        this.parts = parts;
        this.pages = pages;
        this.sweeps = sweeps;
        this.runner = runner;
        this.findings = findings;
        this.log = log;
    }

    record CodeRow(
            CodeWeigher.Weighed weighed, List<String> status, List<FrameComparison.Row> frames) {}

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @RequestParam(name = "before", required = false) Long before,
            @RequestParam(name = "find", defaultValue = "") String find,
            @RequestParam(name = "all", defaultValue = "false") boolean all,
            @RequestParam(name = "only", defaultValue = "") String only,
            @RequestParam(name = "sort", defaultValue = "") String sort,
            @RequestParam(name = "sweep", required = false) Long sweep,
            Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        show(
                context,
                Optional.ofNullable(before),
                Optional.ofNullable(sweep),
                new Wanted(find, all, only, sort),
                model);
        return "sweep/sweep";
    }

    @GetMapping("/now")
    String now(
            @PathVariable("id") long id,
            @RequestParam(name = "before", required = false) Long before,
            @RequestParam(name = "find", defaultValue = "") String find,
            @RequestParam(name = "all", defaultValue = "false") boolean all,
            @RequestParam(name = "only", defaultValue = "") String only,
            @RequestParam(name = "sort", defaultValue = "") String sort,
            Model model) {
        JobPages.Context context = pages.context(id);
        model.addAttribute("job", context.job());
        show(
                context,
                Optional.ofNullable(before),
                Optional.empty(),
                new Wanted(find, all, only, sort),
                model);
        return "sweep/sweep :: now";
    }

    /**
     * What of a long list is wanted.
     *
     * @param find words that a code, its meaning or its module must hold
     * @param all all of it, however long
     * @param only lead, not-aside, now (failing now), or empty for every code
     * @param sort module, code, times, or empty for what matters first
     */
    private record Wanted(String find, boolean all, String only, String sort) {
        List<CodeWeigher.Weighed> of(List<CodeWeigher.Weighed> weighed) {
            Comparator<CodeWeigher.Weighed> order =
                    switch (sort) {
                        case "module" -> Comparator.comparing(w -> w.code().moduleName());
                        case "code" -> Comparator.comparing(w -> w.code().code());
                        case "times" ->
                                Comparator.comparingInt(
                                                (CodeWeigher.Weighed w) -> w.code().occurrences())
                                        .reversed();
                        default -> (a, b) -> 0;
                    };
            return weighed.stream().filter(this::matches).sorted(order).toList();
        }

        boolean matches(CodeWeigher.Weighed w) {
            String text =
                    (w.code().code() + " " + w.code().name() + " " + w.code().moduleName())
                            .toLowerCase(Locale.ROOT);
            boolean part =
                    switch (only) {
                        case "lead" -> w.lead();
                        case "not-aside" -> !w.aside();
                        case "now" ->
                                w.code().statusByte().standing() == DtcStatus.Standing.FAILS_NOW;
                        default -> true;
                    };
            return part
                    && Stream.of(find.trim().toLowerCase(Locale.ROOT).split("\\s+"))
                            .allMatch(text::contains);
        }
    }

    /**
     * @param looked a kept sweep that is looked at instead of the newest one, of any job of the
     *     vehicle
     */
    private void show(
            JobPages.Context context,
            Optional<Long> before,
            Optional<Long> looked,
            Wanted wanted,
            Model model) {
        long id = context.job().id();
        List<Sweeps.Head> kept = sweeps.headsOfVehicle(context.job().vin());
        Optional<Sweeps.Kept> older =
                looked.map(
                        l -> JobPages.found(sweeps.ofVehicle(context.job().vin(), l), "sweep", l));
        model.addAttribute("older", older.isPresent());
        Optional<Sweep> newest = older.or(() -> sweeps.newest(id)).map(Sweeps.Kept::sweep);
        boolean running = runner.isRunning(id) && older.isEmpty();
        Optional<Element> suspected = newest.flatMap(s -> parts.suspected(context, s));
        List<CodeWeigher.Weighed> weighed =
                newest.map(s -> parts.weigh(context, s, suspected)).orElse(List.of());
        List<CodeWeigher.Weighed> found = wanted.of(weighed);
        model.addAttribute("find", wanted.find());
        model.addAttribute("only", wanted.only());
        model.addAttribute("sort", wanted.sort());
        model.addAttribute("codeCount", weighed.size());
        model.addAttribute("foundCount", found.size());
        List<CodeRow> codes =
                rows(
                        context,
                        wanted.all() ? found : found.subList(0, Math.min(MOST_ROWS, found.size())));
        model.addAttribute("running", running);
        model.addAttribute("mileage", !context.description().mileage().isEmpty());
        model.addAttribute("sweep", newest.orElse(null));
        model.addAttribute("before", before.orElse(null));
        model.addAttribute("halfway", !running && newest.isPresent() && !newest.get().whole());
        model.addAttribute(
                "failed",
                newest.map(s -> s.count(Answer.SILENT) + s.count(Answer.FAULTY)).orElse(0L));
        model.addAttribute("map", map(context, newest, runner.asking(id), suspected));
        model.addAttribute("codes", codes);
        model.addAttribute(
                "occasions",
                Occasions.of(
                        weighed.stream()
                                .filter(w -> !w.aside())
                                .map(CodeWeigher.Weighed::code)
                                .toList(),
                        context.description().signals(),
                        OdometerController.CLOCK));
        model.addAttribute("foreign", newest.map(s -> foreign(context, s)).orElse(List.of()));
        model.addAttribute(
                "emission",
                newest.stream()
                        .flatMap(s -> s.modules().stream())
                        .anyMatch(m -> m.emission().isPresent()));
        model.addAttribute("known", context.description().isKnown());
        model.addAttribute(
                "answer",
                runner.searching(id)
                        .orElseGet(
                                () ->
                                        answer(
                                                newest,
                                                weighed,
                                                running,
                                                suspected.map(CodeParts::name))));
        model.addAttribute("kept", kept);
        Optional<Sweeps.Kept> earlier =
                before.flatMap(b -> sweeps.ofVehicle(context.job().vin(), b))
                        .or(
                                () ->
                                        sweeps.heads(id).stream()
                                                .skip(1)
                                                .findFirst()
                                                .map(h -> sweeps.read(h.id())));
        model.addAttribute("earlier", earlier.orElse(null));
        Optional<SweepComparison.Result> comparison =
                earlier.filter(e -> newest.isPresent() && !running)
                        .map(e -> SweepComparison.compare(e.sweep(), newest.get()));
        model.addAttribute("comparison", comparison.orElse(null));
        model.addAttribute(
                "changeMap",
                comparison
                        .filter(c -> before.isPresent())
                        .map(c -> ChangeMap.of(context.description(), newest.get(), c))
                        .orElse(null));
        List<SweepComparison.CodeChange> changes =
                comparison.map(SweepComparison.Result::codes).orElse(List.of());
        model.addAttribute(
                "changes",
                wanted.all() || changes.size() <= MOST_ROWS
                        ? changes
                        : changes.stream()
                                .filter(c -> c.change() != SweepComparison.Change.UNCHANGED)
                                .limit(MOST_ROWS)
                                .toList());
    }

    /** Modules that store the VIN of another vehicle. */
    private static List<ModuleResult> foreign(JobPages.Context context, Sweep sweep) {
        return sweep.modules().stream()
                .filter(m -> !m.identity().getOrDefault("VIN", "").isEmpty())
                .filter(m -> !m.identity().get("VIN").equals(context.job().vin()))
                .toList();
    }

    private static BusMap map(
            JobPages.Context context,
            Optional<Sweep> sweep,
            Set<String> asking,
            Optional<Element> suspected) {
        return BusMap.of(
                context.description(),
                m -> mark(sweep.flatMap(s -> s.module(m.id())), asking.contains(m.id())),
                suspected);
    }

    private static BusMap.Mark mark(Optional<ModuleResult> result, boolean asking) {
        if (asking) {
            return new BusMap.Mark("asking", 0, "being asked now");
        }
        int codes = result.map(r -> r.codes().size()).orElse(0);
        return switch (result.map(ModuleResult::answer).orElse(Answer.NOT_ASKED)) {
            case NOT_ASKED -> new BusMap.Mark("waiting", 0, "not asked yet");
            case ANSWERED ->
                    codes == 0
                            ? new BusMap.Mark("answered", 0, "answered, no codes")
                            : new BusMap.Mark(
                                    "codes",
                                    codes,
                                    "answered, " + codes + (codes == 1 ? " code" : " codes"));
            case SILENT -> new BusMap.Mark("silent", 0, "silent");
            case FAULTY -> new BusMap.Mark("faulty", 0, "answered wrongly");
            case NOT_FITTED -> new BusMap.Mark("absent", 0, "not fitted, says the gateway");
        };
    }

    private static List<CodeRow> rows(JobPages.Context context, List<CodeWeigher.Weighed> weighed) {
        return weighed.stream()
                .map(
                        w ->
                                new CodeRow(
                                        w,
                                        w.code().statusByte().words(),
                                        FrameComparison.rows(
                                                w.code(), context.description().signals())))
                .toList();
    }

    /** The page's answer in a sentence. */
    private static String answer(
            Optional<Sweep> sweep,
            List<CodeWeigher.Weighed> codes,
            boolean running,
            Optional<String> brokenWire) {
        if (sweep.isEmpty()) {
            return "No sweep yet. Sweep all modules to see who answers and which codes they hold.";
        }
        long asked = sweep.get().modules().size() - sweep.get().count(Answer.NOT_ASKED);
        if (running) {
            return "Sweeping: " + asked + " of " + sweep.get().modules().size() + " modules done.";
        }
        List<String> parts = new ArrayList<>();
        boolean whole = sweep.get().whole();
        if (!whole) {
            // nothing reassuring is said of what was not asked
            parts.add(
                    "The sweep is not whole: %d of %s asked. What follows is of those alone."
                            .formatted(asked, Words.count(sweep.get().modules().size(), "module")));
        }
        long knockOn = codes.stream().filter(c -> c.knockOn()).count();
        if (brokenWire.isPresent()) {
            parts.add("Look at this first: " + brokenWire.get() + ".");
        }
        codes.stream()
                .filter(c -> c.lead())
                .filter(c -> c.role() == CodeWeigher.Role.LEAD)
                .findFirst()
                .ifPresentOrElse(
                        c ->
                                parts.add(
                                        "Chase "
                                                + c.code().code()
                                                + ", "
                                                + lower(c.code().name())
                                                + " ("
                                                + c.code().moduleName()
                                                + ")."),
                        () ->
                                parts.add(
                                        brokenWire.isPresent()
                                                ? ""
                                                : codes.isEmpty()
                                                        ? whole
                                                                ? "No module holds a code."
                                                                : "None of them holds a code."
                                                        : "No code here matters for the complaint."));
        if (knockOn > 0) {
            parts.add(knockOn + (knockOn == 1 ? " code is" : " codes are") + " its knock-on.");
        }
        long aside = codes.stream().filter(c -> c.aside()).count();
        if (aside > 0) {
            parts.add(aside + (aside == 1 ? " code" : " codes") + " need not be chased.");
        }
        long silent = sweep.get().count(Answer.SILENT);
        long faulty = sweep.get().count(Answer.FAULTY);
        if (silent > 0) {
            parts.add(silent + (silent == 1 ? " module is silent." : " modules are silent."));
        }
        if (faulty > 0) {
            parts.add(
                    faulty
                            + (faulty == 1
                                    ? " module could not be read."
                                    : " modules could not be read."));
        }
        return String.join(" ", parts).replaceAll(" +", " ").trim();
    }

    private static String lower(String text) {
        return text.substring(0, 1).toLowerCase(Locale.ROOT) + text.substring(1);
    }

    @PostMapping("/start")
    String start(
            @PathVariable("id") long id,
            @RequestParam(name = "resume", defaultValue = "false") boolean resume,
            @RequestParam(name = "search", defaultValue = "false") boolean search,
            Principal who) {
        runner.start(pages.context(id), who.getName(), resume, search);
        return "redirect:/jobs/" + id + "/sweep";
    }

    @PostMapping("/stop")
    String stop(@PathVariable("id") long id) {
        runner.stop(id);
        return "redirect:/jobs/" + id + "/sweep";
    }

    @GetMapping("/modules/{module}")
    String module(@PathVariable("id") long id, @PathVariable("module") String module, Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        Optional<Sweep> newest = sweeps.newest(id).map(Sweeps.Kept::sweep);
        model.addAttribute(
                "module", JobPages.found(context.description().module(module), "module", module));
        model.addAttribute("result", newest.flatMap(s -> s.module(module)).orElse(null));
        model.addAttribute(
                "codes",
                newest.map(s -> rows(context, parts.weigh(context, s))).orElse(List.of()).stream()
                        .filter(c -> c.weighed().code().moduleId().equals(module))
                        .toList());
        return "sweep/module";
    }

    /** All codes that a module can set, with their present status, asked now (0x19 0A). */
    @GetMapping("/modules/{module}/supported")
    String supported(
            @PathVariable("id") long id, @PathVariable("module") String module, Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        ControlModule asked =
                JobPages.found(context.description().module(module), "module", module);
        model.addAttribute("module", asked);
        try {
            model.addAttribute(
                    "codes", ModuleAsker.supported(context.link(), context.description(), asked));
        } catch (WireException silent) {
            model.addAttribute("codes", List.of());
            model.addAttribute("error", asked.name() + ": " + silent.getMessage());
        }
        return "sweep/supported";
    }

    @GetMapping("/clear")
    String askClear(
            @PathVariable("id") long id,
            @RequestParam(name = "module", defaultValue = "") String module,
            Model model) {
        JobPages.Context context = pages.fill(id, "sweep", model);
        boolean kept = sweeps.newestWhole(id).isPresent();
        model.addAttribute("kept", kept && !runner.isRunning(id));
        model.addAttribute("module", context.description().module(module).orElse(null));
        return "sweep/clear";
    }

    @PostMapping("/clear")
    String clear(
            @PathVariable("id") long id,
            @RequestParam(name = "module", defaultValue = "") String module,
            @RequestParam("why") String why,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        if (runner.isRunning(id) || sweeps.newestWhole(id).isEmpty()) {
            flash.addFlashAttribute("error", "Nothing was cleared: keep a whole sweep first.");
            return "redirect:/jobs/" + id + "/sweep";
        }
        List<ControlModule> targets =
                context.description().modules().stream()
                        .filter(m -> module.isEmpty() || m.id().equals(module))
                        .toList();
        List<String> refused = new ArrayList<>();
        try {
            context.link().lease().claim(who.getName());
            for (ControlModule target : targets) {
                Optional<WireException> failure = clearOne(context.link(), target);
                failure.ifPresent(f -> refused.add(target.name() + ": " + f.getMessage()));
                log.add(
                        context.job(),
                        who.getName(),
                        // only a clear of the whole vehicle starts a proof
                        module.isEmpty() && failure.isEmpty() ? CommandLog.CLEAR : "clear one",
                        "clear codes of " + target.name(),
                        why.isBlank() ? "no reason given" : why,
                        VehicleLink.answerOf(failure));
            }
            findings.note(
                    id,
                    "sweep",
                    who.getName(),
                    "Codes cleared in "
                            + (targets.size() - refused.size())
                            + " of "
                            + Words.count(targets.size(), "module")
                            + ".");
            flash.addFlashAttribute(
                    "notice",
                    "Cleared "
                            + (targets.size() - refused.size())
                            + " of "
                            + Words.count(targets.size(), "module")
                            + ". Key off, key on, and sweep again: what comes back first is the lead.");
        } catch (IllegalStateException held) {
            refused.add(held.getMessage());
        } finally {
            context.link().lease().release(who.getName());
        }
        if (!refused.isEmpty()) {
            flash.addFlashAttribute("error", String.join(" · ", refused));
        }
        return "redirect:/jobs/" + id + "/sweep";
    }

    private static Optional<WireException> clearOne(VehicleLink link, ControlModule target) {
        try {
            link.module(target.address()).clear(ALL_GROUPS);
            return Optional.empty();
        } catch (WireException failed) {
            return Optional.of(failed);
        }
    }
}
