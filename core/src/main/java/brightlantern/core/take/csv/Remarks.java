package brightlantern.core.take.csv;

import brightlantern.core.signal.Words;
import brightlantern.core.take.csv.Dialect.Column;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** What is told of a file that was read: the first troubles one by one, the others counted. */
final class Remarks {
    private static final int TOLD = 5;

    private final List<String> all = new ArrayList<>();
    private int badFields;
    private int badLines;

    void add(String remark) {
        all.add(remark);
    }

    void badField(Line line, Column c, String expected) {
        if (badFields++ < TOLD) {
            String found = line.text(c);
            add(
                    text(
                            "Line %d, %s: expected %s, found '%s'; left out.",
                            line.at(),
                            c.name(),
                            expected,
                            found.length() > 40 ? found.substring(0, 40) + "…" : found));
        }
    }

    void badLine(Line line, String why) {
        if (badLines++ < TOLD) {
            add(text("Line %d: %s; left out.", line.at(), why));
        }
    }

    /** With the counts of what was not told one by one. */
    void count() {
        if (badFields > TOLD) {
            add(text("%d fields in all could not be read.", badFields));
        }
        if (badLines > TOLD) {
            add(text("%d lines in all could not be read.", badLines));
        }
    }

    List<String> all() {
        return List.copyOf(all);
    }

    static String text(String format, Object... args) {
        return Words.counted(String.format(Locale.ROOT, format, args));
    }
}
