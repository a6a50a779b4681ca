package brightlantern.standin.instrument;

import brightlantern.core.circuit.Load;
import brightlantern.wire.scpi.ScpiLine;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.function.BiConsumer;
import java.util.function.ToDoubleFunction;

/**
 * A meter: {@code ROUTe:CLOSe (@point)}, {@code ROUTe:CLOSe?}, {@code INPut:LOAD
 * NOTHing|LAMP|BULB}, {@code MEASure:VOLTage:DC?}, {@code MEASure:VOLTage:AC?}, {@code
 * MEASure:FREQuency?}, {@code MEASure:PDUTycycle?}, {@code MEASure:RESistance?}, {@code
 * MEASure:CURRent:DC?} with a clamp. The black lead is on battery minus; on ohms both are at the
 * pins of what is measured alone.
 */
public final class Meter implements Instrument {
    /** Usual port for raw SCPI sockets, registered with IANA. */
    public static final int PORT = 5025;

    private static final double GAIN_ERROR = 0.0008;
    private static final double NOISE_VOLTS = 0.002;

    private static final double OHM_ERROR = 0.003;
    private static final double LEADS_OHM = 0.03;

    /** More than it can tell. */
    private static final double MOST_OHM = 2e7;

    private static final double CLAMP_ERROR = 0.015;

    /** What alternates is looked at for so long. */
    private static final double GATE_SECONDS = 0.2;

    private static final int GATE_SAMPLES = 20_000;

    private static final String OVERLOAD = "9.9E37";
    private static final String NO_NUMBER = "9.91E37";

    private final Places places;
    private final BiConsumer<String, Load> hang;
    private final Random random = new Random(7);
    private String point = "";
    private Load load = Load.NOTHING;

    /** Where it can be held; a figure is empty where there is none of its kind. */
    public interface Places {
        /** Volts of a point against battery minus. */
        OptionalDouble volts(String point);

        /** Volts of a point over a while, evenly; none where nothing of it changes. */
        default double[] wave(String point, double seconds, int count) {
            return new double[0];
        }

        /** Ohms of what is measured alone; NaN while somebody drives current through it. */
        default OptionalDouble ohms(String what) {
            return OptionalDouble.empty();
        }

        /** Amps in a wire. */
        default OptionalDouble amps(String wire) {
            return OptionalDouble.empty();
        }
    }

    /**
     * @param places that it can be held to
     * @param hang hangs a load on a point
     */
    public Meter(Places places, BiConsumer<String, Load> hang) {
        this.places = places;
        this.hang = hang;
    }

    private boolean isPlace(String name) {
        return places.volts(name).isPresent()
                || places.ohms(name).isPresent()
                || places.amps(name).isPresent();
    }

    @Override
    public String identity() {
        return "LARKSPUR YARD,STAND-IN METER,0001,1.0";
    }

    @Override
    public void reset() {
        hang("", Load.NOTHING);
    }

    @Override
    public byte[] answer(ScpiLine line, StatusModel status) {
        if (line.is("ROUTe:CLOSe?")) {
            return Instrument.text(point.isEmpty() ? "(@)" : "(@" + point + ")");
        } else if (line.is("ROUTe:CLOSe")) {
            route(line, status);
        } else if (line.is("INPut:LOAD")) {
            load(line, status);
        } else if (line.is("MEASure:VOLTage:DC?") || line.is("MEASure:VOLTage?")) {
            return Instrument.text(measure(status));
        } else if (line.is("MEASure:VOLTage:AC?")) {
            return Instrument.text(waves(status, WaveFigures::alternating));
        } else if (line.is("MEASure:FREQuency?")) {
            return Instrument.text(waves(status, WaveFigures::hertz));
        } else if (line.is("MEASure:PDUTycycle?")) {
            return Instrument.text(waves(status, f -> 100 * f.duty()));
        } else if (line.is("MEASure:RESistance?")) {
            return Instrument.text(ohms(status));
        } else if (line.is("MEASure:CURRent:DC?") || line.is("MEASure:CURRent?")) {
            return Instrument.text(amps(status));
        } else {
            status.error(-113, "Undefined header; " + line.header());
        }
        return new byte[0];
    }

    private synchronized void hang(String where, Load what) {
        point = where;
        load = what;
        hang.accept(where, what);
    }

    private void route(ScpiLine line, StatusModel status) {
        if (line.parameters().size() != 1) {
            status.error(-109, "Missing parameter; one point as (@name)");
        } else if (!isPlace(line.parameters().get(0))) {
            status.error(-224, "Illegal parameter value; no point " + line.parameters().get(0));
        } else {
            hang(line.parameters().get(0), load);
        }
    }

    private void load(ScpiLine line, StatusModel status) {
        String name =
                line.parameters().isEmpty()
                        ? ""
                        : line.parameters().get(0).toUpperCase(Locale.ROOT);
        switch (name) {
            case "NOTH", "NOTHING" -> hang(point, Load.NOTHING);
            case "LAMP" -> hang(point, Load.LAMP);
            case "BULB" -> hang(point, Load.BULB);
            default ->
                    status.error(-224, "Illegal parameter value; expected NOTHing, LAMP or BULB");
        }
    }

    private String measure(StatusModel status) {
        OptionalDouble its = places.volts(point);
        return its.isEmpty()
                ? nothing(status)
                : text(its.getAsDouble() * (1 + GAIN_ERROR) + NOISE_VOLTS * random.nextGaussian());
    }

    private String waves(StatusModel status, ToDoubleFunction<WaveFigures> figure) {
        OptionalDouble its = places.volts(point);
        if (its.isEmpty()) {
            return nothing(status);
        }
        double[] wave = places.wave(point, GATE_SECONDS, GATE_SAMPLES);
        if (wave.length == 0) {
            wave = new double[] {its.getAsDouble()};
        }
        double told = figure.applyAsDouble(WaveFigures.of(wave, GATE_SECONDS));
        return Double.isInfinite(told) ? OVERLOAD : text(told * (1 + GAIN_ERROR));
    }

    private String ohms(StatusModel status) {
        OptionalDouble its = places.ohms(point);
        if (its.isEmpty() || Double.isNaN(its.getAsDouble())) {
            return nothing(status);
        }
        return its.getAsDouble() > MOST_OHM
                ? OVERLOAD
                : text(LEADS_OHM + its.getAsDouble() * (1 + OHM_ERROR * random.nextGaussian()));
    }

    private String amps(StatusModel status) {
        OptionalDouble its = places.amps(point);
        return its.isEmpty()
                ? nothing(status)
                : text(its.getAsDouble() * (1 + CLAMP_ERROR * random.nextGaussian()));
    }

    private String nothing(StatusModel status) {
        status.error(-221, "Settings conflict; nothing of that kind is routed");
        return NO_NUMBER;
    }

    private static String text(double figure) {
        return String.format(Locale.ROOT, "%+.5E", figure);
    }
}
