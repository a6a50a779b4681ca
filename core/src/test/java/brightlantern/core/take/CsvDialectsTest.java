package brightlantern.core.take;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.take.csv.CsvImport;
import brightlantern.core.take.csv.CsvImport.Imported;
import brightlantern.core.take.csv.CsvLook;
import brightlantern.core.take.csv.Dialect;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Logs of random content in random dialects come in as they were written. */
class CsvDialectsTest {
    private static final int LOGS = 40;
    private static final List<String> NAMES = List.of("speed", "temp", "boost", "load", "flow");
    private static final List<String> UNITS = List.of("rpm", "°C", "kPa", "%", "kg/h");
    private static final LocalDateTime MORNING = LocalDateTime.of(2026, 11, 2, 9, 58, 30);

    /** How the time of a row is told. */
    private enum Time {
        SECONDS,
        MILLISECONDS,
        CLOCK,
        TIMESTAMP;

        String name(boolean unitsInNames) {
            return switch (this) {
                case SECONDS -> unitsInNames ? "time [s]" : "time";
                case MILLISECONDS -> "time [ms]";
                case CLOCK -> "clock";
                case TIMESTAMP -> "timestamp";
            };
        }

        String told(double seconds, char point) {
            LocalDateTime then = MORNING.plusNanos(Math.round(seconds * 1e9));
            return switch (this) {
                case SECONDS -> String.format(Locale.ROOT, "%.2f", seconds).replace('.', point);
                case MILLISECONDS -> String.valueOf(Math.round(seconds * 1000));
                case CLOCK -> DateTimeFormatter.ofPattern("HH:mm:ss.SSS").format(then);
                case TIMESTAMP ->
                        DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss.SSS").format(then);
            };
        }
    }

    private enum Units {
        NONE,
        BRACKETS,
        PARENTHESES,
        ROW
    }

    /** One log and how it is written. */
    private static final class Log {
        final Random random;
        final char separator;
        final char point;
        final boolean quoted;
        final Units units;
        final Time time;
        final int columns;
        final int rows;
        final int[] digits;
        final double[] seconds;
        final double[][] values;

        Log(Random random, Time time) {
            this.random = random;
            this.time = time;
            separator = ",;\t|".charAt(random.nextInt(4));
            quoted = random.nextInt(4) == 0;
            point = separator == ',' && !quoted ? '.' : random.nextBoolean() ? ',' : '.';
            Units[] all = Units.values();
            Units chosen = all[random.nextInt(all.length)];
            // a row of units names the unit of the time as well
            units = chosen == Units.ROW && time != Time.SECONDS ? Units.NONE : chosen;
            columns = 1 + random.nextInt(NAMES.size());
            rows = 12 + random.nextInt(60);
            digits = new int[columns];
            values = new double[columns][rows];
            seconds = new double[rows];
            double t = 0;
            for (int r = 0; r < rows; r++) {
                seconds[r] = t;
                t += (1 + random.nextInt(40)) / 20.0;
            }
            for (int c = 0; c < columns; c++) {
                // a decimal comma shows in a log only where something has decimals
                digits[c] = c == 0 ? 1 + random.nextInt(3) : random.nextInt(4);
                double scale = Math.pow(10, digits[c]);
                for (int r = 0; r < rows; r++) {
                    values[c][r] = Math.round((random.nextDouble() - 0.2) * 4000 * scale) / scale;
                }
            }
        }

        private String cell(String text) {
            return quoted ? '"' + text + '"' : text;
        }

        private String line(List<String> cells) {
            return cells.stream()
                    .map(this::cell)
                    .collect(Collectors.joining(String.valueOf(separator)));
        }

        private String head(int c) {
            return switch (units) {
                case BRACKETS -> NAMES.get(c) + " [" + UNITS.get(c) + "]";
                case PARENTHESES -> NAMES.get(c) + " (" + UNITS.get(c) + ")";
                default -> NAMES.get(c);
            };
        }

        private String number(int c, int r) {
            return String.format(Locale.ROOT, "%." + digits[c] + "f", values[c][r])
                    .replace('.', point);
        }

        byte[] written() throws IOException {
            List<String> lines = new ArrayList<>();
            List<String> heads = new ArrayList<>();
            heads.add(time.name(units == Units.BRACKETS));
            for (int c = 0; c < columns; c++) {
                heads.add(head(c));
            }
            lines.add(line(heads));
            if (units == Units.ROW) {
                List<String> row = new ArrayList<>(List.of("s"));
                row.addAll(UNITS.subList(0, columns));
                lines.add(line(row));
            }
            for (int r = 0; r < rows; r++) {
                List<String> cells = new ArrayList<>(List.of(time.told(seconds[r], point)));
                for (int c = 0; c < columns; c++) {
                    cells.add(number(c, r));
                }
                lines.add(line(cells));
                if (r == rows / 2 && random.nextInt(5) == 0) {
                    // a logger that was switched on again writes its head once more
                    lines.add(line(heads));
                }
            }
            String end = random.nextBoolean() ? "\n" : "\r\n";
            String text = String.join(end, lines) + (random.nextBoolean() ? end : "");
            int encoding = random.nextInt(3);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            if (encoding == 0) {
                out.write(new byte[] {(byte) 0xEF, (byte) 0xBB, (byte) 0xBF});
            }
            out.write(
                    text.getBytes(
                            encoding == 1
                                    ? Charset.forName("windows-1252")
                                    : StandardCharsets.UTF_8));
            return out.toByteArray();
        }

        String told() {
            return "separator '%s', decimal '%s', quoted %s, units %s, time %s, %d columns"
                    .formatted(
                            separator == '\t' ? "tab" : separator,
                            point,
                            quoted,
                            units,
                            time,
                            columns);
        }
    }

    @ParameterizedTest
    @EnumSource(Time.class)
    void whatWasWrittenComesIn(Time time) throws IOException {
        for (int i = 0; i < LOGS; i++) {
            Log log = new Log(new Random(1000L * time.ordinal() + i), time);
            byte[] bytes = log.written();
            String as =
                    log.told()
                            + "\n"
                            + new String(bytes, StandardCharsets.UTF_8).lines().limit(4).toList();
            Dialect dialect = CsvLook.at(bytes).dialect();
            Imported in =
                    CsvImport.read(
                            new ByteArrayInputStream(bytes), dialect, CsvImport.own(dialect));
            assertThat(in.rows()).as(as).isEqualTo(log.rows);
            assertThat(in.take().columns()).as(as).hasSize(log.columns);
            for (int c = 0; c < log.columns; c++) {
                Take.Column column = in.take().columns().get("log." + NAMES.get(c));
                assertThat(column).as(as).isNotNull();
                assertThat(column.size()).as(as).isEqualTo(log.rows);
                for (int r = 0; r < log.rows; r++) {
                    assertThat(column.value(r)).as(as).isCloseTo(log.values[c][r], within(1e-9));
                    assertThat(column.seconds(r)).as(as).isCloseTo(log.seconds[r], within(1e-6));
                }
            }
        }
    }
}
