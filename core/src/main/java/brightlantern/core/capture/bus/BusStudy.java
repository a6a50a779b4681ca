package brightlantern.core.capture.bus;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.network.BitRate;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.ExpectedFrames;
import brightlantern.core.network.Network;
import brightlantern.core.network.WireState;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * The wires of a bus, from a capture of both of them at both ends. Each frame says who sent it, and
 * its levels at either end whether both wires carried it there: the stations of which an end hears
 * nothing on a wire lie behind the place at which that wire is broken.
 */
public final class BusStudy {
    /** A wire that carries a frame moves by more than this, V (ISO 11898-2: about 1). */
    static final double CARRIES = 0.6;

    private static final double LEAST_SECONDS = 0.03;

    private BusStudy() {}

    /**
     * A station of the bus.
     *
     * @param module its id
     * @param frame identifier of its frames
     * @param fitted whether this vehicle has it
     * @param sends what is expected of it
     */
    public record Station(
            String module, String name, int frame, boolean fitted, ExpectedFrames sends) {}

    /**
     * Levels of one station's frames, mean volts; NaN where none of them was read.
     *
     * @param high and low: how far each wire moves, at the near and at the far end
     */
    public record Levels(
            String station,
            int frames,
            double highNear,
            double lowNear,
            double highFar,
            double lowFar) {
        /** Whether both wires carry its frames to the near end. */
        public boolean near() {
            return highNear > CARRIES && lowNear > CARRIES;
        }

        /** Whether both wires carry its frames to the far end. */
        public boolean far() {
            return highFar > CARRIES && lowFar > CARRIES;
        }
    }

    /**
     * @param frames as they were read, those that only one end carries among them
     * @param sent what each station sent, in their order
     * @param wrong places at which six like bits broke a frame off
     * @param absent modules that are fitted and of which no frame came
     * @param at the last station before the break, the gateway being 0; empty where the state has
     *     no place
     * @param upTo the last station before which no other was heard: the break may be behind it too
     */
    public record Judgement(
            WireState state,
            Optional<Integer> at,
            int upTo,
            Set<String> absent,
            String sentence,
            List<Levels> levels,
            List<CanFrame> frames,
            List<SentFrames> sent,
            int wrong,
            List<String> reasons) {
        public Judgement {
            frames = List.copyOf(frames);
            sent = List.copyOf(sent);
            absent = Set.copyOf(absent);
            levels = List.copyOf(levels);
            reasons = List.copyOf(reasons);
        }

        /** Whether nothing is wrong. */
        public boolean holds() {
            return state == WireState.SOUND;
        }
    }

    /** The stations of a bus in the order of its wire, the gateway first. */
    public static List<Station> stations(Network network, String bus, Set<String> fitted) {
        ExpectedFrames sends =
                network.buses().stream()
                        .filter(b -> b.id().equals(bus))
                        .findFirst()
                        .orElseThrow()
                        .frames();
        List<ControlModule> all = new ArrayList<>();
        network.module(Network.GATEWAY).ifPresent(all::add);
        all.addAll(network.onWire(bus));
        return all.stream()
                .map(
                        m ->
                                new Station(
                                        m.id(),
                                        m.name(),
                                        m.frameId(),
                                        m.id().equals(Network.GATEWAY) || fitted.contains(m.id()),
                                        sends))
                .toList();
    }

    private static final List<LaneRole> WIRES =
            List.of(LaneRole.HIGH_NEAR, LaneRole.LOW_NEAR, LaneRole.HIGH_FAR, LaneRole.LOW_FAR);

    /** Why a capture cannot be judged; empty when it can. */
    public static Optional<String> whyNot(Capture capture, BitRate rate) {
        Optional<LaneRole> missing =
                WIRES.stream().filter(r -> capture.lane(r).isEmpty()).findFirst();
        if (missing.isPresent()) {
            return Optional.of("No lane shows the " + words(missing.get()) + ".");
        }
        double perBit = capture.rate() / (rate.fastest() * 1000.0);
        if (perBit < CanDecoder.LEAST_PER_BIT) {
            return Optional.of(
                    "%.1f samples a bit are too few: at least %.0f are needed."
                            .formatted(perBit, CanDecoder.LEAST_PER_BIT));
        }
        return capture.seconds() < LEAST_SECONDS
                ? Optional.of(
                        "It lasts %.0f ms: at least %.0f are needed, so that every module sends."
                                .formatted(1000 * capture.seconds(), 1000 * LEAST_SECONDS))
                : Optional.empty();
    }

    private static String words(LaneRole role) {
        return role.words().toLowerCase(Locale.ROOT);
    }

    /**
     * @param stations in the order of the wire, the gateway first
     * @return empty when it cannot be judged; {@link #whyNot} tells why
     */
    public static Optional<Judgement> judge(Capture capture, BitRate rate, List<Station> stations) {
        return whyNot(capture, rate).isPresent()
                ? Optional.empty()
                : Optional.of(new BusSight(capture, rate, stations).judged());
    }
}
