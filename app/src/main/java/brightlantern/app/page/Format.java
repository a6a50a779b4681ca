package brightlantern.app.page;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import org.springframework.stereotype.Component;

/** Times and figures as pages show them; templates reach it as {@code @format}. */
@Component("format")
public class Format {
    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT).withZone(ZoneId.systemDefault());
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMM yyyy, HH:mm", Locale.ENGLISH)
                    .withZone(ZoneId.systemDefault());

    public static String time(Instant at) {
        return TIME.format(at);
    }

    public String clock(Instant at) {
        return TIME.format(at);
    }

    public String day(Instant at) {
        return DAY.format(at);
    }

    /**
     * @param epochSeconds seconds since 1970; what is no time gives an empty text
     */
    public String epoch(double epochSeconds) {
        return Double.isFinite(epochSeconds)
                ? DAY.format(Instant.ofEpochSecond(Math.round(epochSeconds)))
                : "";
    }

    public String percent(double share) {
        return String.format(Locale.ROOT, "%.0f %%", 100 * share);
    }

    public String number(double value, int digits) {
        return Double.isFinite(value)
                ? String.format(Locale.ROOT, "%." + digits + "f", value)
                : "–";
    }
}
