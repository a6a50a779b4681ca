package brightlantern.standin.instrument;

import brightlantern.wire.scpi.ScpiLine;
import java.io.ByteArrayOutputStream;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * An oscilloscope with eight lanes of 12 bits. Lanes are connected with {@code ROUTe:CLOSe
 * (@1!exhaust)} and freed with {@code ROUTe:OPEN:ALL}; {@code SENSe:VOLTage:RANGe 5,(@1)} is what a
 * lane takes to either side; {@code SENSe:SWEep:TINTerval} and {@code :POINts} how often and how
 * much, {@code :OREFerence:POINts} how much of it before the trigger; {@code TRIGger:SOURce
 * IMMediate|INTernal}, {@code TRIGger:LEVel 80,(@1)}; {@code INITiate}, {@code ABORt}; {@code
 * STATus:OPERation:CONDition?} tells sweeping (bit 3) and waiting for the trigger (bit 5); {@code
 * TRACe:POINts?} how much is there, {@code TRACe:PREamble? (@1)} size of a step and offset, {@code
 * TRACe:DATA? (@1),0,1000} steps as 16-bit integers, high byte first, in a definite-length block
 * (IEEE 488.2, clause 8.7.9).
 */
public final class Scope implements Instrument {
    /** Beside the meter's. */
    public static final int PORT = 5026;

    private static final int LANES = 8;
    private static final int STEPS = 2048;
    private static final int SWEEPING = 1 << 3;
    private static final int WAITING = 1 << 5;
    private static final double SHORTEST = 1e-7;
    private static final int MOST_POINTS = 4_000_000;
    private static final int MOST_BLOCK = 250_000;

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

        Lane(String place) {
            this.place = place;
        }

        short step(double value) {
            return (short) Math.max(-STEPS, Math.min(STEPS - 1, Math.round(value * STEPS / range)));
        }
    }

    private final Places places;
    private final Map<Integer, Lane> lanes = new TreeMap<>();
    private double interval = 1e-3;
    private int points = 1000;
    private int before;
    private int triggerLane;
    private double level;
    private boolean internal;
    private boolean armed;
    private boolean waiting;
    private int seen;
    private int acquired;
    private double owed;

    public Scope(Places places) {
        this.places = places;
    }

    @Override
    public String identity() {
        return "LARKSPUR YARD,STAND-IN SCOPE,0001,1.0";
    }

    @Override
    public synchronized void reset() {
        lanes.clear();
        internal = false;
        armed = false;
        before = 0;
        acquired = 0;
    }

    /** Whether it wants to be fed. */
    public synchronized boolean isArmed() {
        return armed;
    }

    /** Time goes by for what its lanes are connected to. */
    public synchronized void step(double seconds) {
        if (!armed) {
            return;
        }
        owed += seconds / interval;
        int count = (int) owed;
        owed -= count;
        if (count == 0) {
            return;
        }
        Map<String, double[]> felt =
                places.feel(lanes.values().stream().map(l -> l.place).toList(), seconds, count);
        for (int i = 0; i < count && armed; i++) {
            take(felt, i);
        }
    }

    private void take(Map<String, double[]> felt, int i) {
        if (waiting) {
            lanes.forEach(
                    (n, lane) -> {
                        if (before > 0) {
                            lane.ring[seen % before] = lane.step(felt.get(lane.place)[i]);
                        }
                    });
            seen++;
            Lane by = lanes.get(triggerLane);
            waiting = by != null && felt.get(by.place)[i] < level || seen < before;
            if (!waiting) {
                lanes.values().forEach(this::unroll);
                acquired = before;
            }
            return;
        }
        lanes.forEach((n, lane) -> lane.steps[acquired] = lane.step(felt.get(lane.place)[i]));
        acquired++;
        armed = acquired < points;
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
        ByteArrayOutputStream out = new ByteArrayOutputStream(2 * count + 12);
        String length = "" + 2 * count;
        out.writeBytes(Instrument.text("#" + length.length() + length));
        for (int i = from; i < from + count; i++) {
            out.write(steps[i] >> 8);
            out.write(steps[i]);
        }
        return out.toByteArray();
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
        }
        armed = true;
        waiting = internal;
        seen = 0;
        acquired = 0;
        owed = 0;
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
