package brightlantern.standin.instrument;

import brightlantern.core.circuit.Load;
import brightlantern.wire.scpi.ScpiLine;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.function.BiConsumer;
import java.util.function.Function;

/**
 * A volt meter: {@code ROUTe:CLOSe (@point)}, {@code ROUTe:CLOSe?}, {@code INPut:LOAD
 * NOTHing|LAMP|BULB}, {@code MEASure:VOLTage:DC?}. The black lead is on battery minus.
 */
public final class Meter implements Instrument {
    /** Usual port for raw SCPI sockets, registered with IANA. */
    public static final int PORT = 5025;

    private static final double GAIN_ERROR = 0.0008;
    private static final double NOISE_VOLTS = 0.002;

    private final Function<String, OptionalDouble> volts;
    private final BiConsumer<String, Load> hang;
    private final Random random = new Random(7);
    private String point = "";
    private Load load = Load.NOTHING;

    /**
     * @param volts reads a point of the harness
     * @param hang hangs a load on a point
     */
    public Meter(Function<String, OptionalDouble> volts, BiConsumer<String, Load> hang) {
        this.volts = volts;
        this.hang = hang;
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
        } else if (volts.apply(line.parameters().get(0)).isEmpty()) {
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
        OptionalDouble true_ = volts.apply(point);
        if (true_.isEmpty()) {
            status.error(-221, "Settings conflict; no point routed");
            return "9.91E37";
        }
        double shown = true_.getAsDouble() * (1 + GAIN_ERROR) + NOISE_VOLTS * random.nextGaussian();
        return String.format(Locale.ROOT, "%+.5E", shown);
    }
}
