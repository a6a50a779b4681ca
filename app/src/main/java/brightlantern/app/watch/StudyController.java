package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Takes;
import brightlantern.app.page.Chart;
import brightlantern.app.page.JobPages;
import brightlantern.core.filter.Filter;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.filter.Stretch;
import brightlantern.core.signal.Value;
import brightlantern.core.study.map.Axis;
import brightlantern.core.study.map.MapCsv;
import brightlantern.core.study.map.OperatingMap;
import brightlantern.core.study.overlay.Overlay;
import brightlantern.core.study.scatter.Scatter;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.io.StringReader;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.security.Principal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Studies over one take or many together: operating map, scatter, overlay of two. */
@Controller
@RequestMapping("/jobs/{id}/watch/studies")
class StudyController {
    /** A value older than this is not taken for present, s. */
    private static final double HOLD_SECONDS = 1;

    private static final int CELLS = 8;
    private static final double BRIDGE_SECONDS = 0.8;
    private static final int OVERLAY_BINS = 60;

    private final JobPages pages;
    private final Jobs jobs;
    private final Takes takes;
    private final Findings findings;
    private final KeptStudies kept;

    StudyController(JobPages pages, Jobs jobs, Takes takes, Findings findings, KeptStudies kept) {
        this.pages = pages;
        this.jobs = jobs;
        this.takes = takes;
        this.findings = findings;
        this.kept = kept;
    }

    /** What was asked for; blank where nothing was. */
    record Asked(
            List<Long> take,
            String kind,
            String x,
            String y,
            String z,
            String when,
            String xEdges,
            String yEdges,
            String minus,
            Boolean path,
            Long before,
            Long after) {
        Asked {
            take = take == null ? List.of() : take;
            kind = kind == null || kind.isBlank() ? "map" : kind;
            x = x == null ? "" : x;
            y = y == null ? "" : y;
            z = z == null ? "" : z;
            when = when == null ? "" : when;
            xEdges = xEdges == null ? "" : xEdges;
            yEdges = yEdges == null ? "" : yEdges;
            minus = minus == null ? "" : minus;
            path = path != null && path;
        }

        Asked with(String newX, String newY, String newZ, Long first, Long second) {
            return new Asked(
                    take, kind, newX, newY, newZ, when, xEdges, yEdges, minus, path, first, second);
        }
    }

    /** A take of this vehicle, of this job or an earlier one. */
    record Listed(Takes.TakeHead head, boolean here, boolean chosen) {}

    @GetMapping
    String page(@PathVariable("id") long id, Asked given, Model model) {
        JobPages.Context context = pages.fill(id, "watch", model);
        List<Takes.TakeHead> heads = heads(context.job());
        List<Long> chosen =
                given.take().isEmpty()
                        ? heads.stream()
                                .filter(h -> !h.setAside())
                                .limit(1)
                                .map(Takes.TakeHead::id)
                                .toList()
                        : given.take();
        List<TakeController.Opened> opened = new ArrayList<>();
        VehicleDescription d = context.description();
        for (Takes.TakeHead head : heads) {
            if (chosen.contains(head.id())
                    || head.id() == or(given.before())
                    || head.id() == or(given.after())) {
                d = d.withValues(takes.own(head.id()));
                opened.add(new TakeController.Opened(head, takes.ended(head), d));
            }
        }
        Asked asked = sensible(given, heads, values(opened, d), d);
        model.addAttribute("asked", asked);
        model.addAttribute(
                "heads",
                heads.stream()
                        .map(h -> new Listed(h, h.jobId() == id, chosen.contains(h.id())))
                        .toList());
        model.addAttribute("values", values(opened, d));
        model.addAttribute("maps", kept.maps(id));
        model.addAttribute("findings", d.findings());
        model.addAttribute("answer", "What do the takes say together?");
        try {
            study(
                    asked,
                    opened,
                    opened.stream().filter(o -> chosen.contains(o.head().id())).toList(),
                    d,
                    id,
                    model);
        } catch (IllegalArgumentException wrong) {
            model.addAttribute("trouble", wrong.getMessage());
        }
        return "watch/studies";
    }

    /** A page never opens empty: what this engine asks for is drawn until something is chosen. */
    private static Asked sensible(
            Asked asked, List<Takes.TakeHead> heads, List<Shown> values, VehicleDescription d) {
        boolean blank = asked.x().isEmpty() && asked.y().isEmpty() && asked.z().isEmpty();
        if (!blank || values.isEmpty()) {
            return asked;
        }
        List<String> there = values.stream().filter(v -> !v.state()).map(Shown::id).toList();
        String x = first(there, List.of("engine.speed", "vehicle.speed"), List.of());
        String y = first(there, List.of("engine.load", "pack.current"), List.of(x));
        List<String> telling = new ArrayList<>();
        d.follows().forEach(f -> telling.add(f.actual()));
        d.trims().forEach(t -> telling.add(t.shortTerm()));
        d.cylinders().ifPresent(c -> telling.add(c.deviationOf(1)));
        String z = first(there, telling, List.of(x, y));
        if (asked.kind().equals("overlay")) {
            List<Takes.TakeHead> good = heads.stream().filter(h -> !h.setAside()).toList();
            return good.size() < 2
                    ? asked
                    : asked.with("", "", z, good.get(1).id(), good.get(0).id());
        }
        return z.isEmpty() ? asked : asked.with(x, y, z, asked.before(), asked.after());
    }

    /** The first of the wanted ids that is there, or any other that is not among those taken. */
    private static String first(List<String> there, List<String> wanted, List<String> taken) {
        return Stream.concat(wanted.stream().filter(there::contains), there.stream())
                .filter(v -> !taken.contains(v))
                .findFirst()
                .orElse("");
    }

    private static long or(Long id) {
        return id == null ? -1 : id;
    }

    /** Takes of this vehicle, the newest first. */
    private List<Takes.TakeHead> heads(Job job) {
        return jobs.all().stream()
                .filter(j -> j.vin().equals(job.vin()))
                .flatMap(j -> takes.of(j.id()).stream())
                .filter(t -> t.ended().isPresent())
                .sorted(Comparator.comparing(Takes.TakeHead::id).reversed())
                .toList();
    }

    private static List<Shown> values(List<TakeController.Opened> opened, VehicleDescription d) {
        return opened.stream()
                .flatMap(o -> o.take().columns().keySet().stream())
                .distinct()
                .flatMap(v -> d.value(v).stream())
                .map(v -> Shown.of(d, v))
                .toList();
    }

    private void study(
            Asked asked,
            List<TakeController.Opened> all,
            List<TakeController.Opened> chosen,
            VehicleDescription d,
            long id,
            Model model) {
        switch (asked.kind()) {
            case "scatter" -> {
                if (!asked.x().isEmpty() && !asked.y().isEmpty() && !chosen.isEmpty()) {
                    scatter(asked, chosen, d, model);
                }
            }
            case "overlay" -> {
                if (!asked.z().isEmpty() && asked.before() != null && asked.after() != null) {
                    overlay(asked, all, d, model);
                }
            }
            default -> {
                if (!asked.x().isEmpty() && !asked.y().isEmpty() && !asked.z().isEmpty()) {
                    map(asked, chosen, d, id, model);
                }
            }
        }
    }

    /** The wanted columns in the units in which they are shown, where a condition held. */
    private static Take prepared(
            TakeController.Opened opened, VehicleDescription d, List<String> ids, String when) {
        Map<String, Take.Column> columns = new HashMap<>();
        Optional<Filter> filter = when.isBlank() ? Optional.empty() : Optional.of(parsed(when, d));
        for (String id : ids) {
            Take.Column column = opened.take().columns().get(id);
            if (column == null) {
                throw new IllegalArgumentException(
                        opened.head().name()
                                + " does not hold "
                                + d.value(id).map(Value::name).orElse(id)
                                + "; leave that take out, or add the value to the watch list and record again.");
            }
            Take.Column shown = TakeController.inShownUnit(column, d.value(id));
            columns.put(id, filter.map(f -> where(opened.take(), shown, f)).orElse(shown));
        }
        return new Take(columns, List.of());
    }

    private static Filter parsed(String when, VehicleDescription d) {
        try {
            return FilterParser.parse(when, d.signals());
        } catch (FilterException wrong) {
            throw new IllegalArgumentException(wrong.shownIn(when), wrong);
        }
    }

    private static Take.Column where(Take take, Take.Column column, Filter filter) {
        double[] t = new double[column.size()];
        double[] y = new double[column.size()];
        for (int i = 0; i < t.length; i++) {
            t[i] = column.seconds(i);
        }
        Filter.State[] states = filter.over(take, t);
        for (int i = 0; i < t.length; i++) {
            y[i] = states[i] == Filter.State.HOLDS ? column.value(i) : Double.NaN;
        }
        return new Take.Column(t, y);
    }

    private static Axis axis(String value, String typed, List<double[]> data) {
        if (!typed.isBlank()) {
            return Axis.typed(value, typed);
        }
        return Axis.over(
                value, data.stream().flatMapToDouble(java.util.Arrays::stream).toArray(), CELLS);
    }

    private static OperatingMap map(
            Asked asked, List<TakeController.Opened> chosen, VehicleDescription d) {
        List<OperatingMap.Drive> drives =
                chosen.stream()
                        .map(
                                o ->
                                        OperatingMap.Drive.of(
                                                prepared(
                                                        o,
                                                        d,
                                                        List.of(asked.x(), asked.y(), asked.z()),
                                                        asked.when()),
                                                asked.x(),
                                                asked.y(),
                                                asked.z(),
                                                HOLD_SECONDS))
                        .toList();
        return OperatingMap.of(
                asked.z(),
                axis(
                        asked.x(),
                        asked.xEdges(),
                        drives.stream().map(OperatingMap.Drive::x).toList()),
                axis(
                        asked.y(),
                        asked.yEdges(),
                        drives.stream().map(OperatingMap.Drive::y).toList()),
                drives);
    }

    private void map(
            Asked asked,
            List<TakeController.Opened> chosen,
            VehicleDescription d,
            long id,
            Model model) {
        OperatingMap map = map(asked, chosen, d);
        Optional<OperatingMap> minus =
                kept.maps(id).stream()
                        .filter(k -> String.valueOf(k.id()).equals(asked.minus()))
                        .findFirst()
                        .map(k -> MapCsv.read(new StringReader(k.content())));
        MapView view = MapView.of(map, minus, asked.path(), d);
        model.addAttribute("map", view);
        model.addAttribute("answer", view.sentence());
    }

    private static void scatter(
            Asked asked, List<TakeController.Opened> chosen, VehicleDescription d, Model model) {
        List<String> ids = new ArrayList<>(List.of(asked.x(), asked.y()));
        if (!asked.z().isEmpty()) {
            ids.add(asked.z());
        }
        Scatter scatter =
                Scatter.of(
                        chosen.stream().map(o -> prepared(o, d, ids, asked.when())).toList(),
                        asked.x(),
                        asked.y(),
                        asked.z(),
                        Optional.empty());
        ScatterView view =
                ScatterView.of(scatter, chosen.size(), asked.x(), asked.y(), asked.z(), d);
        model.addAttribute("scatter", view);
        model.addAttribute("answer", view.sentence());
    }

    private static void overlay(
            Asked asked, List<TakeController.Opened> all, VehicleDescription d, Model model) {
        TakeController.Opened before = one(all, asked.before());
        TakeController.Opened after = one(all, asked.after());
        List<String> ids = asked.x().isEmpty() ? List.of(asked.z()) : List.of(asked.z(), asked.x());
        Take a = prepared(before, d, ids, "");
        Take b = prepared(after, d, ids, "");
        Stretch partA = longest(before, d, asked.when());
        Stretch partB = longest(after, d, asked.when());
        double bin = bin(asked, a, partA, b, partB);
        Overlay overlay =
                Overlay.of(a, partA, b, partB, asked.z(), asked.x(), bin)
                        .orElseThrow(
                                () ->
                                        new IllegalArgumentException(
                                                "The two stretches have nothing in common to compare."));
        Value value = d.value(asked.z()).orElseThrow();
        double[] at = overlay.bins().stream().mapToDouble(Overlay.Bin::at).toArray();
        double[] first = overlay.bins().stream().mapToDouble(Overlay.Bin::before).toArray();
        double[] second = overlay.bins().stream().mapToDouble(Overlay.Bin::after).toArray();
        double least = least(first, second);
        double most = most(first, second);
        double room = Math.max(1e-6, (most - least) * 0.08);
        model.addAttribute(
                "overlay",
                Chart.of(
                        asked.x().isEmpty() ? "s" : d.value(asked.x()).map(Value::show).orElse(""),
                        value.show(),
                        least - room,
                        most + room,
                        List.of(
                                new Chart.Series(before.head().name(), at, first),
                                new Chart.Series(after.head().name(), at, second))));
        model.addAttribute(
                "answer",
                String.format(
                        java.util.Locale.ROOT,
                        "%s from %s to %s: changed by %s %s on the mean, at most by %s %s (at %s).",
                        value.name(),
                        before.head().name(),
                        after.head().name(),
                        brightlantern.core.signal.Units.told(overlay.meanDifference()),
                        value.show(),
                        brightlantern.core.signal.Units.told(overlay.mostDifference()),
                        value.show(),
                        brightlantern.core.signal.Units.told(overlay.mostAt())
                                + " "
                                + (asked.x().isEmpty()
                                        ? "s"
                                        : d.value(asked.x()).map(Value::show).orElse(""))));
    }

    private static TakeController.Opened one(List<TakeController.Opened> all, Long id) {
        return all.stream()
                .filter(o -> o.head().id() == id)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("There is no take " + id + "."));
    }

    private static double least(double[]... all) {
        return java.util.Arrays.stream(all)
                .flatMapToDouble(java.util.Arrays::stream)
                .filter(Double::isFinite)
                .min()
                .orElse(0);
    }

    private static double most(double[]... all) {
        return java.util.Arrays.stream(all)
                .flatMapToDouble(java.util.Arrays::stream)
                .filter(Double::isFinite)
                .max()
                .orElse(1);
    }

    private static double bin(Asked asked, Take a, Stretch partA, Take b, Stretch partB) {
        if (asked.x().isEmpty()) {
            return Math.max(0.1, Math.max(partA.seconds(), partB.seconds()) / OVERLAY_BINS);
        }
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (Map.Entry<Take, Stretch> part : Map.of(a, partA, b, partB).entrySet()) {
            Take.Column column = part.getKey().columns().get(asked.x());
            for (int i = 0; i < column.size(); i++) {
                double t = column.seconds(i);
                if (t >= part.getValue().from()
                        && t <= part.getValue().to()
                        && Double.isFinite(column.value(i))) {
                    least = Math.min(least, column.value(i));
                    most = Math.max(most, column.value(i));
                }
            }
        }
        return Math.max(1e-6, (most - least) / OVERLAY_BINS);
    }

    /** The longest stretch in which a condition held; the whole take without one. */
    private static Stretch longest(
            TakeController.Opened opened, VehicleDescription d, String when) {
        if (when.isBlank()) {
            return new Stretch(0, opened.take().lengthSeconds());
        }
        Filter filter = parsed(when, d);
        Take.Column clock =
                filter.values().stream()
                        .map(v -> opened.take().columns().get(v))
                        .filter(c -> c != null)
                        .max(Comparator.comparingInt(Take.Column::size))
                        .orElseThrow(
                                () ->
                                        new IllegalArgumentException(
                                                opened.head().name()
                                                        + " holds none of the values of the condition."));
        return Stretch.find(opened.take(), filter, clock, BRIDGE_SECONDS).stream()
                .max(Comparator.comparingDouble(Stretch::seconds))
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "The condition never held in "
                                                + opened.head().name()
                                                + "."));
    }

    /** The newest map as CSV. */
    @GetMapping("/map.csv")
    void csv(@PathVariable("id") long id, Asked asked, HttpServletResponse response)
            throws IOException {
        response.setContentType("text/csv; charset=utf-8");
        response.setHeader(
                "Content-Disposition", "attachment; filename=\"job-" + id + "-map.csv\"");
        MapCsv.write(
                computed(id, asked),
                new OutputStreamWriter(response.getOutputStream(), StandardCharsets.UTF_8));
    }

    private OperatingMap computed(long id, Asked asked) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        List<TakeController.Opened> chosen = new ArrayList<>();
        for (Takes.TakeHead head : heads(context.job())) {
            if (asked.take().contains(head.id())) {
                d = d.withValues(takes.own(head.id()));
                chosen.add(new TakeController.Opened(head, takes.ended(head), d));
            }
        }
        return map(asked, chosen, d);
    }

    @PostMapping("/keep")
    String keep(
            @PathVariable("id") long id,
            Asked asked,
            @RequestParam("name") String name,
            RedirectAttributes flash) {
        StringWriter out = new StringWriter();
        MapCsv.write(computed(id, asked), out);
        kept.keepMap(id, name.isBlank() ? "map" : name.trim(), out.toString());
        flash.addFlashAttribute(
                "notice", "The map was kept; another one can be subtracted from it.");
        return "redirect:/jobs/" + id + "/watch/studies";
    }

    /** A map from a file, to be compared with. */
    @PostMapping("/bring")
    String bring(
            @PathVariable("id") long id,
            @RequestParam("file") MultipartFile file,
            RedirectAttributes flash)
            throws IOException {
        byte[] bytes = file.getBytes();
        try {
            MapCsv.read(
                    new InputStreamReader(
                            new java.io.ByteArrayInputStream(bytes), StandardCharsets.UTF_8));
            kept.keepMap(
                    id,
                    Optional.ofNullable(file.getOriginalFilename()).orElse("map"),
                    new String(bytes, StandardCharsets.UTF_8));
            flash.addFlashAttribute("notice", "The map was brought in.");
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute(
                    "error", file.getOriginalFilename() + ": " + wrong.getMessage());
        }
        return "redirect:/jobs/" + id + "/watch/studies";
    }

    /** Keeps what a study says, as the technician reads it. */
    @PostMapping("/finding")
    String finding(
            @PathVariable("id") long id,
            @RequestParam("text") String text,
            @RequestParam("verdict") String verdict,
            @RequestParam(name = "speaks", defaultValue = "") String speaks,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        String[] parts = speaks.split("\\|");
        Optional<Evidence> evidence =
                parts.length == 2
                                && context.description().finding(parts[0]).stream()
                                        .flatMap(f -> f.outcomes().stream())
                                        .anyMatch(o -> o.id().equals(parts[1]))
                        ? Optional.of(new Evidence.Outcome(parts[0], parts[1]))
                        : Optional.empty();
        Map<String, Boolean> passed = new LinkedHashMap<>();
        passed.put("holds", true);
        passed.put("fails", false);
        findings.add(
                id,
                "watch",
                who.getName(),
                text.substring(0, Math.min(800, text.length())),
                Optional.ofNullable(passed.get(verdict)),
                evidence,
                null,
                "study");
        flash.addFlashAttribute("notice", "Kept among the findings of this job.");
        return "redirect:/jobs/" + id + "/watch/studies";
    }
}
