package brightlantern.app.watch;

import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Span;
import brightlantern.core.take.Take;
import brightlantern.core.take.Thinned;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** What the drawings of a take show. */
@Controller
@RequestMapping("/jobs/{id}/watch/takes/{take}")
class TakeDataController {
    /** So many slices of time make a picture that fills a screen. */
    private static final int SLICES = 700;

    private final JobPages pages;
    private final Takes takes;

    TakeDataController(JobPages pages, Takes takes) {
        this.pages = pages;
        this.takes = takes;
    }

    /**
     * Samples of a part of the take, thinned to what a picture of it can show, with room to either
     * side for a hand that moves it; and what every value comes to in the part itself.
     */
    @GetMapping("/data")
    @ResponseBody
    Map<String, Object> data(
            @PathVariable("id") long id,
            @PathVariable("take") long takeId,
            @RequestParam(name = "from", defaultValue = "0") double from,
            @RequestParam(name = "to", defaultValue = "-1") double to) {
        OpenedTake.Opened opened = OpenedTake.open(takes, pages.context(id), takeId);
        Take take = opened.take();
        double length = take.lengthSeconds();
        double until = to < 0 || Double.isNaN(to) ? length : Math.min(to, length);
        double since = Math.max(0, Math.min(from, until));
        double room = (until - since) / 2;
        List<Map<String, Object>> series = new ArrayList<>();
        take.columns()
                .forEach(
                        (v, column) ->
                                opened.description()
                                        .value(v)
                                        .ifPresent(
                                                value ->
                                                        series.add(
                                                                series(
                                                                        opened.description(),
                                                                        value,
                                                                        column,
                                                                        Thinned.of(
                                                                                column,
                                                                                Math.max(
                                                                                        0,
                                                                                        since
                                                                                                - room),
                                                                                Math.min(
                                                                                        length,
                                                                                        until
                                                                                                + room),
                                                                                SLICES),
                                                                        since,
                                                                        until))));
        return Map.of("series", series, "marks", take.marks(), "length", length);
    }

    private static Map<String, Object> series(
            VehicleDescription d,
            Value value,
            Take.Column column,
            Thinned thinned,
            double from,
            double to) {
        double[] t = thinned.seconds();
        Span seen = Span.of(column, from, to);
        return Map.of(
                "value",
                Shown.of(d, value),
                "t",
                t,
                "y",
                Arrays.stream(thinned.values()).mapToObj(v -> finite(value, v)).toArray(),
                "seen",
                Stream.of(seen.least(), seen.mean(), seen.most())
                        .map(v -> finite(value, v))
                        .toArray());
    }

    /** In the unit in which it is shown; null for what is no number, which JSON does not have. */
    private static Double finite(Value value, double raw) {
        double v = Scaling.shown(value, raw);
        return Double.isFinite(v) ? v : null;
    }
}
