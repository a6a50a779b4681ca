package brightlantern.core.capture.bus;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.Lane;
import java.util.Locale;

/**
 * How both wires of an end move: how long a bit lasts, how quickly edges rise, and how alike both
 * move to either side (ISO 11898-2: the sum of both stays the same).
 *
 * @param bitMicros mean length of a bit, µs; NaN without frames
 * @param riseMicros mean time from a tenth to nine tenths of an edge to dominant, µs
 * @param apart how far the sum of both wires moves while frames are sent, V (mean of its amount)
 */
record WireShape(double bitMicros, double riseMicros, double apart) {
    private static final double LOW = 0.1;
    private static final double HIGH = 0.9;

    private static final int IDENTIFIER_BITS = 12;

    /** Edges that lie further apart are a pause, bits. */
    private static final int MOST_BITS = 12;

    /**
     * @param nominal length of a bit, s
     */
    static WireShape of(Capture capture, BusEnd end, double nominal) {
        Lane high = end.high().lane();
        Lane low = end.low().lane();
        double rest = end.high().recessive() + end.low().recessive();
        double interval = capture.interval();
        double level = (end.high().recessive() + end.high().dominant()) / 2;
        double apart = 0;
        int counted = 0;
        double time = 0;
        long bits = 0;
        double rises = 0;
        int edges = 0;
        for (CanFrame frame : end.traffic().frames()) {
            double before = Double.NaN;
            // data at the faster rate has bits of another length
            int last =
                    frame.fd().isPresent()
                            ? frame.from() + (int) (IDENTIFIER_BITS * nominal / interval)
                            : frame.to();
            for (int i = Math.max(1, frame.from()); i < Math.min(last, high.length()); i++) {
                apart += Math.abs(high.at(i) + low.at(i) - rest);
                counted++;
                if (high.at(i - 1) <= level && high.at(i) > level) {
                    double at = i - (high.at(i) - level) / (high.at(i) - high.at(i - 1));
                    double since = (at - before) * interval / nominal;
                    if (since < MOST_BITS) {
                        time += (at - before) * interval;
                        bits += Math.round(since);
                    }
                    before = at;
                    rises += rise(high, end.high(), i) * interval;
                    edges++;
                }
            }
        }
        return new WireShape(
                bits == 0 ? Double.NaN : 1e6 * time / bits,
                edges == 0 ? Double.NaN : 1e6 * rises / edges,
                counted == 0 ? Double.NaN : apart / counted);
    }

    /** Samples from a tenth to nine tenths of an edge that passes the middle before a sample. */
    private static double rise(Lane lane, BusEnd.Wire wire, int at) {
        double from = wire.recessive() + LOW * (wire.dominant() - wire.recessive());
        double to = wire.recessive() + HIGH * (wire.dominant() - wire.recessive());
        int begin = at - 1;
        while (begin > 0 && lane.at(begin) > from) {
            begin--;
        }
        int end = at;
        while (end < lane.length() - 1 && lane.at(end) < to) {
            end++;
        }
        return end - begin;
    }

    /** In a sentence. */
    String told(String end, int kbit) {
        return String.format(
                Locale.ROOT,
                "At the %s end a bit lasts %.3f µs (%.3f are right), edges rise within %.2f µs, and the sum of both wires moves by %.2f V: both move %s.",
                end,
                bitMicros,
                1000.0 / kbit,
                riseMicros,
                apart,
                apart < BusEnd.NOISE ? "alike" : "unlike each other");
    }
}
