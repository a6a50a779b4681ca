package brightlantern.app.watch;

import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Takes;
import brightlantern.app.page.Chart;
import brightlantern.app.page.JobPages;
import brightlantern.core.filter.Filter;
import brightlantern.core.filter.FilterException;
import brightlantern.core.filter.FilterParser;
import brightlantern.core.filter.Stretch;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.study.map.Axis;
import brightlantern.core.study.map.MapCsv;
import brightlantern.core.study.map.OperatingMap;
import brightlantern.core.study.overlay.Overlay;
import brightlantern.core.study.scatter.Scatter;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Makes the study that a page asks for: its map, scatter or overlay, from the takes chosen. */
@Component
class StudyMaker {
    /** A value older than this is not taken for present, s. */
    private static final double HOLD_SECONDS = 1;

    private static final int CELLS = 8;
    private static final double BRIDGE_SECONDS = 0.8;
    private static final int OVERLAY_BINS = 60;

    private final JobPages pages;
    private final Jobs jobs;
    private final Takes takes;
    private final KeptStudies kept;

    StudyMaker(JobPages pages, Jobs jobs, Takes takes, KeptStudies kept) {
        this.pages = pages;
        this.jobs = jobs;
        this.takes = takes;
        this.kept = kept;
    }

    /** Takes of this vehicle, the newest first. */
    List<Takes.TakeHead> heads(Job job) {
        return jobs.all().stream()
                .filter(j -> j.vin().equals(job.vin()))
                .flatMap(j -> takes.of(j.id()).stream())
                .filter(t -> t.ended().isPresent())
                .sorted(Comparator.comparing(Takes.TakeHead::id).reversed())
                .toList();
    }

    void study(
            StudyController.Asked asked,
            List<OpenedTake.Opened> all,
            List<OpenedTake.Opened> chosen,
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
            OpenedTake.Opened opened, VehicleDescription d, List<String> ids, String when) {
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
            Take.Column shown = TakeReactions.inShownUnit(column, d.value(id));
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

    static Take.Column where(Take take, Take.Column column, Filter filter) {
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
        return Axis.over(value, data.stream().flatMapToDouble(Arrays::stream).toArray(), CELLS);
    }

    static OperatingMap map(
            StudyController.Asked asked, List<OpenedTake.Opened> chosen, VehicleDescription d) {
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

    void map(
            StudyController.Asked asked,
            List<OpenedTake.Opened> chosen,
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
            StudyController.Asked asked,
            List<OpenedTake.Opened> chosen,
            VehicleDescription d,
            Model model) {
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

    static void overlay(
            StudyController.Asked asked,
            List<OpenedTake.Opened> all,
            VehicleDescription d,
            Model model) {
        OpenedTake.Opened before = one(all, asked.before());
        OpenedTake.Opened after = one(all, asked.after());
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
                        Locale.ROOT,
                        "%s from %s to %s: changed by %s %s on the mean, at most by %s %s (at %s).",
                        value.name(),
                        before.head().name(),
                        after.head().name(),
                        Units.told(overlay.meanDifference()),
                        value.show(),
                        Units.told(overlay.mostDifference()),
                        value.show(),
                        Units.told(overlay.mostAt())
                                + " "
                                + (asked.x().isEmpty()
                                        ? "s"
                                        : d.value(asked.x()).map(Value::show).orElse(""))));
    }

    static OpenedTake.Opened one(List<OpenedTake.Opened> all, Long id) {
        return all.stream()
                .filter(o -> o.head().id() == id)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("There is no take " + id + "."));
    }

    private static double least(double[]... all) {
        return Arrays.stream(all)
                .flatMapToDouble(Arrays::stream)
                .filter(Double::isFinite)
                .min()
                .orElse(0);
    }

    private static double most(double[]... all) {
        return Arrays.stream(all)
                .flatMapToDouble(Arrays::stream)
                .filter(Double::isFinite)
                .max()
                .orElse(1);
    }

    private static double bin(
            StudyController.Asked asked, Take a, Stretch partA, Take b, Stretch partB) {
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
    private static Stretch longest(OpenedTake.Opened opened, VehicleDescription d, String when) {
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

    OperatingMap computed(long id, StudyController.Asked asked) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        List<OpenedTake.Opened> chosen = new ArrayList<>();
        for (Takes.TakeHead head : heads(context.job())) {
            if (asked.take().contains(head.id())) {
                d = d.withValues(takes.own(head.id()));
                chosen.add(new OpenedTake.Opened(head, takes.ended(head), d));
            }
        }
        return map(asked, chosen, d);
    }
}
