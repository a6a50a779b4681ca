package brightlantern.core.signal;

import java.util.Map;

/**
 * Conversion between units of one quantity, by way of the SI unit (BIPM SI Brochure, 9th ed.). The
 * only place for it.
 */
public final class Units {
    private record Unit(String quantity, double factor, double offset) {}

    private static final Map<String, Unit> KNOWN =
            Map.ofEntries(
                    Map.entry("Pa", new Unit("pressure", 1, 0)),
                    Map.entry("hPa", new Unit("pressure", 100, 0)),
                    Map.entry("mbar", new Unit("pressure", 100, 0)),
                    Map.entry("kPa", new Unit("pressure", 1_000, 0)),
                    Map.entry("bar", new Unit("pressure", 100_000, 0)),
                    Map.entry("MPa", new Unit("pressure", 1_000_000, 0)),
                    Map.entry("°C", new Unit("temperature", 1, 273.15)),
                    Map.entry("K", new Unit("temperature", 1, 0)),
                    Map.entry("°F", new Unit("temperature", 5 / 9.0, 459.67 * 5 / 9)),
                    Map.entry("km/h", new Unit("speed", 1 / 3.6, 0)),
                    Map.entry("m/s", new Unit("speed", 1, 0)),
                    Map.entry("V", new Unit("voltage", 1, 0)),
                    Map.entry("mV", new Unit("voltage", 0.001, 0)),
                    Map.entry("kg/h", new Unit("mass flow", 1 / 3600.0, 0)),
                    Map.entry("g/s", new Unit("mass flow", 0.001, 0)));

    private Units() {}

    /**
     * @throws IllegalArgumentException when the units do not measure the same thing
     */
    public static double convert(double value, String from, String to) {
        if (from.equals(to)) {
            return value;
        }
        Unit a = KNOWN.get(from);
        Unit b = KNOWN.get(to);
        if (a == null || b == null || !a.quantity.equals(b.quantity)) {
            throw new IllegalArgumentException("Cannot turn " + from + " into " + to);
        }
        return (value * a.factor + a.offset - b.offset) / b.factor;
    }
}
