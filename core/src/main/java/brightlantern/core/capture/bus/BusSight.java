package brightlantern.core.capture.bus;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.network.BitRate;
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

/** What is seen at both ends. */
final class BusSight {
    /** Wires that are further apart than this lack a terminating resistor, V (2.2 with both). */
    private static final double TOO_FAR_APART = 2.5;

    /** Levels that differ by less are those of wires that lie together, V. */
    private static final double TOGETHER = 0.4;

    /** A bus that is dominant for more of its time is held by somebody. */
    private static final double HELD = 0.45;

    private final Capture capture;
    private final BitRate rate;
    private final List<BusStudy.Station> stations;
    private final BusEnd near;
    private final BusEnd far;
    private final List<BusStudy.Levels> levels = new ArrayList<>();
    private final List<SentFrames> sent = new ArrayList<>();
    private final List<CanFrame> frames;
    private final List<String> reasons = new ArrayList<>();

    BusSight(Capture capture, BitRate rate, List<BusStudy.Station> stations) {
        this.capture = capture;
        this.rate = rate;
        this.stations = stations;
        near = BusEnd.of(capture, LaneRole.HIGH_NEAR, LaneRole.LOW_NEAR, rate);
        far = BusEnd.of(capture, LaneRole.HIGH_FAR, LaneRole.LOW_FAR, rate);
        Map<Integer, List<CanFrame>> by = new TreeMap<>();
        Map<Integer, CanFrame> begun = new LinkedHashMap<>();
        // a frame is the same at both ends; where only one reads it, that one tells when it was
        near.traffic().frames().forEach(f -> begun.put(f.from(), f));
        int slack = (int) (2 / (capture.interval() * rate.kbit() * 1000));
        far.traffic().frames().stream()
                .filter(
                        f ->
                                begun.keySet().stream()
                                        .noneMatch(b -> Math.abs(b - f.from()) <= slack))
                .toList()
                .forEach(f -> begun.put(f.from(), f));
        frames = begun.values().stream().sorted(Comparator.comparingInt(CanFrame::from)).toList();
        frames.stream()
                .filter(CanFrame::sound)
                .forEach(f -> by.computeIfAbsent(f.id(), i -> new ArrayList<>()).add(f));
        for (BusStudy.Station s : stations) {
            List<CanFrame> its = by.getOrDefault(s.frame(), List.of());
            sent.add(SentFrames.of(s.name(), s.sends(), its));
            levels.add(
                    new BusStudy.Levels(
                            s.name(),
                            its.size(),
                            moved(near.high(), its, true),
                            moved(near.low(), its, false),
                            moved(far.high(), its, true),
                            moved(far.low(), its, false)));
        }
    }

    /** How far a wire moves to its own side while frames are dominant, mean volts. */
    private static double moved(BusEnd.Wire wire, List<CanFrame> frames, boolean up) {
        double sum = 0;
        int count = 0;
        for (CanFrame f : frames) {
            short[] part = Arrays.copyOfRange(wire.lane().steps(), f.from(), f.to());
            Arrays.sort(part);
            double low = wire.lane().worth(part[part.length / 10]);
            double high = wire.lane().worth(part[part.length - 1 - part.length / 10]);
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

    BusStudy.Judgement judged() {
        int wrong = near.traffic().errors().size() + far.traffic().errors().size();
        WireState state = state();
        Optional<Integer> at = state.isOpen() ? Optional.of(gap()) : Optional.empty();
        int upTo = at.map(this::upTo).orElse(-1);
        return new BusStudy.Judgement(
                state,
                at,
                upTo,
                absent(),
                sentence(state, at, upTo),
                levels,
                frames,
                sent,
                wrong,
                reasons);
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
        shape("near", near);
        shape("far", far);
        double most = Math.max(near.apart(), far.apart());
        boolean read = levels.stream().anyMatch(l -> l.frames() > 0);
        if (!read && most < BusEnd.NOISE) {
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
        List<BusStudy.Levels> sends = levels.stream().filter(l -> l.frames() > 0).toList();
        if (sends.stream().allMatch(l -> l.near() && l.far())) {
            return carried(sends);
        }
        if (sends.stream().anyMatch(l -> !l.near() && !l.far())) {
            return WireState.UNCLEAR;
        }
        return open(sends);
    }

    private void shape(String name, BusEnd end) {
        WireShape its = WireShape.of(capture, end, 1 / (rate.kbit() * 1000.0));
        if (!Double.isNaN(its.bitMicros())) {
            reasons.add(its.told(name, rate.kbit()));
        }
    }

    private WireState carried(List<BusStudy.Levels> sends) {
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
                                .map(BusStudy.Station::name)
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
    private WireState open(List<BusStudy.Levels> sends) {
        boolean high = false;
        boolean low = false;
        for (BusStudy.Levels l : sends) {
            boolean across = l.near();
            high |= !((across ? l.highFar() : l.highNear()) > BusStudy.CARRIES);
            low |= !((across ? l.lowFar() : l.lowNear()) > BusStudy.CARRIES);
        }
        reasons.add(
                "Frames of "
                        + names(sends.stream().filter(BusStudy.Levels::near).toList())
                        + " come well to the near end, those of "
                        + names(sends.stream().filter(BusStudy.Levels::far).toList())
                        + " to the far end.");
        return high && low ? WireState.BOTH_OPEN : high ? WireState.HIGH_OPEN : WireState.LOW_OPEN;
    }

    private static String names(List<BusStudy.Levels> of) {
        return of.isEmpty()
                ? "nobody"
                : String.join(", ", of.stream().map(BusStudy.Levels::station).toList());
    }

    /** The last station that the near end hears well; the gateway is 0. */
    private int gap() {
        int last = 0;
        for (int i = 0; i < levels.size(); i++) {
            last = levels.get(i).near() ? i : last;
        }
        return last;
    }

    /**
     * The last station before the first one behind the break that is heard: what is not fitted, or
     * sends nothing, does not tell on which side of it the wire is open.
     */
    private int upTo(int at) {
        for (int i = at + 1; i < stations.size(); i++) {
            if (levels.get(i).frames() > 0) {
                return i - 1;
            }
        }
        return stations.size() - 1;
    }

    private String sentence(WireState state, Optional<Integer> at, int upTo) {
        String words =
                state.words().substring(0, 1).toUpperCase(Locale.ROOT) + state.words().substring(1);
        String where =
                at.map(
                                a ->
                                        upTo + 1 >= stations.size()
                                                ? " behind " + stations.get(a).name()
                                                : " between "
                                                        + stations.get(a).name()
                                                        + " and "
                                                        + stations.get(upTo + 1).name())
                        .orElse("");
        return words + where + "." + odd(state);
    }

    /** What comes over sound wires, and is not as described; broken ones lose frames. */
    private String odd(WireState state) {
        if (state != WireState.SOUND && state != WireState.SOUND_WITHOUT) {
            return "";
        }
        List<String> odd = sent.stream().flatMap(s -> s.odd().stream()).toList();
        reasons.addAll(odd.stream().map(o -> o + ".").toList());
        Set<Integer> known =
                stations.stream().map(BusStudy.Station::frame).collect(Collectors.toSet());
        String strange =
                frames.stream()
                        .filter(f -> f.sound() && !known.contains(f.id()))
                        .map(f -> String.format(f.extended() ? "%08X" : "%03X", f.id()))
                        .distinct()
                        .sorted()
                        .collect(Collectors.joining(", "));
        if (!strange.isEmpty()) {
            reasons.add("No module is described to send these identifiers: " + strange + ".");
        }
        return odd.isEmpty() ? "" : " But " + String.join("; ", odd) + ".";
    }
}
