package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/** A circuit sheet; voltages count from battery minus. */
public record Circuit(
        String id,
        String name,
        List<ProbePoint> points,
        List<Segment> segments,
        List<MotorPart> motors) {
    public Circuit {
        points = OrEmpty.list(points);
        segments = OrEmpty.list(segments);
        motors = OrEmpty.list(motors);
    }

    public ProbePoint point(String pointId) {
        return points.stream().filter(p -> p.id().equals(pointId)).findFirst().orElseThrow();
    }

    public Segment segment(String segmentId) {
        return segments.stream().filter(s -> s.id().equals(segmentId)).findFirst().orElseThrow();
    }
}
