package brightlantern.app.exercise;

import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Step;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * A procedure as a picture: its numbered steps down a line, beside each of them where its answers
 * lead, and bows for the ways that do not go on to the next one; those that go back are dashed.
 * Coordinates in SVG units, y downwards.
 */
record ProcedurePicture(int height, List<Node> nodes, List<Bow> bows) {
    private static final int ROW = 30;
    private static final int LINE = 16;
    private static final int TOP = 20;
    private static final int X = 120;
    private static final int MOST_LETTERS = 54;

    /** Letters in a line of what leads where, and in one of its answers. */
    private static final int MOST_IN_LINE = 46;

    private static final int MOST_IN_ANSWER = 36;

    /**
     * @param kind round for what a person does, square for what the program does, end
     * @param state here, been or empty
     * @param ways where its answers lead, in lines; empty when all go on to the next step
     */
    record Node(int number, int y, String text, String kind, String state, List<Line> ways) {}

    record Line(int y, String text) {}

    record Bow(String path, String when, boolean back) {}

    static ProcedurePicture of(Procedure procedure, String here, Set<String> been) {
        List<Node> nodes = new ArrayList<>();
        int y = TOP;
        for (int i = 0; i < procedure.steps().size(); i++) {
            Step step = procedure.steps().get(i);
            List<Line> ways = ways(procedure, i, y);
            nodes.add(
                    new Node(
                            i + 1,
                            y,
                            label(step),
                            step.act() instanceof Act.Conclude
                                    ? "end"
                                    : step.act().automatic() ? "square" : "round",
                            step.id().equals(here)
                                    ? "here"
                                    : been.contains(step.id()) ? "been" : "",
                            ways));
            y += ROW + LINE * Math.max(0, ways.size() - 1);
        }
        List<Bow> bows = new ArrayList<>();
        for (int i = 0; i < nodes.size(); i++) {
            for (Step.Exit exit : procedure.steps().get(i).exits()) {
                int to = procedure.number(exit.to()).orElse(i);
                if (to != i + 1) {
                    bows.add(bow(nodes.get(i), nodes.get(to), exit.when()));
                }
            }
        }
        return new ProcedurePicture(y - ROW + TOP, nodes, List.copyOf(bows));
    }

    /**
     * What a person or a judgement decides is told whole; of the rest only what leaves the line.
     */
    private static List<Line> ways(Procedure procedure, int i, int y) {
        Step step = procedure.steps().get(i);
        boolean decides = step.act() instanceof Act.Ask || step.act() instanceof Act.Decide;
        List<String> words = new ArrayList<>();
        boolean leaves = false;
        for (int e = 0; e < step.exits().size(); e++) {
            Step.Exit exit = step.exits().get(e);
            int to = procedure.number(exit.to()).orElse(i);
            leaves |= to != i + 1;
            if (decides || to != i + 1) {
                words.add(cut(told(step, e), MOST_IN_ANSWER) + " → " + (to + 1));
            }
        }
        List<Line> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : leaves ? words : List.<String>of()) {
            if (line.length() > 0 && line.length() + word.length() > MOST_IN_LINE) {
                lines.add(new Line(y + LINE * lines.size(), line.toString()));
                line.setLength(0);
            }
            line.append(line.length() > 0 ? " · " : "").append(word);
        }
        if (line.length() > 0) {
            lines.add(new Line(y + LINE * lines.size(), line.toString()));
        }
        return lines;
    }

    /** A judgement is told by what it says, where it says anything. */
    private static String told(Step step, int exit) {
        if (step.act() instanceof Act.Decide decide
                && exit < decide.cases().size()
                && !decide.cases().get(exit).says().isEmpty()) {
            return decide.cases().get(exit).says();
        }
        return step.exits().get(exit).when();
    }

    private static Bow bow(Node from, Node to, String when) {
        int steps = Math.abs(to.number() - from.number());
        int wide = Math.min(96, 14 + 7 * steps);
        String path =
                String.format(
                        Locale.ROOT,
                        "M%d,%d C%d,%d %d,%d %d,%d",
                        X - 9,
                        from.y(),
                        X - 9 - wide,
                        from.y(),
                        X - 9 - wide,
                        to.y(),
                        X - 11,
                        to.y());
        return new Bow(path, when, to.number() <= from.number());
    }

    private static String label(Step step) {
        String text = step.says();
        if (text.isEmpty()) {
            text =
                    step.act() instanceof Act.Decide
                            ? "Judging"
                            : step.act() instanceof Act.Study
                                    ? "Judging what was measured"
                                    : step.act() instanceof Act.Measure
                                            ? "Reading"
                                            : step.act() instanceof Act.Repeat
                                                    ? "Again, or on"
                                                    : step.act() instanceof Act.GiveBack
                                                            ? "Giving back what was held"
                                                            : step.id();
        }
        return cut(text, MOST_LETTERS);
    }

    private static String cut(String text, int most) {
        return text.length() > most ? text.substring(0, most - 1) + "…" : text;
    }
}
