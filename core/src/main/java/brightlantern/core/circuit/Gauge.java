package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * By what a circuit shows how it is, without a meter: a lamp by its light, a sensor by the value
 * that its module tells.
 *
 * @param part whose voltage it is
 * @param from and to nodes between which the voltage counts
 * @param nominal volts that count as 1
 * @param bands from the least share up
 * @param under the setting under which it is looked at; empty for none
 * @param module that watches it and sets the codes of its bands; empty when none does
 * @param value the live value that tells it; empty where none does
 * @param told whether a driver notices by himself when it is not well
 */
public record Gauge(
        String id,
        String name,
        String part,
        String from,
        String to,
        double nominal,
        List<Band> bands,
        String under,
        String module,
        String value,
        boolean told) {
    public Gauge {
        bands = List.copyOf(bands);
        under = OrEmpty.text(under);
        module = OrEmpty.text(module);
        value = OrEmpty.text(value);
    }

    private static final String PREFIX = "gauge-";

    /** Id of the finding that tells what it shows. */
    public String findingId() {
        return PREFIX + id;
    }

    /** Whether a finding tells what some gauge shows. */
    public static boolean isFinding(String findingId) {
        return findingId.startsWith(PREFIX);
    }

    /** Share of its nominal voltage. */
    public double share(Voltages volts) {
        return (volts.at(from) - volts.at(to)) / nominal;
    }

    /** What it shows at a share. */
    public Band at(double share) {
        return bands.stream()
                .filter(b -> share < b.upTo())
                .findFirst()
                .orElse(bands.get(bands.size() - 1));
    }

    /** Share above which a band begins. */
    public double begin(Band band) {
        int i = bands.indexOf(band);
        return i == 0 ? Double.NEGATIVE_INFINITY : bands.get(i - 1).upTo();
    }

    /** Share at which a band ends. */
    public double end(Band band) {
        return bands.indexOf(band) == bands.size() - 1 ? Double.POSITIVE_INFINITY : band.upTo();
    }
}
