package brightlantern.core.take;

import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import brightlantern.core.signal.Words;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * A take as CSV (RFC 4180), every sample of it, at full precision. Values stand in the unit in
 * which they are shown, with the unit in the head; marks have columns of their own.
 */
public final class TakeCsv {
    private static final int BUFFER = 1 << 16;

    /** So many decimals are tried before a number is written with all its digits. */
    private static final long[] POWERS = {1, 10, 100, 1000, 10_000, 100_000, 1_000_000};

    /** Up to here a number times a power of ten is a whole number exactly. */
    private static final double EXACT = 1L << 52;

    private TakeCsv() {}

    /** How times and values stand beside each other. */
    public enum Layout {
        /** One column of times; a cell is empty where its value was not sampled then. */
        ONE_TIME("one column of times"),
        /** A column of times before all values that share them. */
        OWN_TIMES("each rate with its own times"),
        /** A line for each sample: time, name, unit, value. */
        LONG("a line for each sample");

        private final String words;

        Layout(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }

        /** One column of times where all values share them, and their own otherwise. */
        public static Layout fitting(Take take) {
            return groups(take.columns().entrySet().stream().map(Map.Entry::getValue).toList())
                                    .size()
                            <= 1
                    ? ONE_TIME
                    : OWN_TIMES;
        }
    }

    private record Lane(Value value, Take.Column column) {}

    /** Writes it in the layout that fits it. */
    public static void write(Take take, Signals signals, Writer out) {
        write(take, signals, Layout.fitting(take), out);
    }

    /**
     * @throws UncheckedIOException when it cannot be written
     */
    public static void write(Take take, Signals signals, Layout layout, Writer out) {
        List<Lane> lanes = new ArrayList<>();
        take.columns()
                .forEach(
                        (id, column) ->
                                signals.value(id).ifPresent(v -> lanes.add(new Lane(v, column))));
        try (Rows rows = new Rows(out)) {
            switch (layout) {
                case ONE_TIME -> oneTime(take, lanes, rows);
                case OWN_TIMES -> ownTimes(take, lanes, rows);
                default -> samples(take, lanes, rows);
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private static void oneTime(Take take, List<Lane> lanes, Rows rows) throws IOException {
        rows.text("time [s]");
        for (Lane lane : lanes) {
            rows.text(head(lane.value()));
        }
        rows.text("mark").end();
        int[] at = new int[lanes.size()];
        int mark = 0;
        while (true) {
            double t =
                    mark < take.marks().size()
                            ? take.marks().get(mark).seconds()
                            : Double.MAX_VALUE;
            boolean left = mark < take.marks().size();
            for (int i = 0; i < at.length; i++) {
                Take.Column column = lanes.get(i).column();
                if (at[i] < column.size()) {
                    t = Math.min(t, column.seconds(at[i]));
                    left = true;
                }
            }
            if (!left) {
                return;
            }
            rows.number(t);
            for (int i = 0; i < at.length; i++) {
                Take.Column column = lanes.get(i).column();
                // samples of one moment beyond the first stand in lines of their own
                if (at[i] < column.size() && column.seconds(at[i]) == t) {
                    rows.value(lanes.get(i).value(), column.value(at[i]++));
                } else {
                    rows.empty();
                }
            }
            if (mark < take.marks().size() && take.marks().get(mark).seconds() == t) {
                rows.text(take.marks().get(mark++).text()).end();
            } else {
                rows.empty().end();
            }
        }
    }

    /** Columns with the same times, each group in the order in which its first one came. */
    private static List<List<Integer>> groups(List<Take.Column> columns) {
        List<List<Integer>> groups = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            Take.Column its = columns.get(i);
            List<Integer> group = null;
            for (List<Integer> other : groups) {
                if (sameTimes(columns.get(other.get(0)), its)) {
                    group = other;
                    break;
                }
            }
            if (group == null) {
                group = new ArrayList<>();
                groups.add(group);
            }
            group.add(i);
        }
        return groups;
    }

    private static boolean sameTimes(Take.Column a, Take.Column b) {
        if (a.size() != b.size()) {
            return false;
        }
        for (int i = 0; i < a.size(); i++) {
            if (a.seconds(i) != b.seconds(i)) {
                return false;
            }
        }
        return true;
    }

    private static void ownTimes(Take take, List<Lane> lanes, Rows rows) throws IOException {
        List<List<Integer>> groups = groups(lanes.stream().map(Lane::column).toList());
        int longest = take.marks().size();
        int number = 1;
        for (List<Integer> group : groups) {
            rows.text(groups.size() == 1 ? "time [s]" : "time " + number++ + " [s]");
            for (int i : group) {
                rows.text(head(lanes.get(i).value()));
                longest = Math.max(longest, lanes.get(i).column().size());
            }
        }
        rows.text("time of marks [s]").text("mark").end();
        for (int r = 0; r < longest; r++) {
            for (List<Integer> group : groups) {
                Take.Column clock = lanes.get(group.get(0)).column();
                if (r < clock.size()) {
                    rows.number(clock.seconds(r));
                } else {
                    rows.empty();
                }
                for (int i : group) {
                    if (r < lanes.get(i).column().size()) {
                        rows.value(lanes.get(i).value(), lanes.get(i).column().value(r));
                    } else {
                        rows.empty();
                    }
                }
            }
            if (r < take.marks().size()) {
                rows.number(take.marks().get(r).seconds()).text(take.marks().get(r).text()).end();
            } else {
                rows.empty().empty().end();
            }
        }
    }

    private static void samples(Take take, List<Lane> lanes, Rows rows) throws IOException {
        rows.text("time [s]").text("name").text("unit").text("value").end();
        for (Lane lane : lanes) {
            Value value = lane.value();
            String said =
                    Rows.quoted(value.name())
                            + ','
                            + (value.isState() ? "" : Rows.quoted(value.show()));
            for (int i = 0; i < lane.column().size(); i++) {
                rows.number(lane.column().seconds(i))
                        .ready(said)
                        .value(value, lane.column().value(i))
                        .end();
            }
        }
        for (Take.Mark mark : take.marks()) {
            rows.number(mark.seconds()).text("mark").empty().text(mark.text()).end();
        }
    }

    private static String head(Value v) {
        return v.isState() || v.show().isEmpty() ? v.name() : v.name() + " [" + v.show() + "]";
    }

    /** Writes cells and lines, many at a time. */
    private static final class Rows implements AutoCloseable {
        private final Writer out;
        private final StringBuilder waiting = new StringBuilder(2 * BUFFER);
        private boolean first = true;

        Rows(Writer out) {
            this.out = out;
        }

        private void next() {
            if (!first) {
                waiting.append(',');
            }
            first = false;
        }

        Rows empty() {
            next();
            return this;
        }

        Rows text(String text) {
            return ready(quoted(text));
        }

        /** A text as it stands in a cell. */
        static String quoted(String text) {
            String safe = Words.harmless(text);
            boolean quoted =
                    safe.chars().anyMatch(c -> c == ',' || c == '"' || c == '\n' || c == '\r');
            return quoted ? '"' + safe.replace("\"", "\"\"") + '"' : safe;
        }

        /** Cells that are quoted already. */
        Rows ready(String cells) {
            next();
            waiting.append(cells);
            return this;
        }

        Rows value(Value value, double physical) {
            if (!value.isState()) {
                return number(Scaling.shown(value, physical));
            }
            return Double.isNaN(physical) ? empty() : text(Scaling.show(value, physical));
        }

        /** The shortest decimal number that is the same value; nothing for what is no number. */
        Rows number(double v) {
            next();
            if (!Double.isFinite(v)) {
                return this;
            }
            for (int decimals = 0; decimals < POWERS.length; decimals++) {
                double scaled = Math.rint(v * POWERS[decimals]);
                if (Math.abs(scaled) > EXACT) {
                    break;
                }
                // 996 steps of 0.1 are 99.60000000000001 to a computer, and 99.6 to everybody else
                if (Math.abs(scaled / POWERS[decimals] - v) <= 2 * Math.ulp(v)) {
                    decimal((long) scaled, decimals, v < 0);
                    return this;
                }
            }
            waiting.append(v);
            return this;
        }

        private void decimal(long scaled, int decimals, boolean negative) {
            long size = Math.abs(scaled);
            if (negative && size > 0) {
                waiting.append('-');
            }
            waiting.append(size / POWERS[decimals]);
            if (decimals > 0) {
                long rest = size % POWERS[decimals];
                waiting.append('.');
                for (int i = decimals - 1; i > 0 && rest < POWERS[i]; i--) {
                    waiting.append('0');
                }
                waiting.append(rest);
            }
        }

        void end() throws IOException {
            waiting.append("\r\n");
            first = true;
            if (waiting.length() > BUFFER) {
                flush();
            }
        }

        private void flush() throws IOException {
            out.append(waiting);
            waiting.setLength(0);
        }

        @Override
        public void close() throws IOException {
            flush();
            out.close();
        }
    }
}
