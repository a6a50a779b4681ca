package brightlantern.core.study.map;

import brightlantern.core.signal.Words;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeSet;

/**
 * An operating map as CSV (RFC 4180), a line a cell: edges, mean, spread, samples, visits, half
 * width of the confidence interval. Empty cells are left out. Numbers come back to the last bit: a
 * map that was kept does not differ from itself.
 */
public final class MapCsv {
    private static final List<String> HEAD =
            List.of(
                    "x from", "x to", "y from", "y to", "mean", "spread", "samples", "visits",
                    "x mean", "y mean", "within");

    private MapCsv() {}

    /** Writes a map with full digits; {@code read} gives the same back. */
    public static void write(OperatingMap map, Writer out) {
        try (CsvWriter csv = CsvWriter.builder().build(out)) {
            csv.writeRecord(
                    "map of",
                    Words.harmless(map.value()),
                    "x",
                    Words.harmless(map.x().value()),
                    "y",
                    Words.harmless(map.y().value()));
            csv.writeRecord(HEAD);
            for (int r = 0; r < map.y().cells(); r++) {
                for (int c = 0; c < map.x().cells(); c++) {
                    OperatingMap.Cell cell = map.cell(c, r);
                    if (cell.samples() > 0) {
                        csv.writeRecord(
                                String.valueOf(map.x().from(c)),
                                String.valueOf(map.x().to(c)),
                                String.valueOf(map.y().from(r)),
                                String.valueOf(map.y().to(r)),
                                String.valueOf(cell.mean()),
                                String.valueOf(cell.spread()),
                                String.valueOf(cell.samples()),
                                String.valueOf(cell.visits()),
                                String.valueOf(cell.atX()),
                                String.valueOf(cell.atY()),
                                Double.isNaN(cell.within()) ? "" : String.valueOf(cell.within()));
                    }
                }
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /**
     * @throws IllegalArgumentException names line and what was expected
     */
    public static OperatingMap read(Reader in) {
        List<CsvRecord> lines = new ArrayList<>();
        try (CsvReader<CsvRecord> csv =
                CsvReader.builder()
                        .allowExtraFields(true)
                        .allowMissingFields(true)
                        .ofCsvRecord(in)) {
            csv.forEach(lines::add);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
        if (lines.size() < 3
                || lines.get(0).getFieldCount() < 6
                || !lines.get(0).getField(0).equals("map of")
                || !lines.get(1).getFields().equals(HEAD)) {
            throw new IllegalArgumentException(
                    "Line 1: expected a map as this program writes it ('map of', then a line a cell)");
        }
        TreeSet<Double> xs = new TreeSet<>();
        TreeSet<Double> ys = new TreeSet<>();
        List<double[]> rows = new ArrayList<>();
        for (CsvRecord line : lines.subList(2, lines.size())) {
            double[] row = new double[HEAD.size()];
            for (int i = 0; i < row.length; i++) {
                String field = i < line.getFieldCount() ? line.getField(i) : "";
                try {
                    row[i] = field.isEmpty() && i == 10 ? Double.NaN : Double.parseDouble(field);
                } catch (NumberFormatException wrong) {
                    throw new IllegalArgumentException(
                            "Line "
                                    + line.getStartingLineNumber()
                                    + ", "
                                    + HEAD.get(i)
                                    + ": expected a number, found '"
                                    + field
                                    + "'");
                }
            }
            xs.add(row[0]);
            xs.add(row[1]);
            ys.add(row[2]);
            ys.add(row[3]);
            rows.add(row);
        }
        Axis x = axis(Words.asMeant(lines.get(0).getField(3)), xs);
        Axis y = axis(Words.asMeant(lines.get(0).getField(5)), ys);
        OperatingMap.Cell[] cells = new OperatingMap.Cell[x.cells() * y.cells()];
        Arrays.fill(cells, OperatingMap.Cell.EMPTY);
        for (double[] r : rows) {
            cells[y.cell(r[2]) * x.cells() + x.cell(r[0])] =
                    new OperatingMap.Cell((long) r[6], (int) r[7], r[4], r[5], r[8], r[9], r[10]);
        }
        return OperatingMap.read(Words.asMeant(lines.get(0).getField(1)), x, y, cells);
    }

    private static Axis axis(String value, TreeSet<Double> edges) {
        return new Axis(value, edges.stream().mapToDouble(e -> e).toArray());
    }
}
