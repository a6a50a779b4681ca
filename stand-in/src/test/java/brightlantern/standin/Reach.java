package brightlantern.standin;

import brightlantern.core.circuit.Gauge;
import java.util.Random;
import java.util.Set;

/** How a robot learns what a vehicle tells of itself, and what instruments tell of it. */
interface Reach extends AutoCloseable {
    /** A meter on volts, against battery minus. */
    double volts(String point);

    /** A meter on ohms at a part alone; infinite for an overload. */
    double ohms(Gauge gauge);

    /** A clamp round the wire of a part. */
    double amps(Gauge gauge);

    /** A live value; NaN where its module does not tell it. */
    double value(String id);

    /** Whether a module answers now. */
    boolean answers(String module);

    /** Numbers of the codes that failed since they were cleared, of a module that answers. */
    Set<Integer> failed(String module);

    @Override
    void close();

    /** At the stand-in itself, by an instrument that is a little off. */
    static Reach within(StandInVehicle v, Random random) {
        return new ReachWithin(v, random);
    }
}
