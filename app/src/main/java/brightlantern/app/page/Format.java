package brightlantern.app.page;

import brightlantern.core.signal.Words;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/** Times and figures as pages show them; templates reach it as {@code @format}. */
@Component("format")
public class Format {
    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT);
    private static final DateTimeFormatter DAY =
            DateTimeFormatter.ofPattern("d MMM yyyy, HH:mm", Locale.ENGLISH);

    /** The time zone of whoever asks for the page, as its browser told; else this machine's. */
    public static ZoneId zone() {
        return Optional.ofNullable(RequestContextHolder.getRequestAttributes())
                .filter(ServletRequestAttributes.class::isInstance)
                .map(a -> ((ServletRequestAttributes) a).getRequest().getCookies())
                .stream()
                .flatMap(Arrays::stream)
                .filter(c -> c.getName().equals("zone"))
                .flatMap(c -> zone(c.getValue()).stream())
                .findFirst()
                .orElseGet(ZoneId::systemDefault);
    }

    private static Optional<ZoneId> zone(String told) {
        try {
            return Optional.of(ZoneId.of(URLDecoder.decode(told, StandardCharsets.UTF_8)));
        } catch (DateTimeException | IllegalArgumentException unknown) {
            return Optional.empty();
        }
    }

    public static String time(Instant at) {
        return TIME.withZone(zone()).format(at);
    }

    public String clock(Instant at) {
        return TIME.withZone(zone()).format(at);
    }

    public String day(Instant at) {
        return DAY.withZone(zone()).format(at);
    }

    /**
     * @param epochSeconds seconds since 1970; what is no time gives an empty text
     */
    public String epoch(double epochSeconds) {
        return Double.isFinite(epochSeconds)
                ? DAY.withZone(zone()).format(Instant.ofEpochSecond(Math.round(epochSeconds)))
                : "";
    }

    /** A number with its noun, in singular or plural. */
    public String count(long number, String noun) {
        return Words.count(number, noun);
    }

    /** A probability; no evidence makes anything quite certain. */
    public String sure(double share) {
        return Words.percent(share);
    }

    public String number(double value, int digits) {
        return Double.isFinite(value)
                ? String.format(Locale.ROOT, "%." + digits + "f", value)
                : "–";
    }
}
