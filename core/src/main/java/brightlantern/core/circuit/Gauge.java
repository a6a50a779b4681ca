package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Value;
import java.util.Collection;
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
 * @param scale how the live value follows the voltage
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
        Scale scale,
        boolean told) {
    public Gauge {
        bands = List.copyOf(bands);
        under = OrEmpty.text(under);
        module = OrEmpty.text(module);
        value = OrEmpty.text(value);
    }

    private static final String PREFIX = "gauge-";

    /** Of the range of a value so much at either end is no measurement. */
    private static final double END_SHARE = 0.02;

    /**
     * How a live value follows the voltage of its sensor.
     *
     * @param falls whether it is largest where the voltage is least, as temperatures are
     * @param most that the module tells; 0 for what its bytes can carry
     */
    public record Scale(boolean falls, double most) {
        /** Of what no live value tells. */
        public static final Scale NONE = new Scale(false, 0);
    }

    /**
     * Whether its live value alone tells what it shows: a temperature at an end of its range is no
     * temperature, while a pressure of nothing may be one.
     */
    public boolean isToldByValue() {
        return !value.isEmpty() && scale.falls();
    }

    /** Whether it is seen, heard or felt at the vehicle; a sensor only tells its module. */
    public boolean isSeen() {
        return bands.get(bands.size() - 1).well();
    }

    /** The largest figure that its module tells, in the value's own unit. */
    public double most(Value v) {
        return scale.most() > 0
                ? scale.most()
                : v.offset() + v.scale() * (Math.pow(2, 8.0 * v.bytes()) - 1);
    }

    /**
     * What a live value says of it: at an end of its range nothing is measured any more.
     *
     * @param figure in the value's own unit
     */
    public Band told(Value v, double figure) {
        double share = (figure - v.offset()) / (most(v) - v.offset());
        double volts = scale.falls() ? 1 - share : share;
        return volts < END_SHARE
                ? bands.get(0)
                : volts > 1 - END_SHARE ? bands.get(bands.size() - 1) : bands.get(1);
    }

    /** Id of the finding that tells what it shows. */
    public String findingId() {
        return PREFIX + id;
    }

    /** Whether a finding tells what some gauge shows. */
    public static boolean isFinding(String findingId) {
        return findingId.startsWith(PREFIX);
    }

    /**
     * Share of its nominal voltage.
     *
     * @param faults in the circuit; what is broken inside a consumer takes its own share of the
     *     voltage across it
     */
    public double share(Circuit circuit, Voltages volts, Collection<? extends Fault> faults) {
        double share = (volts.at(from) - volts.at(to)) / nominal;
        for (Fault fault : faults) {
            if (fault.part().equals(part)
                    && circuit.component(part).orElse(null) instanceof Consumer c
                    && c.from().equals(from)) {
                share *= c.ohm() / (c.ohm() + fault.size());
            }
        }
        return share;
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
