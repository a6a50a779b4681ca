package brightlantern.app.exercise;

import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Step;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

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

    /** Letters in a line of what is done, and of what leads where. */
    private static final int MOST_LETTERS = 54;

    private static final int MOST_IN_LINE = 46;

    /**
     * @param kind round for what a person does, square for what the program does, end
     * @param state here, been or empty
     * @param says what is done, in lines
     * @param ways where its answers lead, in lines; empty when all go on to the next step
     */
    record Node(int number, int y, List<Line> says, String kind, String state, List<Line> ways) {}

    record Line(int y, String text) {}

    record Bow(String path, String when, boolean back) {}

    static ProcedurePicture of(
            Procedure procedure, VehicleDescription description, String here, Set<String> been) {
        UnaryOperator<String> words = words(procedure, description);
        List<Node> nodes = new ArrayList<>();
        int y = TOP;
        for (int i = 0; i < procedure.steps().size(); i++) {
            Step step = procedure.steps().get(i);
            List<Line> ways = ways(procedure, i, y, words);
            List<Line> says = lines(List.of(label(step)), y, MOST_LETTERS);
            nodes.add(
                    new Node(
                            i + 1,
                            y,
                            says,
                            step.act() instanceof Act.Conclude
                                    ? "end"
                                    : step.act().automatic() ? "square" : "round",
                            step.id().equals(here)
                                    ? "here"
                                    : been.contains(step.id()) ? "been" : "",
                            ways));
            y += ROW + LINE * Math.max(0, Math.max(says.size(), ways.size()) - 1);
        }
        List<Bow> bows = new ArrayList<>();
        for (int i = 0; i < nodes.size(); i++) {
            for (Step.Exit exit : procedure.steps().get(i).exits()) {
                int to = procedure.number(exit.to()).orElse(i);
                if (to != i + 1) {
                    bows.add(bow(nodes.get(i), nodes.get(to), words.apply(exit.when())));
                }
            }
        }
        return new ProcedurePicture(y - ROW + TOP, nodes, List.copyOf(bows));
    }

    /**
     * What a person or a judgement decides is told whole; of the rest only what leaves the line.
     */
    private static List<Line> ways(Procedure procedure, int i, int y, UnaryOperator<String> words) {
        Step step = procedure.steps().get(i);
        boolean decides = step.act() instanceof Act.Ask || step.act() instanceof Act.Decide;
        List<String> told = new ArrayList<>();
        boolean leaves = false;
        for (int e = 0; e < step.exits().size(); e++) {
            Step.Exit exit = step.exits().get(e);
            int to = procedure.number(exit.to()).orElse(i);
            leaves |= to != i + 1;
            if (decides || to != i + 1) {
                told.add(words.apply(told(step, e)) + " → " + (to + 1));
            }
        }
        return lines(leaves ? told : List.of(), y, MOST_IN_LINE);
    }

    /** Texts put into lines, several in one where they fit, none cut off. */
    private static List<Line> lines(List<String> texts, int y, int most) {
        List<Line> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String text : texts) {
            String between = line.length() > 0 ? " · " : "";
            if (line.length() > 0 && line.length() + between.length() + text.length() > most) {
                lines.add(new Line(y + LINE * lines.size(), line.toString()));
                line.setLength(0);
                between = "";
            }
            line.append(between);
            for (String word : text.split(" ")) {
                if (line.length() > 0 && line.length() + word.length() > most) {
                    lines.add(new Line(y + LINE * lines.size(), line.toString().trim()));
                    line.setLength(0);
                }
                line.append(word).append(' ');
            }
            line.setLength(Math.max(0, line.length() - 1));
        }
        if (line.length() > 0) {
            lines.add(new Line(y + LINE * lines.size(), line.toString()));
        }
        return lines;
    }

    /** Conditions with the names of what they speak of in the place of identifiers. */
    private static UnaryOperator<String> words(Procedure procedure, VehicleDescription d) {
        Map<String, String> names = new HashMap<>();
        d.values().forEach(v -> names.put(v.id(), v.name()));
        procedure.knows().forEach(v -> names.put(v.id(), v.name()));
        List<String> ids =
                names.keySet().stream()
                        .sorted(Comparator.comparingInt(String::length).reversed())
                        .toList();
        return text -> {
            String told = text;
            for (String id : ids) {
                if (told.contains(id)) {
                    told =
                            told.replaceAll(
                                    "(?<![\\w.-])" + Pattern.quote(id) + "(?![\\w.-])",
                                    Matcher.quoteReplacement(names.get(id)));
                }
            }
            return told.replace("\"", "")
                    .replaceAll("\\bis not\\b", "not")
                    .replaceAll(" is ", ": ");
        };
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
        return text;
    }
}
