package brightlantern.app.exercise;

import brightlantern.app.job.Json;
import brightlantern.app.page.CellsPicture;
import brightlantern.app.page.Chart;
import brightlantern.app.page.JobPages;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.library.Studies;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.springframework.stereotype.Component;

/** What a run has read so far, as bars, rows and charts. */
@Component
class RunPictures {
    /** So many curves are drawn at most; the take holds all. */
    private static final int MOST_CHARTS = 4;

    private static final int MOST_DOTS = 400;

    private final KeptRuns kept;
    private final Json json;

    RunPictures(KeptRuns kept, Json json) {
        this.kept = kept;
        this.json = json;
    }

    /** What a module holds beside what it would be told; a dash where it is not known. */
    record ItemRow(String name, String now, String then, boolean differs) {}

    static List<ItemRow> items(ProcedureRun run) {
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
    static List<Pot> pots(JobPages.Context context, ProcedureRun run) {
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

    static String progress(LiveRun its, ProcedureRun run) {
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
                        Locale.ROOT,
                        "%.0f s of %.0f s at most",
                        Math.min(limit, its.inStep()),
                        limit);
    }

    record NamedChart(String name, Chart chart, List<String> legend) {}

    /** The cells of a pack, where the run studied them; null where it did not. */
    CellsPicture cells(LiveRun its, ProcedureRun run) {
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

    List<NamedChart> charts(JobPages.Context context, LiveRun its, ProcedureRun run) {
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
}
