package brightlantern.core.capture;

import java.util.Optional;

/**
 * How a lane rings after its pulses, as a coil does that is switched off (damped oscillation).
 *
 * @param hertz middle frequency of it
 * @param swings so many half waves until it is calm, on the mean
 */
public record Ringing(double hertz, double swings) {
    /** Smaller swings are noise, as a share of the pulse. */
    private static final double CALM = 0.04;

    /** Fewer half waves are an edge that overshoots. */
    private static final int LEAST_SWINGS = 3;

    /** It is looked for within this share of a pause. */
    private static final double WITHIN = 0.5;

    /** Of a lane with these pulses; empty where it is calm after them. */
    public static Optional<Ringing> of(Lane lane, double interval, Pulses pulses) {
        if (!pulses.isTrain()) {
            return Optional.empty();
        }
        int pause = (int) (WITHIN * (pulses.period() - pulses.width()) / interval);
        double half = 0;
        double swings = 0;
        int rang = 0;
        int looked = 0;
        for (int p = 0; p < pulses.widths().size() && p < pulses.rises().size(); p++) {
            int from = (int) ((pulses.rises().get(p) + pulses.widths().get(p)) / interval);
            if (from + pause > lane.length()) {
                break;
            }
            looked++;
            double[] its = swings(lane, from, pause, pulses);
            if (its[0] >= LEAST_SWINGS) {
                rang++;
                swings += its[0];
                half += its[1] * interval;
            }
        }
        return 2 * rang < looked || rang == 0
                ? Optional.empty()
                : Optional.of(new Ringing(rang / half / 2, swings / rang));
    }

    /** Half waves round where it comes to rest, and samples that one takes on the mean. */
    private static double[] swings(Lane lane, int from, int count, Pulses pulses) {
        double rest = 0;
        for (int i = from + count / 2; i < from + count; i++) {
            rest += lane.at(i) / (count - count / 2);
        }
        double least = CALM * (pulses.high() - pulses.low());
        int side = 0;
        int crossed = from;
        boolean above = lane.at(from) > rest;
        int first = -1;
        int last = -1;
        int crossings = 0;
        for (int i = from; i < from + count; i++) {
            double off = lane.at(i) - rest;
            if (off > 0 != above) {
                above = off > 0;
                crossed = i;
            }
            int now = off > least ? 1 : off < -least ? -1 : side;
            if (now != side && side != 0) {
                crossings++;
                first = first < 0 ? crossed : first;
                last = crossed;
            }
            side = now;
        }
        return new double[] {
            crossings, crossings < 2 ? 0 : (last - first) / (double) (crossings - 1)
        };
    }
}
