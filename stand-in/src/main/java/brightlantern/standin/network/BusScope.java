package brightlantern.standin.network;

import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What an oscilloscope sees on the wires of the buses: frames of all modules that are alive, as
 * levels through the wires with their faults. Places are called {@code can-chassis-high-near}.
 */
public final class BusScope {
    private static final Pattern PLACE = Pattern.compile("can-(.+)-(high|low)-(near|far)");

    private static final double NOISE_VOLTS = 0.015;

    private static final double DOMINANT_VOLTS = 0.9;
    private static final int PAUSE_BITS = 3;

    /** After an error it is dominant for six bits, then recessive for eight. */
    private static final int ERROR_BITS = 6;

    private static final int DELIMITER_BITS = 8;

    /** Bytes of frames by their length code, from 8 on. */
    private static final int[] MORE_BYTES = {8, 12, 16, 20, 24};

    private final VehicleDescription description;
    private final BusWires wires;
    private final Predicate<String> fitted;
    private final BooleanSupplier awake;
    private final Random random;
    private final Map<String, Line> lines = new HashMap<>();

    /**
     * @param fitted whether a module is there at all
     * @param awake whether modules send
     */
    public BusScope(
            VehicleDescription description,
            BusWires wires,
            Predicate<String> fitted,
            BooleanSupplier awake,
            Random random) {
        this.description = description;
        this.wires = wires;
        this.fitted = fitted;
        this.awake = awake;
        this.random = random;
    }

    public boolean knows(String place) {
        Matcher m = PLACE.matcher(place);
        return m.matches()
                && description.buses().stream().anyMatch(b -> b.id().equals(m.group(1)))
                && description.onWire(m.group(1)).size() > 0;
    }

    /**
     * @param places that are known
     * @param now seconds of the vehicle
     * @return by place, so many samples over so many seconds
     */
    public Map<String, double[]> feel(List<String> places, double now, double seconds, int count) {
        Map<String, double[]> all = new HashMap<>();
        Map<String, double[][]> felt = new HashMap<>();
        for (String place : places) {
            Matcher m = PLACE.matcher(place);
            if (!m.matches()) {
                throw new IllegalArgumentException("'" + place + "' is no place on a bus");
            }
            double[][] its =
                    felt.computeIfAbsent(
                            m.group(1),
                            b -> lines.computeIfAbsent(b, Line::new).samples(now, seconds, count));
            int lane = (m.group(2).equals("high") ? 0 : 1) + (m.group(3).equals("near") ? 0 : 2);
            all.put(place, its[lane]);
        }
        return all;
    }

    /** A stretch of time in which a station holds the bus dominant, or nobody does. */
    private record Bit(double until, int drives) {}

    /** One bus, as its traffic goes on. */
    private final class Line {
        private final double bitSeconds;

        /** Length of a bit of data at the faster rate, in bits; 0 where there is none. */
        private final double fast;

        /** Each module sends this often, s. */
        private final double period;

        private final List<ControlModule> stations = new ArrayList<>();
        private final double[] due;
        private final List<Bit> bits = new ArrayList<>();
        private final String bus;
        private double time;
        private double planned;
        private int counter;

        Line(String id) {
            bus = id;
            Bus described =
                    description.buses().stream()
                            .filter(b -> b.id().equals(id))
                            .findFirst()
                            .orElseThrow();
            bitSeconds = 1 / (described.kbit() * 1000.0);
            fast = described.dataKbit() > 0 ? (double) described.kbit() / described.dataKbit() : 0;
            period = described.frames().everyMs() / 1000;
            stations.add(description.module(Network.GATEWAY).orElseThrow());
            stations.addAll(description.onWire(id));
            due = new double[stations.size()];
            for (int i = 0; i < due.length; i++) {
                due[i] = period * i / due.length;
            }
        }

        double[][] samples(double now, double seconds, int count) {
            List<WireFault> bad = wires.badNow(now);
            BusLevels levels = BusLevels.of(description, bus, bad);
            Map<Integer, double[]> known = new HashMap<>();
            while (planned < time + seconds) {
                plan(now, bad, levels);
            }
            int last = stations.size() - 1;
            double[][] out = new double[4][count];
            int at = 0;
            for (int i = 0; i < count; i++) {
                double t = time + seconds * i / count;
                while (at < bits.size() && bits.get(at).until() <= t) {
                    at++;
                }
                int drives = at < bits.size() ? bits.get(at).drives() : -1;
                double[] volts = known.computeIfAbsent(drives, levels::volts);
                out[0][i] = volts[0] + NOISE_VOLTS * random.nextGaussian();
                out[1][i] = volts[1] + NOISE_VOLTS * random.nextGaussian();
                out[2][i] = volts[2 * last] + NOISE_VOLTS * random.nextGaussian();
                out[3][i] = volts[2 * last + 1] + NOISE_VOLTS * random.nextGaussian();
            }
            time += seconds;
            bits.removeIf(b -> b.until() <= time);
            return out;
        }

        private void add(double count, int drives) {
            planned += count * bitSeconds;
            bits.add(new Bit(planned, drives));
        }

        /** The next thing that happens on the bus. */
        private void plan(double now, List<WireFault> bad, BusLevels levels) {
            int babbles =
                    bad.stream()
                            .filter(WireFault.Babbling.class::isInstance)
                            .map(f -> position(((WireFault.Babbling) f).module()))
                            .filter(i -> i >= 0)
                            .findFirst()
                            .orElse(-1);
            if (babbles >= 0) {
                add(ERROR_BITS + random.nextInt(ERROR_BITS), babbles);
                add(1 + random.nextInt(PAUSE_BITS), -1);
                return;
            }
            int next = 0;
            for (int i = 1; i < due.length; i++) {
                next = due[i] < due[next] ? i : next;
            }
            if (due[next] > planned) {
                add((int) Math.ceil((due[next] - planned) / bitSeconds), -1);
            }
            due[next] = planned + period * (0.95 + 0.1 * random.nextDouble());
            ControlModule sender = stations.get(next);
            if (!awake.getAsBoolean()
                    || !fitted.test(sender.id())
                    || !wires.alive(sender.id(), now)) {
                return;
            }
            double[] own = levels.volts(next);
            if (own[2 * next] - own[2 * next + 1] < DOMINANT_VOLTS) {
                // it does not see its own bit, and breaks off
                add(1 + ERROR_BITS, next);
                add(DELIMITER_BITS + PAUSE_BITS, -1);
                return;
            }
            send(next, sender, taker(next, own, now));
        }

        private void send(int from, ControlModule sender, int taker) {
            int more = fast > 0 ? random.nextInt(MORE_BYTES.length) : 0;
            byte[] data = new byte[MORE_BYTES[more]];
            random.nextBytes(data);
            data[data.length - 1] = (byte) counter++;
            CanBits.Frame frame =
                    fast > 0
                            ? CanBits.flexible(sender.frameId(), data, 8 + more, fast)
                            : CanBits.of(sender.frameId(), data);
            int acknowledged = frame.acknowledgement();
            for (int i = 0; i < frame.dominant().length; i++) {
                add(
                        frame.lengths()[i],
                        i == acknowledged ? taker : frame.dominant()[i] ? from : -1);
                if (i == acknowledged && taker < 0) {
                    add(1, -1);
                    add(ERROR_BITS, from);
                    add(DELIMITER_BITS + PAUSE_BITS, -1);
                    return;
                }
            }
            add(PAUSE_BITS, -1);
        }

        /** The nearest station that hears the sender and acknowledges it; below 0 for none. */
        private int taker(int from, double[] volts, double now) {
            int best = -1;
            for (int i = 0; i < stations.size(); i++) {
                boolean hears =
                        i != from
                                && volts[2 * i] - volts[2 * i + 1] > DOMINANT_VOLTS
                                && fitted.test(stations.get(i).id())
                                && wires.alive(stations.get(i).id(), now);
                if (hears && (best < 0 || Math.abs(i - from) < Math.abs(best - from))) {
                    best = i;
                }
            }
            return best;
        }

        private int position(String module) {
            for (int i = 0; i < stations.size(); i++) {
                if (stations.get(i).id().equals(module)) {
                    return i;
                }
            }
            return -1;
        }
    }
}
