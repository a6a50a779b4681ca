package brightlantern.app.probe;

import brightlantern.core.circuit.Connector;
import brightlantern.core.circuit.Face;
import brightlantern.core.circuit.Segment;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * The face of a connector, ready to be drawn; places in SVG units.
 *
 * @param told what it shows, for those who do not look at pictures
 */
record FaceView(double width, double height, List<Cavity> cavities, String told) {
    static final double CAVITY = 46;
    private static final double EDGE = 10;

    /** Room for the latch, and for the sign that says where it is. */
    private static final double LATCH = 18;

    private static final Pattern WIRE = Pattern.compile("Wire ([a-z]+)(?:-([a-z]+))? .*");

    /**
     * @param first and second colour of its wire; empty where nothing sits in it
     */
    record Cavity(int number, double x, double y, String first, String second, boolean used) {}

    static Optional<FaceView> of(Connector connector) {
        return Face.of(connector).map(f -> of(f, connector));
    }

    private static FaceView of(Face face, Connector connector) {
        return new FaceView(
                2 * EDGE + face.columns() * CAVITY,
                LATCH + 2 * EDGE + face.rows() * CAVITY,
                face.cavities().stream().map(c -> cavity(c, connector)).toList(),
                "Connector "
                        + connector.plug()
                        + " from the side of its wires: pins "
                        + face.cavities().stream()
                                .filter(Face.Cavity::used)
                                .map(c -> String.valueOf(c.number()))
                                .collect(Collectors.joining(", "))
                        + " of "
                        + face.cavities().size());
    }

    private static Cavity cavity(Face.Cavity c, Connector connector) {
        Optional<Matcher> colours =
                connector.pins().stream()
                        .filter(p -> p.number().equals(String.valueOf(c.number())))
                        .flatMap(p -> p.wires().stream())
                        .map(Segment::name)
                        .map(WIRE::matcher)
                        .filter(Matcher::matches)
                        .findFirst();
        String first = colours.map(m -> m.group(1)).orElse("");
        return new Cavity(
                c.number(),
                EDGE + c.column() * CAVITY,
                LATCH + EDGE + c.row() * CAVITY,
                first,
                colours.map(m -> m.group(2)).orElse(first),
                c.used());
    }
}
