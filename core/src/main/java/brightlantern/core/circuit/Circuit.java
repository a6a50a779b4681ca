package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** A circuit sheet; voltages count from battery minus. */
public record Circuit(
        String id,
        String name,
        String system,
        List<ProbePoint> points,
        List<Segment> segments,
        List<MotorPart> motors,
        List<Consumer> consumers,
        List<Source> sources,
        List<Divider> dividers,
        List<Setting> settings,
        List<Gauge> gauges) {
    /** The battery poles, which every circuit has. */
    public static final String PLUS = "BAT+";

    public static final String MINUS = "BAT-";

    public Circuit {
        points = OrEmpty.list(points);
        segments = OrEmpty.list(segments);
        motors = OrEmpty.list(motors);
        system = OrEmpty.text(system);
        consumers = OrEmpty.list(consumers);
        sources = OrEmpty.list(sources);
        dividers = OrEmpty.list(dividers);
        settings = OrEmpty.list(settings);
        gauges = OrEmpty.list(gauges);
    }

    /**
     * @throws java.util.NoSuchElementException when it has no such point
     */
    public ProbePoint point(String pointId) {
        return points.stream().filter(p -> p.id().equals(pointId)).findFirst().orElseThrow();
    }

    /**
     * @throws java.util.NoSuchElementException when it has no such segment
     */
    public Segment segment(String segmentId) {
        return segments.stream().filter(s -> s.id().equals(segmentId)).findFirst().orElseThrow();
    }

    /** All parts that carry current. */
    public List<Component> components() {
        return Stream.of(segments, motors, consumers, sources, dividers)
                .flatMap(List::stream)
                .<Component>map(c -> c)
                .toList();
    }

    /** The part of an id, if it has one. */
    public Optional<Component> component(String partId) {
        return components().stream().filter(c -> c.id().equals(partId)).findFirst();
    }

    /** The setting of an id, if it has one. */
    public Optional<Setting> setting(String settingId) {
        return settings.stream().filter(s -> s.id().equals(settingId)).findFirst();
    }

    /**
     * @throws java.util.NoSuchElementException when it has no such motor
     */
    public MotorPart motor(String motorId) {
        return motors.stream().filter(m -> m.id().equals(motorId)).findFirst().orElseThrow();
    }

    /** Whether it feeds control modules, and nothing else. */
    public boolean feedsModules() {
        return !consumers.isEmpty()
                && consumers.stream().allMatch(c -> c.kind() == ConsumerKind.MODULE);
    }

    /** The battery pole to which a load at a point is hung. */
    public String otherPole(String pointId) {
        return point(pointId).side().equals("earth") ? PLUS : MINUS;
    }

    /** The battery pole to which something on a point leads. */
    String poleOf(String pointId, Load load) {
        return load == Load.LEAD ? PLUS : otherPole(pointId);
    }

    /** A point that a probe can touch. */
    public Optional<ProbePoint> probe(String pointId) {
        return points.stream().filter(p -> p.id().equals(pointId) && p.canBeProbed()).findFirst();
    }

    /**
     * @throws IllegalStateException when none of its points can be touched
     */
    public ProbePoint firstProbe() {
        return points.stream()
                .filter(ProbePoint::canBeProbed)
                .findFirst()
                .orElseThrow(
                        () -> new IllegalStateException("No point of " + name + " can be touched"));
    }
}
