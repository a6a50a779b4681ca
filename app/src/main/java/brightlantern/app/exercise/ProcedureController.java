package brightlantern.app.exercise;

import brightlantern.app.job.Json;
import brightlantern.app.link.CommandLease;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.page.CellsPicture;
import brightlantern.app.page.Chart;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.library.Studies;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Guided procedures: what is ready to be done, and a run of one. */
@Controller
@RequestMapping("/jobs/{id}/exercise")
class ProcedureController {
    /** So many curves are drawn at most; the take holds all. */
    private static final int MOST_CHARTS = 4;

    private static final int MOST_DOTS = 400;

    private final JobPages pages;
    private final VehicleLinks links;
    private final ProcedureRuns runs;
    private final KeptRuns kept;
    private final Json json;
    private final UnitChoices units;

    ProcedureController(
            JobPages pages,
            VehicleLinks links,
            ProcedureRuns runs,
            KeptRuns kept,
            Json json,
            UnitChoices units) {
        this.units = units;
        this.pages = pages;
        this.links = links;
        this.runs = runs;
        this.kept = kept;
        this.json = json;
    }

    private Procedure procedure(JobPages.Context context, String id) {
        return links.procedure(context.job(), id)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND,
                                        "This vehicle has no procedure '" + id + "'."));
    }

    @GetMapping("/procedures/{procedure}")
    String ready(
            @PathVariable("id") long id,
            @PathVariable("procedure") String procedureId,
            Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        Procedure procedure = procedure(context, procedureId);
        model.addAttribute("procedure", procedure);
        model.addAttribute(
                "picture", ProcedurePicture.of(procedure, context.description(), "", Set.of()));
        gates(context, procedure, model);
        model.addAttribute("opens", "begin");
        return "exercise/ready";
    }

    @GetMapping("/procedures/{procedure}/now")
    String readyNow(
            @PathVariable("id") long id,
            @PathVariable("procedure") String procedureId,
            @RequestParam(name = "in", defaultValue = "") String in,
            Model model) {
        JobPages.Context context = pages.context(id);
        Procedure procedure = procedure(context, procedureId);
        model.addAttribute("job", context.job());
        model.addAttribute("procedure", procedure);
        gates(context, procedure, model);
        model.addAttribute("opens", in.isEmpty() ? "begin" : "run-" + in);
        // beside others only what is shut is worth its place
        model.addAttribute("brief", !in.isEmpty() && !in.equals("hand"));
        return "exercise/ready :: gates";
    }

    private static void gates(JobPages.Context context, Procedure procedure, Model model) {
        var gates = ProcedureRuns.gates(context, procedure);
        model.addAttribute("gates", gates);
        // what commands nothing may begin whatever its gates are
        model.addAttribute(
                "open", !procedure.commands() || gates.stream().allMatch(GateState::open));
    }

    @PostMapping("/procedures/{procedure}")
    String begin(
            @PathVariable("id") long id,
            @PathVariable("procedure") String procedureId,
            @RequestParam(name = "read", defaultValue = "false") boolean read,
            @RequestParam(name = "then", defaultValue = "") List<String> then,
            HttpServletRequest request,
            RedirectAttributes flash) {
        Principal who = request.getUserPrincipal();
        JobPages.Context context = pages.context(id);
        Procedure procedure = procedure(context, procedureId);
        String back = "redirect:/jobs/" + id + "/exercise/procedures/" + procedureId;
        if (!procedure.beware().isEmpty() && !read) {
            flash.addFlashAttribute("error", "Read what to beware of and say so, then begin.");
            return back;
        }
        try {
            mayWrite(procedure, request);
            // what follows begins by itself, so nothing that wants a word or a role may be among it
            then.stream()
                    .map(t -> procedure(context, t))
                    .filter(p -> p.kind() != Procedure.Kind.SELF_CHECK)
                    .findFirst()
                    .ifPresent(
                            p -> {
                                throw new IllegalStateException(
                                        "Only self-checks follow one another; "
                                                + p.name()
                                                + " is begun by itself.");
                            });
            return run(id, runs.begin(context, procedure, who.getName(), then));
        } catch (IllegalStateException shut) {
            flash.addFlashAttribute("error", shut.getMessage());
            return back;
        }
    }

    /** One check after another: those that were chosen, the first of them now. */
    @PostMapping("/in-turn")
    String inTurn(
            @PathVariable("id") long id,
            @RequestParam(name = "check", defaultValue = "") List<String> checks,
            HttpServletRequest request,
            RedirectAttributes flash) {
        if (checks.isEmpty()) {
            flash.addFlashAttribute("error", "Choose at least one check.");
            return "redirect:/jobs/" + id + "/exercise";
        }
        return begin(id, checks.get(0), true, checks.subList(1, checks.size()), request, flash);
    }

    /** Writing into a module needs more than commanding it. */
    private static void mayWrite(Procedure procedure, HttpServletRequest request) {
        if (procedure.writes()
                && !request.isUserInRole("LEAD")
                && !request.isUserInRole("ADMINISTRATOR")) {
            throw new IllegalStateException(
                    procedure.name()
                            + " writes into a module; that is for a lead technician. Ask one to begin it.");
        }
    }

    private static String run(long id, long run) {
        return "redirect:/jobs/" + id + "/exercise/runs/" + run;
    }

    private LiveRun live(JobPages.Context context, long run) {
        return runs.view(context, run)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND, "There is no run " + run + "."));
    }

    @GetMapping("/runs/{run}")
    String page(
            @PathVariable("id") long id,
            @PathVariable("run") long run,
            Principal who,
            Model model) {
        JobPages.Context context = pages.fill(id, "exercise", model);
        ping(context, run, who.getName());
        Optional<Long> next = next(context, run, who.getName(), model);
        if (next.isPresent()) {
            return run(id, next.get());
        }
        show(context, live(context, run), who.getName(), model);
        return "exercise/run";
    }

    @GetMapping("/runs/{run}/now")
    String now(
            @PathVariable("id") long id,
            @PathVariable("run") long run,
            Principal who,
            HttpServletResponse response,
            Model model) {
        JobPages.Context context = pages.context(id);
        ping(context, run, who.getName());
        next(context, run, who.getName(), model)
                .ifPresent(
                        next ->
                                response.setHeader(
                                        "HX-Redirect", "/jobs/" + id + "/exercise/runs/" + next));
        model.addAttribute("job", context.job());
        show(context, live(context, run), who.getName(), model);
        return "exercise/run :: inside";
    }

    /** The next check in turn begins when the one before it has come to its end. */
    private Optional<Long> next(JobPages.Context context, long run, String me, Model model) {
        LiveRun its = live(context, run);
        if (its.run().status() != ProcedureRun.Status.CONCLUDED || !its.who().equals(me)) {
            return Optional.empty();
        }
        try {
            return runs.following(context, run, me);
        } catch (IllegalStateException shut) {
            model.addAttribute("error", shut.getMessage());
            return Optional.empty();
        }
    }

    /** Only the page of whoever commands keeps a command alive. */
    private void ping(JobPages.Context context, long run, String me) {
        if (live(context, run).who().equals(me)) {
            runs.ping(run);
        }
    }

    private void show(JobPages.Context context, LiveRun its, String me, Model model) {
        CommandLease lease = context.link().lease();
        model.addAttribute("me", me);
        model.addAttribute("commander", lease.holder().orElse(""));
        model.addAttribute("asked", lease.asked().orElse(""));
        List<Pot> pots = pots(context, its.run());
        model.addAttribute("pots", pots);
        model.addAttribute("potsHeight", pots.stream().mapToInt(Pot::y).max().orElse(0) + 44);
        ProcedureRun run = its.run();
        model.addAttribute("run", run);
        model.addAttribute("number", its.id);
        model.addAttribute("procedure", run.procedure());
        model.addAttribute("step", run.step());
        model.addAttribute("ask", run.step().act() instanceof Act.Ask ask ? ask : null);
        model.addAttribute("tell", run.step().act() instanceof Act.Tell);
        model.addAttribute(
                "holds", !run.holding().isEmpty() || run.step().act() instanceof Act.Command);
        model.addAttribute("progress", progress(its, run));
        model.addAttribute("present", its.present());
        model.addAttribute("gates", its.gates());
        model.addAttribute("who", its.who());
        model.addAttribute("mine", its.who().equals(me) || !run.procedure().commands());
        model.addAttribute("items", items(run));
        model.addAttribute(
                "picture",
                ProcedurePicture.of(
                        run.procedure(),
                        context.description(),
                        run.running() ? run.at() : "",
                        run.been()));
        model.addAttribute("charts", charts(context, its, run));
        model.addAttribute("cells", cells(its, run));
    }

    /** What a module holds beside what it would be told; a dash where it is not known. */
    record ItemRow(String name, String now, String then, boolean differs) {}

    private static List<ItemRow> items(ProcedureRun run) {
        if (!(run.step().act() instanceof Act.Ask ask) || ask.shows().isEmpty()) {
            return List.of();
        }
        return run.procedure().configuration(ask.shows()).orElseThrow().items().stream()
                .map(
                        i -> {
                            String now = run.data().get(Scene.item(Scene.PRESENT, i.id()));
                            String then = run.data().get(Scene.item(Scene.WANTED, i.id()));
                            return new ItemRow(
                                    i.name(),
                                    now == null ? "–" : i.told(now),
                                    then == null ? "left alone" : i.told(then),
                                    then != null && now != null && !then.equals(now));
                        })
                .toList();
    }

    /** A cylinder in the drawing of the engine. */
    record Pot(int number, int x, int y, boolean off) {}

    /** The engine from above, a row for each bank; empty unless cylinders are what it is about. */
    private static List<Pot> pots(JobPages.Context context, ProcedureRun run) {
        List<Pot> pots = new ArrayList<>();
        if (run.procedure().kind() != Procedure.Kind.CYLINDERS) {
            return pots;
        }
        Cylinders cylinders = context.description().cylinders().orElseThrow();
        List<String> banks = cylinders.banks().values().stream().distinct().sorted().toList();
        int[] next = new int[Math.max(1, banks.size())];
        for (int n : cylinders.order().stream().sorted().toList()) {
            int row = Math.max(0, banks.indexOf(cylinders.banks().getOrDefault(n, "")));
            pots.add(
                    new Pot(
                            n,
                            60 + 76 * next[row]++,
                            44 + 76 * row,
                            run.holding().contains("injector-" + n)));
        }
        return pots;
    }

    /** Asks whoever commands the vehicle for the command, or hands it over. */
    @PostMapping("/command/{what}")
    String command(
            @PathVariable("id") long id,
            @PathVariable("what") String what,
            @RequestParam("run") long run,
            Principal who) {
        CommandLease lease = pages.context(id).link().lease();
        if (what.equals("ask")) {
            lease.ask(who.getName());
        } else {
            lease.handOver(who.getName());
        }
        return run(id, run);
    }

    private static String progress(LiveRun its, ProcedureRun run) {
        if (!run.running()) {
            return "";
        }
        Act act = run.step().act();
        double limit =
                act instanceof Act.Wait w
                        ? w.seconds()
                        : act instanceof Act.Measure m
                                ? m.seconds()
                                : act instanceof Act.Command c
                                        ? c.legs().stream().mapToDouble(Act.Leg::seconds).sum()
                                        : 0;
        return limit == 0
                ? ""
                : String.format(
                        java.util.Locale.ROOT,
                        "%.0f s of %.0f s at most",
                        Math.min(limit, its.inStep()),
                        limit);
    }

    record NamedChart(String name, Chart chart, List<String> legend) {}

    /** The cells of a pack, where the run studied them; null where it did not. */
    private CellsPicture cells(LiveRun its, ProcedureRun run) {
        Take take = run.running() ? its.take() : measured(its.id);
        return run.procedure().steps().stream()
                .map(Step::act)
                .filter(Act.Study.class::isInstance)
                .map(Act.Study.class::cast)
                .filter(a -> a.study().equals(Studies.PACK))
                .findFirst()
                .map(a -> Studies.cells(take, a.about(), a.with()))
                .filter(v -> !v.cells().isEmpty())
                .map(CellsPicture::of)
                .orElse(null);
    }

    private List<NamedChart> charts(JobPages.Context context, LiveRun its, ProcedureRun run) {
        Take take = run.running() ? its.take() : measured(its.id);
        List<NamedChart> charts = new ArrayList<>();
        List<String> led =
                run.procedure().steps().stream()
                        .filter(s -> s.act() instanceof Act.Command)
                        .flatMap(s -> ((Act.Command) s.act()).values().stream())
                        .distinct()
                        .toList();
        if (led.stream().anyMatch(take.columns()::containsKey)) {
            RunChart.Led all = RunChart.of(take, context.description(), led);
            charts.add(new NamedChart("Command and what came of it", all.chart(), all.legend()));
        }
        take.columns()
                .forEach(
                        (id, column) ->
                                context.description()
                                        .value(id)
                                        .filter(v -> !v.isState() && !led.contains(id))
                                        .filter(
                                                v ->
                                                        charts.size() < MOST_CHARTS
                                                                && column.size() > 2)
                                        .ifPresent(
                                                v ->
                                                        charts.add(
                                                                new NamedChart(
                                                                        v.name(),
                                                                        chart(v, column),
                                                                        List.of()))));
        return charts;
    }

    private static Chart chart(Value v, Take.Column column) {
        int every = Math.max(1, column.size() / MOST_DOTS);
        int n = (column.size() + every - 1) / every;
        double[] t = new double[n];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = column.seconds(i * every);
            y[i] = Scaling.shown(v, column.value(i * every));
        }
        double least = Arrays.stream(y).min().orElse(0);
        double most = Arrays.stream(y).max().orElse(1);
        double room = Math.max(Math.pow(10, -v.digits()), 0.08 * (most - least));
        return Chart.of(
                "seconds",
                v.show(),
                least - room,
                most + room,
                List.of(
                        new Chart.Series("", new double[0], new double[0]),
                        new Chart.Series("", t, y)));
    }

    private Take measured(long run) {
        Map<String, List<double[]>> samples = new LinkedHashMap<>();
        kept.byId(run)
                .filter(k -> !k.samples().isEmpty())
                .ifPresent(
                        k ->
                                json.read(k.samples(), Measured.class)
                                        .forEach(
                                                (id, rows) ->
                                                        samples.put(id, Arrays.asList(rows))));
        return Take.of(samples);
    }

    /** As what was measured is kept: value id → pairs of seconds and value. */
    static final class Measured extends LinkedHashMap<String, double[][]> {
        private static final long serialVersionUID = 1L;
    }

    @PostMapping("/runs/{run}/{what}")
    String act(
            @PathVariable("id") long id,
            @PathVariable("run") long run,
            @PathVariable("what") String what,
            @RequestParam Map<String, String> form,
            HttpServletRequest request,
            RedirectAttributes flash) {
        Principal who = request.getUserPrincipal();
        JobPages.Context context = pages.context(id);
        LiveRun its = live(context, run);
        String step = form.getOrDefault("step", "");
        try {
            ownsOrStops(its, what, who.getName());
            switch (what) {
                case "done" -> runs.told(its, new Event.Pressed(step));
                case "choose" ->
                        runs.told(its, new Event.Chosen(step, form.getOrDefault("choice", "")));
                case "type" -> typed(its, step, form.getOrDefault("number", ""));
                case "stop" -> runs.stop(its, "Stopped by " + who.getName() + ".");
                case "resume" -> {
                    mayWrite(its.run().procedure(), request);
                    runs.resume(its, who.getName());
                }
                default ->
                        throw new ResponseStatusException(
                                HttpStatus.NOT_FOUND, "A run cannot '" + what + "'.");
            }
        } catch (IllegalStateException refused) {
            flash.addFlashAttribute("error", refused.getMessage());
        }
        return run(id, run);
    }

    /**
     * Who looks on at a run that commands may stop it, as anybody may who sees danger; whatever
     * moves it on is for whoever began it, until it was broken off.
     */
    private static void ownsOrStops(LiveRun its, String what, String me) {
        ProcedureRun run = its.run();
        boolean broken = run.status() == ProcedureRun.Status.BROKEN_OFF && what.equals("resume");
        if (run.procedure().commands()
                && !its.who().equals(me)
                && !what.equals("stop")
                && !broken) {
            throw new IllegalStateException(
                    its.who()
                            + " began this and moves it on. You may look on, stop it, or ask for the command.");
        }
    }

    private void typed(LiveRun its, String step, String text) {
        ProcedureRun run = its.run();
        if (!run.at().equals(step) || !(run.step().act() instanceof Act.Ask ask)) {
            return;
        }
        Act.Figure figure = ask.figure().orElseThrow();
        double number;
        try {
            number = Double.parseDouble(text.trim().replace(',', '.'));
        } catch (NumberFormatException nonsense) {
            number = Double.NaN;
        }
        String typed = units.unit(figure.unit());
        double kept = Units.convert(number, typed, figure.unit());
        if (!ProcedureRun.fits(figure, kept)) {
            throw new IllegalStateException(
                    "%s: expected a number from %s to %s %s, found '%s'."
                            .formatted(
                                    figure.name(),
                                    plain(Units.convert(figure.least(), figure.unit(), typed)),
                                    plain(Units.convert(figure.most(), figure.unit(), typed)),
                                    typed,
                                    text));
        }
        runs.told(its, new Event.Typed(step, kept));
    }

    private static String plain(double number) {
        return number == Math.rint(number) ? String.valueOf((long) number) : Units.told(number);
    }
}
