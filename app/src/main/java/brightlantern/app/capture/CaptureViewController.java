package brightlantern.app.capture;

import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.capture.CaptureAlignment;
import brightlantern.core.capture.EngineCycles;
import brightlantern.core.capture.Extents;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.signal.Units;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;

/** One capture: its lanes, and what is read in them. */
@Controller
@RequestMapping("/jobs/{id}/probe/captures/{capture}")
class CaptureViewController {
    private static final int MOST_COLUMNS = 4000;

    private final JobPages pages;
    private final Captures captures;
    private final CaptureJudge judge;
    private final UnitChoices units;
    private final CaptureMarks marks;

    CaptureViewController(
            JobPages pages,
            Captures captures,
            CaptureJudge judge,
            UnitChoices units,
            CaptureMarks marks) {
        this.pages = pages;
        this.captures = captures;
        this.judge = judge;
        this.units = units;
        this.marks = marks;
    }

    private Captures.Head head(long jobId, long captureId) {
        return JobPages.found(captures.head(jobId, captureId), "capture", captureId);
    }

    private Captures.Opened opened(long jobId, long captureId) {
        return JobPages.found(
                captures.open(head(jobId, captureId)), "sample in capture", captureId);
    }

    @GetMapping
    String page(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @RequestParam(name = "beside", defaultValue = "0") long beside,
            @RequestParam(name = "by", defaultValue = "START") CaptureAlignment.By by,
            @RequestParam(name = "moved", defaultValue = "0") double moved,
            Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        model.addAttribute("view", view(context, captureId, beside));
        model.addAttribute("beside", beside);
        model.addAttribute("by", by);
        model.addAttribute("moved", moved);
        model.addAttribute("marks", marks.of(captureId));
        return "capture/capture";
    }

    private CaptureView view(JobPages.Context context, long captureId, long beside) {
        long jobId = context.job().id();
        if (captures.growing(captureId).isPresent()) {
            return CaptureView.growing(head(jobId, captureId));
        }
        Captures.Opened opened = opened(jobId, captureId);
        return CaptureView.of(
                opened,
                judge.read(opened, context.job(), context.description()),
                captures.of(jobId).stream()
                        .filter(h -> h.id() != captureId && !h.setAside())
                        .toList(),
                beside);
    }

    /**
     * What a picture of a part of it shows: least and most of each column, and the cycles of the
     * engine within.
     *
     * @param from and to: seconds; a {@code to} below zero is the end
     */
    @GetMapping("/picture")
    @ResponseBody
    Map<String, Object> picture(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @RequestParam(name = "from", defaultValue = "0") double from,
            @RequestParam(name = "to", defaultValue = "-1") double to,
            @RequestParam(name = "columns", defaultValue = "1000") int columns) {
        JobPages.Context context = pages.context(id);
        int width = Math.max(1, Math.min(columns, MOST_COLUMNS));
        Optional<List<Extents>> growing = captures.growing(captureId);
        Captures.Head head = head(id, captureId);
        Optional<Captures.Opened> opened =
                growing.isPresent() ? Optional.empty() : Optional.of(opened(id, captureId));
        List<Extents> extents = growing.orElseGet(() -> opened.orElseThrow().extents());
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("going", growing.isPresent());
        int length = extents.stream().mapToInt(Extents::length).min().orElse(0);
        int begin = sample(from, head, 0, Math.max(0, length - 1));
        int end = to < 0 ? length : sample(to, head, Math.min(length, begin + 1), length);
        all.put("from", begin * head.interval());
        all.put("to", end * head.interval());
        all.put("length", length * head.interval());
        List<Map<String, Object>> lanes = new ArrayList<>();
        for (int i = 0; i < extents.size() && begin < end; i++) {
            lanes.add(lane(head.lanes().get(i), numbers(extents.get(i).of(begin, end, width))));
        }
        all.put("lanes", lanes);
        all.put("marks", marks.of(captureId));
        Optional<Cylinders> its = context.description().cylinders();
        EngineCycles cycles = opened.map(o -> o.cycles(its)).orElse(EngineCycles.NONE);
        all.put("cycles", cycles.all());
        all.put("order", its.map(Cylinders::order).orElse(List.of()));
        all.put("firesBefore", cycles.firesBefore());
        return all;
    }

    /**
     * What another capture shows in the columns of a picture of this one.
     *
     * @param from and to: seconds of this one; a {@code to} below zero is its end
     * @param moved milliseconds by which the other one is moved to the right besides
     */
    @GetMapping("/under/{other}")
    @ResponseBody
    Map<String, Object> under(
            @PathVariable("id") long id,
            @PathVariable("capture") long captureId,
            @PathVariable("other") long otherId,
            @RequestParam(name = "by", defaultValue = "START") CaptureAlignment.By by,
            @RequestParam(name = "moved", defaultValue = "0") double moved,
            @RequestParam(name = "from", defaultValue = "0") double from,
            @RequestParam(name = "to", defaultValue = "-1") double to,
            @RequestParam(name = "columns", defaultValue = "1000") int columns) {
        Optional<Cylinders> its = pages.context(id).description().cylinders();
        Captures.Opened first = opened(id, captureId);
        Captures.Opened second = opened(id, otherId);
        int width = Math.max(1, Math.min(columns, MOST_COLUMNS));
        double end = to < 0 ? first.capture().seconds() : to;
        CaptureAlignment laid = first.laid(by, second, its, moved / 1000);
        List<Map<String, Object>> lanes = new ArrayList<>();
        for (int i = 0; i < second.extents().size(); i++) {
            lanes.add(
                    lane(
                            second.head().lanes().get(i),
                            laid.columns(
                                    second.extents().get(i),
                                    second.capture().interval(),
                                    from,
                                    end,
                                    width)));
        }
        return Map.of("from", from, "to", end, "lanes", lanes, "told", laid.words());
    }

    private Map<String, Object> lane(Captures.LaneHead lane, Object extents) {
        String unit = units.unit(lane.unit());
        return Map.of(
                "name",
                lane.name(),
                "unit",
                unit,
                "aside",
                lane.role() == LaneRole.OWN_FIGURE,
                "scale",
                Units.convertDifference(lane.scale(), lane.unit(), unit),
                "offset",
                Units.convert(lane.offset(), lane.unit(), unit),
                "extents",
                extents);
    }

    private static int[] numbers(short[] steps) {
        int[] all = new int[steps.length];
        Arrays.setAll(all, i -> steps[i]);
        return all;
    }

    private static int sample(double seconds, Captures.Head head, int least, int most) {
        double at = seconds / head.interval();
        return (int) Math.max(least, Math.min(most, Double.isNaN(at) ? least : Math.round(at)));
    }
}
