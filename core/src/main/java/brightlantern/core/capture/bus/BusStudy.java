package brightlantern.core.capture.bus;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CaptureReading;
import brightlantern.core.capture.Lane;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.WireState;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * The wires of a bus, from a capture of both of them at both ends. Each frame says who sent it, and
 * its levels at either end whether both wires carried it there: the stations of which an end hears
 * nothing on a wire lie behind the place at which that wire is broken.
 */
public final class BusStudy {
    /** A wire that carries a frame moves by more than this, V (ISO 11898-2: about 1). */
    private static final double CARRIES = 0.6;

    /** Wires that are further apart than this lack a terminating resistor, V (2.2 with both). */
    private static final double TOO_FAR_APART = 2.5;

    /** Levels that differ by less are those of wires that lie together, V. */
    private static final double TOGETHER = 0.4;

    /** Smaller movements are noise, V. */
    private static final double NOISE = 0.12;

    /** Both wires rest here, V (ISO 11898-2: 2.0 to 3.0). */
    private static final double REST = 2.5;

    /** A bus that is dominant for more of its time is held by somebody. */
    private static final double HELD = 0.45;

    private static final double LEAST_SECONDS = 0.03;

    private BusStudy() {}

    /**
     * A station of the bus.
     *
     * @param module its id
     * @param frame identifier of its frames
     * @param fitted whether this vehicle has it
     */
    public record Station(String module, String name, int frame, boolean fitted) {}

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
     * @param wrong places at which six like bits broke a frame off
     * @param absent modules that are fitted and of which no frame came
     * @param at the last station before the break, the gateway being 0; empty where the state has
     *     no place
     */
    public record Judgement(
            WireState state,
            Optional<Integer> at,
            Set<String> absent,
            String sentence,
            List<Levels> levels,
            List<CanFrame> frames,
            int wrong,
            List<String> reasons)
            implements CaptureReading {
        public Judgement {
            frames = List.copyOf(frames);
            absent = Set.copyOf(absent);
            levels = List.copyOf(levels);
            reasons = List.copyOf(reasons);
        }

        /** Whether nothing is wrong. */
        @Override
        public boolean holds() {
            return state == WireState.SOUND;
        }
    }

    /** The stations of a bus in the order of its wire, the gateway first. */
    public static List<Station> stations(Network network, String bus, Set<String> fitted) {
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
                                        m.id().equals(Network.GATEWAY) || fitted.contains(m.id())))
                .toList();
    }

    private static final List<LaneRole> WIRES =
            List.of(LaneRole.HIGH_NEAR, LaneRole.LOW_NEAR, LaneRole.HIGH_FAR, LaneRole.LOW_FAR);

    /** Why a capture cannot be judged; empty when it can. */
    public static Optional<String> whyNot(Capture capture, int kbit) {
        Optional<LaneRole> missing =
                WIRES.stream().filter(r -> capture.lane(r).isEmpty()).findFirst();
        if (missing.isPresent()) {
            return Optional.of("No lane shows the " + words(missing.get()) + ".");
        }
        double perBit = capture.rate() / (kbit * 1000.0);
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
    public static Optional<Judgement> judge(Capture capture, int kbit, List<Station> stations) {
        return whyNot(capture, kbit).isPresent()
                ? Optional.empty()
                : Optional.of(new Seen(capture, kbit, stations).judged());
    }

    /** Both wires at one end. */
    private record End(Wire high, Wire low, CanDecoder.Traffic traffic, double held) {
        static End of(Capture capture, LaneRole high, LaneRole low, int kbit) {
            Wire h = Wire.of(capture.lane(high).orElseThrow(), true);
            Wire l = Wire.of(capture.lane(low).orElseThrow(), false);
            // a wire that is broken leaves the other one to be read
            Wire read = h.swing() >= l.swing() ? h : l;
            boolean[] bits = CanDecoder.sliced(read.samples(), read.recessive(), read.dominant());
            return new End(
                    h,
                    l,
                    read.swing() > NOISE
                            ? CanDecoder.read(bits, capture.interval(), kbit)
                            : new CanDecoder.Traffic(List.of(), List.of()),
                    Math.max(h.awayFromRest(), l.awayFromRest()));
        }

        double apart() {
            return high.swing() + low.swing();
        }
    }

    /**
     * A wire as it is seen.
     *
     * @param recessive its level at rest
     * @param dominant the level furthest from it to its own side, or to the other when it moves
     *     only there
     */
    private record Wire(double[] samples, double recessive, double dominant) {
        static Wire of(Lane lane, boolean up) {
            double[] samples = lane.samples();
            double[] sorted = samples.clone();
            Arrays.sort(sorted);
            double low = sorted[(int) (0.005 * (sorted.length - 1))];
            double high = sorted[(int) (0.995 * (sorted.length - 1))];
            double rest = sorted[sorted.length / 2];
            boolean moves = up ? high - rest >= rest - low : rest - low >= high - rest;
            return new Wire(samples, rest, up == moves ? high : low);
        }

        double swing() {
            return Math.abs(dominant - recessive);
        }

        /** Share of the time in which it is not where a wire at rest is. */
        double awayFromRest() {
            return Arrays.stream(samples).filter(v -> Math.abs(v - REST) > CARRIES).count()
                    / (double) samples.length;
        }
    }

    /** What is seen at both ends. */
    private static final class Seen {
        private final List<Station> stations;
        private final End near;
        private final End far;
        private final List<Levels> levels = new ArrayList<>();
        private final List<CanFrame> frames;
        private final List<String> reasons = new ArrayList<>();

        Seen(Capture capture, int kbit, List<Station> stations) {
            this.stations = stations;
            near = End.of(capture, LaneRole.HIGH_NEAR, LaneRole.LOW_NEAR, kbit);
            far = End.of(capture, LaneRole.HIGH_FAR, LaneRole.LOW_FAR, kbit);
            Map<Integer, List<CanFrame>> by = new TreeMap<>();
            Map<Integer, CanFrame> begun = new LinkedHashMap<>();
            // a frame is the same at both ends; where only one reads it, that one tells when it was
            near.traffic().frames().forEach(f -> begun.put(f.from(), f));
            int slack = (int) (2 / (capture.interval() * kbit * 1000));
            far.traffic().frames().stream()
                    .filter(
                            f ->
                                    begun.keySet().stream()
                                            .noneMatch(b -> Math.abs(b - f.from()) <= slack))
                    .toList()
                    .forEach(f -> begun.put(f.from(), f));
            frames =
                    begun.values().stream()
                            .sorted(Comparator.comparingInt(CanFrame::from))
                            .toList();
            frames.stream()
                    .filter(CanFrame::sound)
                    .forEach(f -> by.computeIfAbsent(f.id(), i -> new ArrayList<>()).add(f));
            for (Station s : stations) {
                List<CanFrame> its = by.getOrDefault(s.frame(), List.of());
                levels.add(
                        new Levels(
                                s.name(),
                                its.size(),
                                moved(near.high(), its, true),
                                moved(near.low(), its, false),
                                moved(far.high(), its, true),
                                moved(far.low(), its, false)));
            }
        }

        /** How far a wire moves to its own side while frames are dominant, mean volts. */
        private static double moved(Wire wire, List<CanFrame> frames, boolean up) {
            double sum = 0;
            int count = 0;
            for (CanFrame f : frames) {
                double[] part = Arrays.copyOfRange(wire.samples(), f.from(), f.to());
                Arrays.sort(part);
                double low = part[part.length / 10];
                double high = part[part.length - 1 - part.length / 10];
                double rest = wire.recessive();
                sum += up ? further(high - rest, low - rest) : further(rest - low, rest - high);
                count++;
            }
            return count == 0 ? Double.NaN : sum / count;
        }

        /** The larger of two movements, with its sign. */
        private static double further(double own, double other) {
            return Math.abs(other) > 2 * Math.abs(own) ? other : own;
        }

        Judgement judged() {
            int wrong = near.traffic().errors().size() + far.traffic().errors().size();
            WireState state = state();
            Optional<Integer> at = state.isOpen() ? Optional.of(gap()) : Optional.empty();
            return new Judgement(
                    state, at, absent(), sentence(state, at), levels, frames, wrong, reasons);
        }

        private WireState state() {
            reasons.add(
                    String.format(
                            Locale.ROOT,
                            "Near end: high wire rests at %.2f V and goes to %.2f V, low wire %.2f V and %.2f V. Far end: %.2f and %.2f V, %.2f and %.2f V.",
                            near.high().recessive(),
                            near.high().dominant(),
                            near.low().recessive(),
                            near.low().dominant(),
                            far.high().recessive(),
                            far.high().dominant(),
                            far.low().recessive(),
                            far.low().dominant()));
            double most = Math.max(near.apart(), far.apart());
            boolean read = levels.stream().anyMatch(l -> l.frames() > 0);
            if (!read && most < NOISE) {
                return WireState.SILENT;
            }
            if (!read && most < TOGETHER) {
                return WireState.SHORTED;
            }
            if (!read && Math.max(near.held(), far.held()) > HELD) {
                return WireState.BABBLING;
            }
            if (!read) {
                return WireState.UNCLEAR;
            }
            List<Levels> sends = levels.stream().filter(l -> l.frames() > 0).toList();
            if (sends.stream().allMatch(l -> l.near() && l.far())) {
                return carried(sends);
            }
            if (sends.stream().anyMatch(l -> !l.near() && !l.far())) {
                return WireState.UNCLEAR;
            }
            return open(sends);
        }

        private WireState carried(List<Levels> sends) {
            double apart =
                    sends.stream().mapToDouble(l -> l.highNear() + l.lowNear()).average().orElse(0);
            reasons.add(
                    String.format(
                            Locale.ROOT,
                            "Dominant bits hold the wires %.2f V apart (about 2.2 V with both terminating resistors).",
                            apart));
            if (apart > TOO_FAR_APART) {
                return WireState.UNTERMINATED;
            }
            Set<String> quiet = absent();
            if (quiet.isEmpty()) {
                return WireState.SOUND;
            }
            reasons.add(
                    "No frame came from: "
                            + stations.stream()
                                    .filter(s -> quiet.contains(s.module()))
                                    .map(Station::name)
                                    .collect(Collectors.joining(", "))
                            + ".");
            return WireState.SOUND_WITHOUT;
        }

        /** Modules that are fitted and of which no frame came. */
        private Set<String> absent() {
            Set<String> quiet = new LinkedHashSet<>();
            for (int i = 0; i < stations.size(); i++) {
                if (stations.get(i).fitted() && levels.get(i).frames() == 0) {
                    quiet.add(stations.get(i).module());
                }
            }
            return quiet;
        }

        /** Which wire does not carry to the other end what it carries to the own one. */
        private WireState open(List<Levels> sends) {
            boolean high = false;
            boolean low = false;
            for (Levels l : sends) {
                boolean across = l.near();
                high |= !((across ? l.highFar() : l.highNear()) > CARRIES);
                low |= !((across ? l.lowFar() : l.lowNear()) > CARRIES);
            }
            reasons.add(
                    "Frames of "
                            + names(sends.stream().filter(Levels::near).toList())
                            + " come well to the near end, those of "
                            + names(sends.stream().filter(Levels::far).toList())
                            + " to the far end.");
            return high && low
                    ? WireState.BOTH_OPEN
                    : high ? WireState.HIGH_OPEN : WireState.LOW_OPEN;
        }

        private static String names(List<Levels> of) {
            return of.isEmpty()
                    ? "nobody"
                    : String.join(", ", of.stream().map(Levels::station).toList());
        }

        /** The last station that the near end hears well; the gateway is 0. */
        private int gap() {
            int last = 0;
            for (int i = 0; i < levels.size(); i++) {
                last = levels.get(i).near() ? i : last;
            }
            return last;
        }

        private String sentence(WireState state, Optional<Integer> at) {
            String words =
                    state.words().substring(0, 1).toUpperCase(Locale.ROOT)
                            + state.words().substring(1);
            return at.map(
                            a ->
                                    words
                                            + (a + 1 >= stations.size()
                                                    ? " behind " + stations.get(a).name()
                                                    : " between "
                                                            + stations.get(a).name()
                                                            + " and "
                                                            + stations.get(a + 1).name())
                                            + ".")
                    .orElse(words + ".");
        }
    }
}
