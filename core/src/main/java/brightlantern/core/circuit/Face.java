package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The face of a connector as its pin numbers lay it out, seen from the side of its wires with its
 * latch up: up to three cavities stand in one row, more in two of the same length, counted from the
 * left, the upper row first.
 *
 * @param cavities by their numbers, from 1 on
 */
public record Face(int columns, int rows, List<Cavity> cavities) {
    private static final int ONE_ROW = 3;

    /** A connector that would be wider than this has its numbers from somewhere else. */
    private static final int MOST = 120;

    public Face {
        cavities = List.copyOf(cavities);
    }

    /**
     * A place for a pin.
     *
     * @param column and row from 0, from the left and from above
     * @param used whether anything that is described sits in it
     */
    public record Cavity(int number, int column, int row, boolean used) {}

    /** The face of a connector; empty where its pins are not counted. */
    public static Optional<Face> of(Connector connector) {
        if (!connector.pins().stream().allMatch(p -> p.number().matches("[1-9]\\d{0,2}"))) {
            return Optional.empty();
        }
        Set<Integer> used =
                connector.pins().stream()
                        .map(p -> Integer.parseInt(p.number()))
                        .collect(Collectors.toSet());
        int most = used.stream().mapToInt(n -> n).max().orElse(0);
        if (most == 0 || most > MOST) {
            return Optional.empty();
        }
        int rows = most <= ONE_ROW ? 1 : 2;
        int columns = (most + rows - 1) / rows;
        List<Cavity> cavities = new ArrayList<>();
        for (int n = 1; n <= columns * rows; n++) {
            cavities.add(new Cavity(n, (n - 1) % columns, (n - 1) / columns, used.contains(n)));
        }
        return Optional.of(new Face(columns, rows, cavities));
    }
}
