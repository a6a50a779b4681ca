package brightlantern.core.circuit;

/**
 * What joins two points.
 *
 * @param kind wire, fuse, relay, splice, contact or earth
 * @param ohm resistance when healthy
 */
public record Segment(String id, String name, String kind, String from, String to, double ohm) {}
