package brightlantern.standin.instrument;

import brightlantern.wire.scpi.ScpiLine;
import java.nio.ByteBuffer;
import java.util.Collections;
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
 * An oscilloscope with eight lanes of 12 bits. Lanes are connected with {@code ROUTe:CLOSe
 * (@1!exhaust)} and freed with {@code ROUTe:OPEN:ALL}; {@code SENSe:VOLTage:RANGe 5,(@1)} is what a
 * lane takes to either side; {@code SENSe:SWEep:TINTerval} and {@code :POINts} how often and how
 * much, {@code :OREFerence:POINts} how much of it before the trigger; {@code INPut:COUPling
 * AC|DC,(@1)} and {@code INPut:FILTer:FREQuency 1000,(@1)} what is done to a lane before; {@code
 * TRIGger:SOURce IMMediate|INTernal}, {@code TRIGger:LEVel 80,(@1)}, {@code TRIGger:TYPE
 * RISE|FALL|LONGer|SHORter|MISSing} and {@code TRIGger:TIME} for the last three; {@code INITiate},
 * {@code ABORt}; {@code STATus:OPERation:CONDition?} tells sweeping (bit 3) and waiting for the
 * trigger (bit 5); {@code TRACe:POINts?} how much is there, {@code TRACe:PREamble? (@1)} size of a
 * step and offset, {@code TRACe:DATA? (@1),0,1000} steps as 16-bit integers, high byte first, in a
 * definite-length block (IEEE 488.2, clause 8.7.9).
 */
public final class Scope implements Instrument {
    /** Beside the meter's. */
    public static final int PORT = 5026;

    /** Of a second one beside it. */
    public static final int SECOND_PORT = 5027;

    /** The second one begins so much later than it is told to, s. */
    private static final double LAG = 0.0423;

    private static final int LANES = 8;
    private static final int STEPS = 2048;
    private static final int SWEEPING = 1 << 3;
    private static final int WAITING = 1 << 5;
    private static final double SHORTEST = 5e-8;
    private static final int MOST_POINTS = 4_000_000;
    private static final int MOST_BLOCK = 250_000;

    /** Slower than this is the steady part. */
    private static final double STEADY_HERTZ = 1;

    /** What lanes can be connected to. */
    public interface Places {
        boolean knows(String place);

        /**
         * @param count samples, evenly over {@code seconds}
         * @return by place
         */
        Map<String, double[]> feel(Iterable<String> places, double seconds, int count);
    }

    private static final class Lane {
        private final String place;
        private double range = 10;
        private short[] steps = new short[0];
        private short[] ring = new short[0];
        private boolean alternating;
        private double filter;
        private double smooth = Double.NaN;
        private double mean = Double.NaN;
        private double now;

        Lane(String place) {
            this.place = place;
        }

        /** The next sample (filters of the first order). */
        void feel(double value, double seconds) {
            double share = Math.min(1, 2 * Math.PI * filter * seconds);
            smooth =
                    filter == 0 || Double.isNaN(smooth) ? value : smooth + share * (value - smooth);
            double slow = Math.min(1, 2 * Math.PI * STEADY_HERTZ * seconds);
            mean = Double.isNaN(mean) ? smooth : mean + slow * (smooth - mean);
            now = alternating ? smooth - mean : smooth;
        }

        short step() {
            return (short) Math.max(-STEPS, Math.min(STEPS - 1, Math.round(now * STEPS / range)));
        }
    }

    private final Places places;
    private final int number;
    private final Map<Integer, Lane> lanes = new TreeMap<>();
    private double interval = 1e-3;
    private int points = 1000;
    private int before;
    private int triggerLane;
    private double level;
    private boolean internal;
    private String type = "RISE";
    private double held;
    private boolean high;
    private double since;
    private boolean armed;
    private boolean waiting;
    private int seen;
    private int acquired;
    private double owed;
    private int late;

    public Scope(Places places) {
        this(places, 1);
    }

    /**
     * @param number 2 for one that begins later than it is told to
     */
    public Scope(Places places, int number) {
        this.places = places;
        this.number = number;
    }

    @Override
    public String identity() {
        return "LARKSPUR YARD,STAND-IN SCOPE,000" + number + ",1.0";
    }

    @Override
    public synchronized void reset() {
        lanes.clear();
        internal = false;
        type = "RISE";
        held = 0;
        armed = false;
        before = 0;
        acquired = 0;
    }

    /** Time goes by for what its lanes are connected to. */
    public void step(double seconds) {
        step(List.of(this), seconds);
    }

    /** The same for several at one vehicle: what they look at happens once. */
    public static void step(List<Scope> all, double seconds) {
        Map<Scope, Integer> due = new LinkedHashMap<>();
        Set<String> looked = new LinkedHashSet<>();
        for (Scope scope : all) {
            int count = scope.due(seconds);
            if (count > 0) {
                due.put(scope, count);
                looked.addAll(scope.looksAt());
            }
        }
        if (due.isEmpty()) {
            return;
        }
        int most = Collections.max(due.values());
        Map<String, double[]> felt = all.get(0).places.feel(looked, seconds, most);
        due.forEach((scope, count) -> scope.take(felt, count, most));
    }

    /** Samples that are due. */
    private synchronized int due(double seconds) {
        owed += armed ? seconds / interval : 0;
        int count = armed ? (int) owed : 0;
        owed -= count;
        return count;
    }

    private synchronized Set<String> looksAt() {
        return lanes.values().stream().map(l -> l.place).collect(Collectors.toSet());
    }

    /**
     * @param of how many samples there are, of which it takes so many evenly
     */
    private synchronized void take(Map<String, double[]> felt, int count, int of) {
        int i = Math.min(late, count);
        late -= i;
        while (i < count && armed && waiting) {
            await(felt, (int) ((long) i * of / count));
            i++;
        }
        int from = i;
        int taken = armed ? Math.min(count - from, points - acquired) : 0;
        for (Lane lane : lanes.values()) {
            double[] its = felt.get(lane.place);
            for (int k = 0; k < taken; k++) {
                // nothing is at a lane that was connected just now
                lane.feel(its == null ? 0 : its[(int) ((long) (from + k) * of / count)], interval);
                lane.steps[acquired + k] = lane.step();
            }
        }
        acquired += taken;
        armed &= acquired < points;
    }

    /** One sample before the trigger. */
    private void await(Map<String, double[]> felt, int i) {
        for (Lane lane : lanes.values()) {
            double[] its = felt.get(lane.place);
            lane.feel(its == null ? 0 : its[i], interval);
            if (before > 0) {
                lane.ring[seen % before] = lane.step();
            }
        }
        seen++;
        Lane by = lanes.get(triggerLane);
        boolean fires = by == null || fires(by.now);
        waiting = !fires || seen < before;
        if (!waiting) {
            lanes.values().forEach(this::unroll);
            acquired = before;
        }
    }

    /** Whether the lane that starts it does what it waits for. */
    private boolean fires(double value) {
        boolean was = high;
        double lasted = since;
        high = value >= level;
        since = high == was ? since + interval : 0;
        return switch (type) {
            case "FALL" -> was && !high;
            case "LONG" -> high && since > held;
            case "SHOR" -> was && !high && lasted < held;
            case "MISS" -> !high && since > held;
            default -> high;
        };
    }

    private void unroll(Lane lane) {
        for (int k = 0; k < before; k++) {
            lane.steps[k] = lane.ring[(seen + k) % before];
        }
    }

    @Override
    public synchronized byte[] answer(ScpiLine line, StatusModel status) {
        try {
            return answered(line, status);
        } catch (NumberFormatException | IndexOutOfBoundsException wrong) {
            status.error(-104, "Data type error; " + line.header() + " " + line.parameters());
            return new byte[0];
        }
    }

    private byte[] answered(ScpiLine line, StatusModel status) {
        if (line.is("ROUTe:CLOSe")) {
            route(line.parameters().get(0), status);
        } else if (line.is("ROUTe:OPEN:ALL")) {
            lanes.clear();
        } else if (line.is("SENSe:VOLTage:RANGe")) {
            lane(line.parameters().get(1), status)
                    .ifPresent(l -> l.range = above(line.parameters().get(0), 1e-3, 1e6, status));
        } else if (line.is("SENSe:SWEep:TINTerval")) {
            interval = above(line.parameters().get(0), SHORTEST, 1, status);
        } else if (line.is("SENSe:SWEep:POINts")) {
            points = (int) above(line.parameters().get(0), 10, MOST_POINTS, status);
        } else if (line.is("SENSe:SWEep:OREFerence:POINts")) {
            before = (int) above(line.parameters().get(0), 0, points, status);
        } else if (line.is("TRIGger:SOURce")) {
            internal = line.parameters().get(0).toUpperCase(Locale.ROOT).startsWith("INT");
        } else if (line.is("TRIGger:TYPE")) {
            String word = line.parameters().get(0).toUpperCase(Locale.ROOT);
            type = word.substring(0, Math.min(4, word.length()));
        } else if (line.is("TRIGger:TIME")) {
            held = above(line.parameters().get(0), 0, 1e4, status);
        } else if (line.is("INPut:COUPling")) {
            lane(line.parameters().get(1), status)
                    .ifPresent(l -> l.alternating = line.parameters().get(0).equals("AC"));
        } else if (line.is("INPut:FILTer:FREQuency")) {
            lane(line.parameters().get(1), status)
                    .ifPresent(l -> l.filter = above(line.parameters().get(0), 0, 1e9, status));
        } else if (line.is("TRIGger:LEVel")) {
            level = Double.parseDouble(line.parameters().get(0));
            triggerLane = Integer.parseInt(line.parameters().get(1));
        } else if (line.is("INITiate") || line.is("INITiate:IMMediate")) {
            begin(status);
        } else if (line.is("ABORt")) {
            armed = false;
        } else if (line.is("FORMat:DATA") || line.is("FORMat")) {
            integers(line, status);
        } else {
            return told(line, status);
        }
        return new byte[0];
    }

    private byte[] told(ScpiLine line, StatusModel status) {
        if (line.is("STATus:OPERation:CONDition?")) {
            return Instrument.text("" + (armed ? waiting ? WAITING : SWEEPING : 0));
        }
        if (line.is("TRACe:POINts?")) {
            return Instrument.text("" + acquired);
        }
        if (line.is("TRACe:PREamble?")) {
            return lane(line.parameters().get(0), status)
                    .map(
                            l ->
                                    Instrument.text(
                                            String.format(Locale.ROOT, "%.9E,0", l.range / STEPS)))
                    .orElse(new byte[0]);
        }
        if (line.is("TRACe:DATA?") || line.is("TRACe?")) {
            int from = Integer.parseInt(line.parameters().get(1));
            int count = Integer.parseInt(line.parameters().get(2));
            if (from < 0 || count < 1 || count > MOST_BLOCK || from + count > acquired) {
                status.error(
                        -222,
                        "Data out of range; %d samples from %d on, %d are there and %d go at once"
                                .formatted(count, from, acquired, MOST_BLOCK));
                return Instrument.text("#10");
            }
            return lane(line.parameters().get(0), status)
                    .map(l -> block(l.steps, from, count))
                    .orElse(Instrument.text("#10"));
        }
        status.error(-113, "Undefined header; " + line.header());
        return new byte[0];
    }

    private static byte[] block(short[] steps, int from, int count) {
        String length = "" + 2 * count;
        byte[] head = Instrument.text("#" + length.length() + length);
        ByteBuffer out = ByteBuffer.allocate(head.length + 2 * count).put(head);
        out.asShortBuffer().put(steps, from, count);
        return out.array();
    }

    private void integers(ScpiLine line, StatusModel status) {
        if (!line.parameters().get(0).toUpperCase(Locale.ROOT).startsWith("INT")) {
            status.error(-224, "Illegal parameter value; expected INTeger,16");
        }
    }

    private void route(String pair, StatusModel status) {
        int mark = pair.indexOf('!');
        int lane = Integer.parseInt(pair.substring(0, mark));
        String place = pair.substring(mark + 1);
        if (lane < 1 || lane > LANES) {
            status.error(-222, "Data out of range; lanes are 1 to " + LANES);
        } else if (!places.knows(place)) {
            status.error(-224, "Illegal parameter value; no place " + place);
        } else {
            lanes.put(lane, new Lane(place));
        }
    }

    private void begin(StatusModel status) {
        if (lanes.isEmpty()) {
            status.error(-221, "Settings conflict; no lane is connected");
            return;
        }
        for (Lane lane : lanes.values()) {
            lane.steps = new short[points];
            lane.ring = new short[Math.max(1, before)];
            lane.smooth = Double.NaN;
            lane.mean = Double.NaN;
        }
        armed = true;
        waiting = internal;
        seen = 0;
        high = false;
        since = 0;
        acquired = 0;
        owed = 0;
        late = number > 1 ? (int) (LAG / interval) : 0;
    }

    private Optional<Lane> lane(String number, StatusModel status) {
        Lane lane = lanes.get(Integer.parseInt(number));
        if (lane == null) {
            status.error(-221, "Settings conflict; lane " + number + " is not connected");
        }
        return Optional.ofNullable(lane);
    }

    /** A number within its limits; the nearer limit, and an error, when it is beyond. */
    private static double above(String text, double least, double most, StatusModel status) {
        double value = Double.parseDouble(text);
        if (!(value >= least && value <= most)) {
            status.error(
                    -222, "Data out of range; " + text + ", expected " + least + " to " + most);
            return Double.isNaN(value) || value < least ? least : most;
        }
        return value;
    }
}
