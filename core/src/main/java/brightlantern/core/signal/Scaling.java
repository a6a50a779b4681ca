package brightlantern.core.signal;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** Raw bytes of a value to its physical quantity and to what is shown. */
public final class Scaling {
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm", Locale.ROOT).withZone(ZoneOffset.UTC);

    private Scaling() {}

    /**
     * Physical value in the value's own unit.
     *
     * @throws IllegalArgumentException when the number of bytes is not the described one
     */
    public static double physical(Value value, byte[] raw) {
        if (raw.length != value.bytes()) {
            throw new IllegalArgumentException(
                    value.name()
                            + ": expected "
                            + Words.count(value.bytes(), "byte")
                            + ", found "
                            + raw.length);
        }
        long number = value.signed() ? raw[0] : raw[0] & 0xFF;
        for (int i = 1; i < raw.length; i++) {
            number = number << 8 | raw[i] & 0xFF;
        }
        return value.isState() ? number : number * value.scale() + value.offset();
    }

    /** The inverse of {@link #physical}: rounded and held within what the bytes can carry. */
    public static byte[] raw(Value value, double physical) {
        double number = value.isState() ? physical : (physical - value.offset()) / value.scale();
        int bits = 8 * value.bytes();
        double low = value.signed() ? -Math.pow(2, bits - 1) : 0;
        double high = value.signed() ? Math.pow(2, bits - 1) - 1 : Math.pow(2, bits) - 1;
        long whole = Math.round(Math.max(low, Math.min(high, Double.isNaN(number) ? low : number)));
        byte[] raw = new byte[value.bytes()];
        for (int i = raw.length - 1; i >= 0; i--) {
            raw[i] = (byte) whole;
            whole >>= 8;
        }
        return raw;
    }

    /** In the unit in which the value is shown. */
    public static double shown(Value value, double physical) {
        return value.isState() ? physical : Units.convert(physical, value.unit(), value.show());
    }

    /** A number or state as a person reads it, without its unit. */
    public static String show(Value value, double physical) {
        if (Double.isNaN(physical)) {
            return "–";
        }
        if (value.isState()) {
            return value.states().getOrDefault((int) physical, "unknown state " + (int) physical);
        }
        if (value.isDate() && Double.isFinite(physical)) {
            return DAY.format(Instant.ofEpochSecond(Math.round(physical)));
        }
        return String.format(Locale.ROOT, "%." + value.digits() + "f", shown(value, physical));
    }
}
