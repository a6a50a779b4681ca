package brightlantern.standin.plant;

import brightlantern.core.circuit.Need;
import java.util.List;
import java.util.Set;
import java.util.function.ToDoubleFunction;

/**
 * What its circuits let the engine of a vehicle do at this moment; all, until they are looked at.
 */
public final class Means {
    /** What is out, and what that keeps the engine from. */
    private record State(Set<String> out, List<Need> unmet) {}

    private static final State ALL = new State(Set.of(), List.of());

    private volatile State now = ALL;
    private volatile ToDoubleFunction<String> currents = consumer -> 1;

    /**
     * They were looked at.
     *
     * @param needs of the engine
     * @param out ids of gauges that tell that something does not work
     */
    public void are(List<Need> needs, Set<String> out) {
        now = out.isEmpty() ? ALL : new State(out, Need.unmet(needs, out));
    }

    /**
     * @param its what flows through a consumer, as a share of what it is made for
     */
    public void flows(ToDoubleFunction<String> its) {
        currents = its;
    }

    /** What flows through a consumer, as a share of what it is made for. */
    double current(String consumer) {
        return currents.applyAsDouble(consumer);
    }

    /** Whether its starter turns it when the key is held at start. */
    boolean turns() {
        return now.unmet.stream().noneMatch(n -> n.what() == Need.What.TURNING);
    }

    /** Whether it can run by itself. */
    boolean runs() {
        return now.unmet.stream().noneMatch(n -> n.what() == Need.What.RUNNING);
    }

    /**
     * @param cylinder from 1
     */
    boolean burns(int cylinder) {
        return now.unmet.stream()
                .noneMatch(n -> n.what() == Need.What.BURNING && n.cylinder() == cylinder);
    }

    /** Whether what a gauge tells of works. */
    public boolean works(String gauge) {
        return !now.out.contains(gauge);
    }
}
