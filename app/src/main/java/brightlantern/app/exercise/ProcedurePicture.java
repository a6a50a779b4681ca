package brightlantern.app.exercise;

import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Step;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * A procedure as a picture: its steps down a line, ways forward as bows on the right, ways back on
 * the left. Coordinates in SVG units, y downwards.
 */
record ProcedurePicture(int height, List<Node> nodes, List<Bow> bows) {
    private static final int ROW = 30;
    private static final int TOP = 20;
    private static final int X = 120;
    private static final int MOST_LETTERS = 58;

    /**
     * @param kind round for what a person does, square for what the program does, end
     * @param state here, been or empty
     */
    record Node(int y, String text, String kind, String state) {}

    record Bow(String path, String when, boolean back) {}

    static ProcedurePicture of(Procedure procedure, String here, Set<String> been) {
        List<Node> nodes = new ArrayList<>();
        List<Bow> bows = new ArrayList<>();
        for (int i = 0; i < procedure.steps().size(); i++) {
            Step step = procedure.steps().get(i);
            nodes.add(
                    new Node(
                            y(i),
                            label(step),
                            step.act() instanceof Act.Conclude
                                    ? "end"
                                    : step.act().automatic() ? "square" : "round",
                            step.id().equals(here)
                                    ? "here"
                                    : been.contains(step.id()) ? "been" : ""));
            for (Step.Exit exit : step.exits()) {
                int to = procedure.number(exit.to()).orElse(i);
                if (to != i + 1) {
                    bows.add(bow(i, to, exit.when()));
                }
            }
        }
        return new ProcedurePicture(
                TOP * 2 + ROW * (procedure.steps().size() - 1), nodes, List.copyOf(bows));
    }

    private static int y(int i) {
        return TOP + ROW * i;
    }

    private static Bow bow(int from, int to, String when) {
        // back on the left; forward as well, as the words stand on the right
        boolean back = to <= from;
        int wide = Math.min(96, 14 + 7 * Math.abs(to - from));
        String path =
                String.format(
                        Locale.ROOT,
                        "M%d,%d C%d,%d %d,%d %d,%d",
                        X - 9,
                        y(from),
                        X - 9 - wide,
                        y(from),
                        X - 9 - wide,
                        y(to),
                        X - 11,
                        y(to));
        return new Bow(path, when, back);
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
                                                    : step.id();
        }
        return text.length() > MOST_LETTERS ? text.substring(0, MOST_LETTERS - 1) + "…" : text;
    }
}
