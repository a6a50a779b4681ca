package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Json;
import brightlantern.app.job.Takes;
import brightlantern.app.page.Chart;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.study.target.Follow;
import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * What stayed behind its target before a repair, and the same after it, as curves over the stretch
 * in which it was judged.
 */
@Component
class Curves {
    private final Findings findings;
    private final Takes takes;
    private final Json json;

    Curves(Findings findings, Takes takes, Json json) {
        this.findings = findings;
        this.takes = takes;
        this.json = json;
    }

    /** One picture, and what it shows in words. */
    record Curve(String title, Chart chart) {}

    /** A stretch that was judged, with what was recorded in it. */
    private record Judged(Takes.TakeHead head, TargetStudy.Verdict verdict, Take take) {}

    /**
     * @param repaired when it was; after everything when nothing was repaired
     */
    List<Curve> of(JobPages.Context context, Instant repaired) {
        List<Curve> curves = new ArrayList<>();
        for (Follow follow : context.description().follows()) {
            List<Findings.Finding> told =
                    findings.of(context.job().id()).stream()
                            .filter(f -> isOf(f, follow) && !f.detail().isEmpty())
                            .toList();
            Optional<Judged> before =
                    newest(told.stream().filter(f -> f.at().isBefore(repaired)))
                            .filter(f -> !f.passed().orElse(true))
                            .flatMap(f -> judged(context, f));
            if (before.isPresent()) {
                Optional<Judged> after =
                        newest(told.stream().filter(f -> !f.at().isBefore(repaired)))
                                .flatMap(f -> judged(context, f));
                curves.addAll(drawn(context.description(), follow, before.get(), after));
            }
        }
        return curves;
    }

    private static boolean isOf(Findings.Finding f, Follow follow) {
        return f.evidence().orElse(null) instanceof Evidence.Outcome o
                && o.findingId().equals(follow.finding())
                && f.stage().equals("watch");
    }

    private static Optional<Findings.Finding> newest(Stream<Findings.Finding> told) {
        return told.reduce((older, newer) -> newer);
    }

    /** The take that was judged is the last that had ended by then. */
    private Optional<Judged> judged(JobPages.Context context, Findings.Finding f) {
        return takes.of(context.job().id()).stream()
                .filter(t -> t.ended().map(e -> !e.isAfter(f.at())).orElse(false))
                .max(Comparator.comparing(t -> t.ended().orElseThrow()))
                .map(
                        t ->
                                new Judged(
                                        t,
                                        json.read(f.detail(), TargetStudy.Verdict.class),
                                        takes.ended(t)));
    }

    private static List<Curve> drawn(
            VehicleDescription d, Follow follow, Judged before, Optional<Judged> after) {
        List<Judged> all = Stream.concat(Stream.of(before), after.stream()).toList();
        double[] figures =
                all.stream()
                        .flatMap(
                                j ->
                                        Stream.of(follow.target(), follow.actual())
                                                .map(v -> points(d, j, v)))
                        .flatMapToDouble(p -> DoubleStream.of(p[1]))
                        .filter(Double::isFinite)
                        .toArray();
        double most = DoubleStream.of(figures).max().orElse(1);
        double least = DoubleStream.of(figures).min().orElse(0);
        double room = Math.max(1e-6, (most - least) * 0.08);
        return all.stream()
                .map(
                        j ->
                                new Curve(
                                        String.format(
                                                Locale.ROOT,
                                                "%s, %s the repair (%s): worst %s %s behind its target",
                                                name(d, follow.actual()),
                                                j == before ? "before" : "after",
                                                j.head().name(),
                                                Units.told(Math.max(0, j.verdict().worst())),
                                                j.verdict().unit()),
                                        Chart.of(
                                                "s",
                                                j.verdict().unit(),
                                                least - room,
                                                most + room,
                                                List.of(
                                                        series(d, j, follow.target()),
                                                        series(d, j, follow.actual())))))
                .toList();
    }

    private static String name(VehicleDescription d, String value) {
        return d.value(value).map(Value::name).orElse(value);
    }

    private static Chart.Series series(VehicleDescription d, Judged j, String value) {
        double[][] points = points(d, j, value);
        return new Chart.Series(name(d, value), points[0], points[1]);
    }

    /** Seconds since the stretch began, and the value in the unit of the verdict. */
    private static double[][] points(VehicleDescription d, Judged j, String value) {
        Take.Column column = j.take().columns().get(value);
        Optional<Value> described = d.value(value);
        if (column == null || described.isEmpty()) {
            return new double[2][0];
        }
        List<double[]> points = new ArrayList<>();
        for (int i = 0; i < column.size(); i++) {
            double t = column.seconds(i);
            if (t >= j.verdict().fromSeconds() && t <= j.verdict().toSeconds()) {
                points.add(
                        new double[] {
                            t - j.verdict().fromSeconds(),
                            Units.convert(
                                    column.value(i), described.get().unit(), j.verdict().unit())
                        });
            }
        }
        return new double[][] {
            points.stream().mapToDouble(p -> p[0]).toArray(),
            points.stream().mapToDouble(p -> p[1]).toArray()
        };
    }
}
