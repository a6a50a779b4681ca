package brightlantern.core.circuit;

import brightlantern.core.signal.Value;
import java.util.Map;
import java.util.Optional;

/**
 * How a sensor's signal follows what it feels: straight from either end of its range to the share
 * at which it rests.
 *
 * @param sensor id of the part
 * @param least and most figures of its range, in the value's own unit
 * @param rest figure at which it is as it is drawn
 * @param share of the reference at rest
 * @param falls whether the share is largest where the figure is least
 * @param pull ohms of the bias that a sensor of two wires pulls down; 0 for one of three wires
 */
public record Characteristic(
        String sensor,
        double least,
        double most,
        double rest,
        double share,
        boolean falls,
        double pull) {
    /** Within these no healthy signal is at an end. */
    private static final double LOWEST = 0.05;

    private static final double HIGHEST = 0.95;

    /** Nearer to an end of its range than this share of it there is nothing between. */
    private static final double NEAR = 0.01;

    /**
     * That of the sensor which a gauge tells of.
     *
     * @param v the live value that tells it
     * @return nothing where the gauge tells of no sensor with a bias or a share
     */
    public static Optional<Characteristic> of(Circuit circuit, Gauge g, Value v) {
        Component part = circuit.component(g.part()).orElse(null);
        if (part instanceof Divider d) {
            return Optional.of(of(g, v, d.share(), 0));
        }
        double pull =
                circuit.sources().stream()
                        .filter(s -> s.id().equals(g.scale().input()))
                        .mapToDouble(Source::ohm)
                        .findFirst()
                        .orElse(0);
        return part instanceof Consumer c && pull > 0
                ? Optional.of(of(g, v, c.ohm() / (c.ohm() + pull), pull))
                : Optional.empty();
    }

    private static Characteristic of(Gauge g, Value v, double share, double pull) {
        return new Characteristic(
                g.part(), v.offset(), g.most(v), g.scale().rest(), share, g.scale().falls(), pull);
    }

    /** Share of the reference at a figure; a healthy sensor comes near no end. */
    public double shareAt(double figure) {
        double held = Math.max(least, Math.min(most, figure));
        boolean up = held >= rest;
        double end = up ? most : least;
        double way = isEnd(end) ? 0 : (held - rest) / (end - rest);
        return share + (endShare(up) - share) * way;
    }

    /** The figure that a module makes of a share; the ends of its range beyond them. */
    public double figureAt(double its) {
        boolean up = its > share != falls;
        double end = up ? most : least;
        if (isEnd(end)) {
            return rest;
        }
        double way = (its - share) / (endShare(up) - share);
        return rest + (end - rest) * Math.min(1, way);
    }

    /**
     * What must arrive at the module for it to tell this: at an end of the range all or nothing.
     */
    public double arrives(double told) {
        double near = NEAR * (most - least);
        boolean bottom = told <= least + near;
        return bottom || told >= most - near ? (bottom == falls ? 1 : 0) : shareAt(told);
    }

    /** So many times its ohms, or its share, at rest. */
    public double timesAt(double its) {
        return pull > 0 ? its / (1 - its) * (1 - share) / share : its / share;
    }

    /** What makes it tell a share, as a state of its circuit has it. */
    public Map<String, Double> at(double its) {
        return Map.of(sensor, timesAt(its));
    }

    /** The share that a module's figure lets one know of, which tells no more beyond an end. */
    public double seen(double its) {
        return shareAt(figureAt(its));
    }

    private double endShare(boolean up) {
        return up != falls ? HIGHEST : LOWEST;
    }

    private boolean isEnd(double end) {
        return Math.abs(end - rest) <= NEAR * (most - least);
    }
}
