package brightlantern.app.capture;

import brightlantern.app.page.UnitChoices;
import brightlantern.core.capture.CaptureAlignment;
import brightlantern.core.capture.EngineCycles;
import brightlantern.core.capture.Extents;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.signal.Units;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * What a picture of a part of a capture shows: least and most of each column of each lane, and the
 * cycles of the engine within.
 */
@Component
class CapturePictures {
    private static final int MOST_COLUMNS = 4000;

    private final UnitChoices units;
    private final CaptureMarks marks;
    private final LiveLanes live;

    CapturePictures(UnitChoices units, CaptureMarks marks, LiveLanes live) {
        this.units = units;
        this.marks = marks;
        this.live = live;
    }

    /**
     * @param from and to: seconds; a {@code to} below zero is the end
     */
    record Part(double from, double to, int columns) {
        Part {
            columns = Math.max(1, Math.min(columns, MOST_COLUMNS));
        }
    }

    /** Of one that is being recorded, as far as it has come. */
    Map<String, Object> growing(Captures.Head head, List<Extents> lanes, Part part) {
        Map<String, Object> all = lanes(head, lanes, part);
        all.put("going", true);
        all.put("cycles", List.of());
        all.put("order", List.of());
        all.put("firesBefore", 0);
        return all;
    }

    /** Of one that has ended, with what a take recorded at the same time. */
    Map<String, Object> of(Captures.Opened opened, VehicleDescription description, Part part) {
        Captures.Head head = opened.head();
        Map<String, Object> all = lanes(head, opened.extents(), part);
        @SuppressWarnings("unchecked")
        List<Map<String, Object>> lanes = (List<Map<String, Object>>) all.get("lanes");
        lanes.addAll(
                live.of(
                        head,
                        description,
                        opened.capture().seconds(),
                        (double) all.get("from"),
                        (double) all.get("to"),
                        part.columns()));
        Optional<Cylinders> its = description.cylinders();
        EngineCycles cycles = opened.cycles(its);
        all.put("going", false);
        all.put("cycles", cycles.all());
        all.put("order", its.map(Cylinders::order).orElse(List.of()));
        all.put("firesBefore", cycles.firesBefore());
        return all;
    }

    /** Of a second one in the columns of a picture of the first. */
    Map<String, Object> under(
            Captures.Opened first, Captures.Opened second, CaptureAlignment laid, Part part) {
        double end = part.to() < 0 ? first.capture().seconds() : part.to();
        List<Map<String, Object>> lanes = new ArrayList<>();
        for (int i = 0; i < second.extents().size(); i++) {
            lanes.add(
                    lane(
                            second.head().lanes().get(i),
                            laid.columns(
                                    second.extents().get(i),
                                    second.capture().interval(),
                                    part.from(),
                                    end,
                                    part.columns())));
        }
        return Map.of("from", part.from(), "to", end, "lanes", lanes, "told", laid.words());
    }

    private Map<String, Object> lanes(Captures.Head head, List<Extents> extents, Part part) {
        Map<String, Object> all = new LinkedHashMap<>();
        int length = extents.stream().mapToInt(Extents::length).min().orElse(0);
        int begin = sample(part.from(), head, 0, Math.max(0, length - 1));
        int end =
                part.to() < 0
                        ? length
                        : sample(part.to(), head, Math.min(length, begin + 1), length);
        all.put("from", begin * head.interval());
        all.put("to", end * head.interval());
        all.put("length", length * head.interval());
        List<Map<String, Object>> lanes = new ArrayList<>();
        for (int i = 0; i < extents.size() && begin < end; i++) {
            short[] its = extents.get(i).of(begin, end, part.columns());
            lanes.add(lane(head.lanes().get(i), numbers(its)));
        }
        all.put("lanes", lanes);
        all.put("marks", marks.of(head.id()));
        return all;
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
