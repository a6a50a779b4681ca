package brightlantern.core.take.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Lines and cells of a log, before anything is known of its columns. */
final class LogLines {
    /** What a logger writes where it has no value. */
    private static final Set<String> NO_VALUE =
            Set.of(
                    "nan",
                    "-nan",
                    "inf",
                    "-inf",
                    "+inf",
                    "infinity",
                    "-infinity",
                    "null",
                    "n/a",
                    "na",
                    "-",
                    "--",
                    "---",
                    "none");

    private LogLines() {}

    static List<List<String>> lines(String text, char separator, boolean whole) {
        List<List<String>> lines = new ArrayList<>();
        try (CsvReader<CsvRecord> csv =
                CsvReader.builder()
                        .fieldSeparator(separator)
                        .skipEmptyLines(true)
                        .allowExtraFields(true)
                        .allowMissingFields(true)
                        .allowExtraCharsAfterClosingQuote(true)
                        .allowUnclosedQuote(true)
                        .ofCsvRecord(text)) {
            for (CsvRecord record : csv) {
                lines.add(record.getFields());
                if (lines.size() == CsvLook.LOOKED_AT) {
                    break;
                }
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        } catch (CsvParseException damaged) {
            throw new IllegalArgumentException(
                    "Line "
                            + (lines.size() + 1)
                            + ": not a line of a table (at most "
                            + CsvLook.MOST_COLUMNS
                            + " are read of its columns): "
                            + damaged.getMessage(),
                    damaged);
        }
        if (!whole && lines.size() > 1 && lines.size() < CsvLook.LOOKED_AT) {
            // the beginning ends within a line
            lines.remove(lines.size() - 1);
        }
        return lines;
    }

    /** What splits most lines into the same number of fields; the least ambiguous one first. */
    static char separator(String text, boolean whole) {
        char best = ',';
        double score = 0;
        for (char candidate : CsvLook.SEPARATORS) {
            Map<Integer, Integer> sizes = new HashMap<>();
            List<List<String>> lines = lines(text, candidate, whole);
            lines.forEach(l -> sizes.merge(l.size(), 1, Integer::sum));
            int mode =
                    sizes.entrySet().stream()
                            .max(
                                    Map.Entry.<Integer, Integer>comparingByValue()
                                            .thenComparing(Map.Entry.comparingByKey()))
                            .orElseThrow()
                            .getKey();
            double alike = (double) sizes.get(mode) / lines.size();
            // a decimal comma splits the numbers alike as well, but not the names above them
            boolean named =
                    lines.stream()
                            .anyMatch(
                                    l ->
                                            l.size() == mode
                                                    && l.stream()
                                                            .noneMatch(LogLines::beginsAsFigure));
            double its = mode < 2 ? 0 : alike + (named ? CsvLook.NAMED : 0);
            if (its > score + 0.25) {
                best = candidate;
                score = its;
            }
        }
        return best;
    }

    static boolean isNumber(String field) {
        String f = field.trim();
        return CsvLook.NUMBER.matcher(f).matches()
                || Numbers.isGrouped(f, false)
                || Numbers.isGrouped(f, true);
    }

    /** A part of a line of figures, split in the wrong place or not. */
    private static boolean beginsAsFigure(String field) {
        return field.trim().matches("[-+]?\\d.*");
    }

    static boolean isNoValue(String field) {
        return NO_VALUE.contains(field.trim().toLowerCase(Locale.ROOT));
    }

    static boolean isTime(String field) {
        String f = field.trim();
        return Times.isClock(f) || Times.isStamp(f);
    }
}
