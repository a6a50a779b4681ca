package brightlantern.standin.plant;

import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.Divider;
import brightlantern.core.circuit.Segment;
import java.util.Random;

/** No two parts of one type are quite alike: one standard deviation of each kind. */
final class Scatter {
    /** Wires and contacts of one type scatter by so much. */
    private static final double SEGMENTS = 0.1;

    /** Consumers and sensors scatter less. */
    private static final double CONSUMERS = 0.04;

    private Scatter() {}

    /** A part as it came off the line. */
    static Component of(Component part, Random random) {
        if (part instanceof Segment s) {
            return s.with(s.ohm() * SEGMENTS * Math.abs(random.nextGaussian()));
        }
        if (part instanceof Consumer c) {
            double ohm = c.ohm() * (1 + CONSUMERS * random.nextGaussian());
            return new Consumer(c.id(), c.name(), c.kind(), c.from(), c.to(), ohm);
        }
        return part instanceof Divider d
                ? d.telling(d.share() * (1 + CONSUMERS * random.nextGaussian()))
                : part;
    }
}
