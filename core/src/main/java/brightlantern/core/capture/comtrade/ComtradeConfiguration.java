package brightlantern.core.capture.comtrade;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * The configuration of a record (IEEE C37.111-2013, clause 7): what its channels are called and how
 * numbers become quantities. Years 1991, 1999 and 2013 are read.
 *
 * @param digital names of the channels that are on or off
 * @param rate samples a second; 0 where each sample tells its own time
 * @param last number of the last sample; 0 where it is not told
 * @param timeScale what a time stamp is multiplied with, to be microseconds
 */
record ComtradeConfiguration(
        List<Analog> analog,
        List<String> digital,
        double rate,
        long last,
        DataKind kind,
        double timeScale) {
    /** More channels than any instrument has. */
    private static final int MOST_CHANNELS = 999;

    private static final int DATES = 2;

    /** How the data are written. */
    enum DataKind {
        ASCII(0),
        BINARY(2),
        BINARY32(4),
        FLOAT32(4);

        private final int bytes;

        DataKind(int bytes) {
            this.bytes = bytes;
        }

        /** Of an analog channel, in a sample. */
        int bytes() {
            return bytes;
        }
    }

    /** A channel of numbers: {@code a·x + b} in its unit. */
    record Analog(String name, String unit, double a, double b) {}

    /** Bytes of a sample: its number, its time, its channels (clause 8.6). */
    int sampleBytes() {
        return 8 + analog.size() * kind.bytes() + (digital.size() + 15) / 16 * 2;
    }

    /** Reads lines one after another, and says where it is. */
    private static final class Lines {
        private final String[] all;

        /** Lines read so far: the number of the last one. */
        private int at;

        Lines(String text) {
            all = text.split("\r\n|\n|\r", -1);
        }

        String[] next(String expected) {
            at++;
            if (at > all.length || all[at - 1].isBlank()) {
                throw wrong(expected, "the end");
            }
            return all[at - 1].split(",", -1);
        }

        IllegalArgumentException wrong(String expected, String found) {
            return new IllegalArgumentException(
                    "Line %d of the configuration: expected %s, found %s"
                            .formatted(at, expected, found));
        }

        double number(String field, String name) {
            try {
                double value = Double.parseDouble(field.trim());
                if (Double.isFinite(value)) {
                    return value;
                }
            } catch (NumberFormatException no) {
                // told below
            }
            throw wrong("a number for " + name, "'" + field.trim() + "'");
        }

        int count(String field, String name) {
            double value = number(field, name);
            if (value < 0 || value > MOST_CHANNELS || value != Math.rint(value)) {
                throw wrong("0 to " + MOST_CHANNELS + " for " + name, "'" + field.trim() + "'");
            }
            return (int) value;
        }
    }

    /**
     * @throws IllegalArgumentException names the line, what was expected and what was found
     */
    static ComtradeConfiguration read(String text) {
        Lines lines = new Lines(text);
        lines.next("station, device and year");
        String[] counts = lines.next("the numbers of channels");
        if (counts.length < 3) {
            throw lines.wrong(
                    "all, analog (A) and digital (D) channels", counts.length + " fields");
        }
        int analog = lines.count(counts[1].replaceAll("[Aa]\\s*$", ""), "analog channels");
        int digital = lines.count(counts[2].replaceAll("[Dd]\\s*$", ""), "digital channels");
        List<Analog> numbers = new ArrayList<>();
        for (int i = 0; i < analog; i++) {
            String[] f = lines.next("an analog channel");
            if (f.length < 7) {
                throw lines.wrong("an analog channel of 10 fields or more", f.length + " fields");
            }
            numbers.add(
                    new Analog(
                            f[1].trim().isEmpty() ? "Channel " + (i + 1) : f[1].trim(),
                            f[4].trim(),
                            lines.number(f[5], "a"),
                            lines.number(f[6], "b")));
        }
        List<String> states = new ArrayList<>();
        for (int i = 0; i < digital; i++) {
            String[] f = lines.next("a digital channel");
            states.add(f.length < 2 || f[1].isBlank() ? "State " + (i + 1) : f[1].trim());
        }
        lines.next("the frequency of the line");
        int rates = lines.count(lines.next("the number of rates")[0], "rates");
        double rate = 0;
        long last = 0;
        for (int i = 0; i < Math.max(1, rates); i++) {
            String[] f = lines.next("a rate and its last sample");
            if (f.length < 2) {
                throw lines.wrong("a rate and its last sample", f.length + " field");
            }
            double its = lines.number(f[0], "the rate");
            if (i > 0 && its != rate) {
                throw lines.wrong("one rate for all samples", "%s and %s".formatted(rate, its));
            }
            rate = its;
            last = (long) lines.number(f[1], "the last sample");
        }
        for (int i = 0; i < DATES; i++) {
            lines.next("a date and a time");
        }
        String kind = lines.next("the kind of the data")[0].trim().toUpperCase(Locale.ROOT);
        DataKind as;
        try {
            as = DataKind.valueOf(kind);
        } catch (IllegalArgumentException none) {
            throw lines.wrong("ASCII, BINARY, BINARY32 or FLOAT32", "'" + kind + "'");
        }
        boolean more = lines.at < lines.all.length && !lines.all[lines.at].isBlank();
        double scale = more ? lines.number(lines.next("a factor")[0], "the factor of times") : 1;
        return new ComtradeConfiguration(numbers, states, rate, last, as, scale);
    }
}
