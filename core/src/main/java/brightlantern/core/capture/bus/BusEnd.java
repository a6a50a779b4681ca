package brightlantern.core.capture.bus;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.network.BitRate;
import java.util.List;

/** Both wires at one end. */
record BusEnd(Wire high, Wire low, CanDecoder.Traffic traffic, double held) {
    static BusEnd of(Capture capture, LaneRole high, LaneRole low, BitRate rate) {
        Wire h = Wire.of(capture.lane(high).orElseThrow(), true);
        Wire l = Wire.of(capture.lane(low).orElseThrow(), false);
        // a wire that is broken leaves the other one to be read
        Wire read = h.swing() >= l.swing() ? h : l;
        boolean[] bits = CanDecoder.sliced(read.lane(), read.recessive(), read.dominant());
        return new BusEnd(
                h,
                l,
                read.swing() > NOISE
                        ? CanDecoder.read(bits, capture.interval(), rate)
                        : new CanDecoder.Traffic(List.of(), List.of()),
                Math.max(h.awayFromRest(), l.awayFromRest()));
    }

    double apart() {
        return high.swing() + low.swing();
    }

    /** Both wires rest here, V (ISO 11898-2: 2.0 to 3.0). */
    private static final double REST = 2.5;

    /** Smaller movements are noise, V. */
    static final double NOISE = 0.12;

    /**
     * A wire as it is seen.
     *
     * @param recessive its level at rest
     * @param dominant the level furthest from it to its own side, or to the other when it moves
     *     only there
     */
    record Wire(Lane lane, double recessive, double dominant) {
        static Wire of(Lane lane, boolean up) {
            short[] levels = lane.levels(0.005, 0.5, 0.995);
            double low = lane.worth(levels[0]);
            double rest = lane.worth(levels[1]);
            double high = lane.worth(levels[2]);
            boolean moves = up ? high - rest >= rest - low : rest - low >= high - rest;
            return new Wire(lane, rest, up == moves ? high : low);
        }

        double swing() {
            return Math.abs(dominant - recessive);
        }

        /** Share of the time in which it is not where a wire at rest is. */
        double awayFromRest() {
            int away = 0;
            for (int i = 0; i < lane.length(); i++) {
                away += Math.abs(lane.at(i) - REST) > BusStudy.CARRIES ? 1 : 0;
            }
            return away / (double) lane.length();
        }
    }
}
