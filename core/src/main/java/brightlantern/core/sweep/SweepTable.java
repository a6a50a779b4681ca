package brightlantern.core.sweep;

import brightlantern.core.code.StoredCode;
import brightlantern.core.signal.Words;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;

/**
 * A sweep, or the comparison of two, as a table that leaves the program: as CSV (RFC 4180), as
 * plain text to paste, or on paper.
 *
 * @param facts what stands above the table, a line each
 */
public record SweepTable(
        String title, List<String> facts, List<String> head, List<List<String>> rows) {
    public SweepTable {
        facts = List.copyOf(facts);
        head = List.copyOf(head);
        rows = rows.stream().map(List::copyOf).toList();
    }

    /** One row a code, what matters first; modules without codes follow with their answer. */
    public static SweepTable of(
            String title, List<String> facts, Sweep sweep, List<CodeWeigher.Weighed> weighed) {
        List<List<String>> rows = new ArrayList<>();
        for (CodeWeigher.Weighed w : weighed) {
            StoredCode c = w.code();
            rows.add(
                    List.of(
                            c.moduleName(),
                            c.code(),
                            c.name(),
                            w.role().words(),
                            String.join("; ", c.statusByte().words()),
                            c.occurrences() < 0 ? "" : String.valueOf(c.occurrences()),
                            String.join(" ", w.reasons())));
        }
        for (Sweep.ModuleResult m : sweep.modules()) {
            if (m.codes().isEmpty()) {
                rows.add(
                        List.of(
                                m.name(),
                                "",
                                "",
                                "",
                                SweepComparison.words(m.answer()),
                                "",
                                m.trouble()));
            }
        }
        return new SweepTable(
                title,
                facts,
                List.of("module", "code", "meaning", "part", "status", "times", "why"),
                rows);
    }

    /** One row a change. */
    public static SweepTable of(
            String title, List<String> facts, SweepComparison.Result comparison) {
        List<List<String>> rows = new ArrayList<>();
        comparison
                .codes()
                .forEach(
                        c ->
                                rows.add(
                                        List.of(
                                                c.change().words(),
                                                c.code().moduleName(),
                                                c.code().code(),
                                                c.code().name(),
                                                c.detail())));
        comparison
                .modules()
                .forEach(
                        m ->
                                rows.add(
                                        List.of(
                                                "changed",
                                                m.module(),
                                                "",
                                                m.what(),
                                                m.before() + " → " + m.after())));
        return new SweepTable(
                title, facts, List.of("change", "module", "code", "meaning", "detail"), rows);
    }

    /** As a CSV of RFC 4180; what could be taken for a formula is neutralised. */
    public String csv() {
        StringWriter out = new StringWriter();
        try (CsvWriter csv = CsvWriter.builder().build(out)) {
            csv.writeRecord(head);
            rows.forEach(r -> csv.writeRecord(r.stream().map(Words::harmless).toList()));
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
        return out.toString();
    }

    /** Columns in line, the last one free. */
    public String text() {
        int[] width = new int[head.size()];
        List<List<String>> all = new ArrayList<>();
        all.add(head);
        rows.forEach(r -> all.add(r.stream().map(Words::plain).toList()));
        for (List<String> row : all) {
            for (int i = 0; i < row.size(); i++) {
                width[i] = Math.max(width[i], row.get(i).length());
            }
        }
        StringBuilder text = new StringBuilder(title).append('\n');
        facts.forEach(f -> text.append(Words.plain(f)).append('\n'));
        text.append('\n');
        for (List<String> row : all) {
            StringBuilder line = new StringBuilder();
            for (int i = 0; i < row.size(); i++) {
                line.append(row.get(i));
                if (i < row.size() - 1) {
                    line.append(" ".repeat(width[i] - row.get(i).length() + 2));
                }
            }
            text.append(line.toString().stripTrailing()).append('\n');
        }
        return text.toString();
    }
}
