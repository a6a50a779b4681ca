package brightlantern.core.take;

import brightlantern.core.signal.Scaling;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleDescription.Value;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;

/**
 * A take as CSV (RFC 4180): seconds, one column a value with its unit in the head, a column for
 * marks.
 */
public final class TakeCsv {
    private TakeCsv() {}

    /** A text that a spreadsheet would take for a formula is marked as a text. */
    static String harmless(String text) {
        return !text.isEmpty() && "=+-@\t\r".indexOf(text.charAt(0)) >= 0 ? "'" + text : text;
    }

    /** A cell is empty where the value was not sampled at that moment; nothing is filled in. */
    public static void write(Take take, VehicleDescription description, Writer out) {
        List<Value> values =
                take.columns().keySet().stream()
                        .flatMap(id -> description.value(id).stream())
                        .toList();
        TreeSet<Double> times = new TreeSet<>();
        take.columns()
                .values()
                .forEach(
                        column -> {
                            for (int i = 0; i < column.size(); i++) {
                                times.add(column.seconds(i));
                            }
                        });
        take.marks().forEach(mark -> times.add(mark.seconds()));
        try (CsvWriter csv = CsvWriter.builder().build(out)) {
            List<String> head = new ArrayList<>(List.of("time [s]"));
            values.forEach(
                    v -> head.add(v.isState() ? v.name() : v.name() + " [" + v.show() + "]"));
            head.add("mark");
            csv.writeRecord(head);
            for (double t : times) {
                List<String> row = new ArrayList<>(List.of(String.format(Locale.ROOT, "%.3f", t)));
                for (Value value : values) {
                    Take.Column column = take.columns().get(value.id());
                    int i = column.indexAt(t);
                    row.add(
                            i >= 0 && column.seconds(i) == t
                                    ? Scaling.show(value, column.value(i))
                                    : "");
                }
                row.add(
                        take.marks().stream()
                                .filter(m -> m.seconds() == t)
                                .map(m -> harmless(m.text()))
                                .findFirst()
                                .orElse(""));
                csv.writeRecord(row);
            }
        } catch (java.io.IOException failed) {
            throw new java.io.UncheckedIOException(failed);
        }
    }
}
