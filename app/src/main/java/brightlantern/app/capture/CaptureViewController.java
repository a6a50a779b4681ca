package brightlantern.app.capture;

import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureStudy;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.PressureStudy;
import brightlantern.core.capture.ToothStudy;
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
            Model model) {
        JobPages.Context context = pages.fill(id, "probe", model);
        Captures.Opened opened = opened(id, captureId);
        model.addAttribute(
                "view",
                CaptureView.of(
                        opened,
                        judge.read(opened, context.job(), context.description()),
                        captures.of(id).stream().filter(h -> h.id() != captureId).toList(),
                        beside));
        model.addAttribute("beside", beside);
        model.addAttribute("marks", marks.of(captureId));
        return "capture/capture";
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
        Captures.Opened opened = opened(id, captureId);
        Capture capture = opened.capture();
        int last = capture.length();
        int begin = sample(from, capture, 0, last - 1);
        int end = to < 0 ? last : sample(to, capture, begin + 1, last);
        int width = Math.max(1, Math.min(columns, MOST_COLUMNS));
        List<Map<String, Object>> lanes = new ArrayList<>();
        for (int i = 0; i < capture.lanes().size(); i++) {
            Lane lane = capture.lanes().get(i);
            String unit = units.unit(lane.unit());
            short[] extents = opened.extents().get(i).of(begin, end, width);
            lanes.add(
                    Map.of(
                            "name", lane.name(),
                            "unit", unit,
                            "aside", lane.role() == LaneRole.OWN_FIGURE,
                            "scale", Units.convertDifference(lane.scale(), lane.unit(), unit),
                            "offset", Units.convert(lane.offset(), lane.unit(), unit),
                            "extents", numbers(extents)));
        }
        Map<String, Object> all = new LinkedHashMap<>();
        all.put("from", begin * capture.interval());
        all.put("to", end * capture.interval());
        all.put("length", capture.seconds());
        all.put("lanes", lanes);
        all.put("marks", marks.of(captureId));
        Optional<Cylinders> cylinders = context.description().cylinders();
        boolean byFiring = capture.lane(LaneRole.FIRST_CYLINDER).isPresent();
        all.put(
                "cycles",
                byFiring
                        ? CrankingStudy.cycles(capture)
                        : cylinders.map(c -> cycles(capture, c)).orElse(List.of()));
        all.put("order", cylinders.map(Cylinders::order).orElse(List.of()));
        all.put("firesBefore", byFiring ? CaptureStudy.FIRES_BEFORE : 0);
        return all;
    }

    private static List<double[]> cycles(Capture capture, Cylinders its) {
        return capture.lane(LaneRole.CYLINDER).isPresent()
                ? new PressureStudy(its).cycles(capture)
                : ToothStudy.cycles(capture, its);
    }

    private static int[] numbers(short[] steps) {
        int[] all = new int[steps.length];
        Arrays.setAll(all, i -> steps[i]);
        return all;
    }

    private static int sample(double seconds, Capture capture, int least, int most) {
        double at = seconds / capture.interval();
        return (int) Math.max(least, Math.min(most, Double.isNaN(at) ? least : Math.round(at)));
    }
}
