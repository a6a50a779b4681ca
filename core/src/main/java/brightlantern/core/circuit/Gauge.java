package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Value;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * By what a circuit shows how it is, without a meter: a lamp by its light, a sensor by the value
 * that its module tells.
 *
 * @param part whose voltage it is
 * @param from and to nodes between which the voltage counts
 * @param nominal volts that count as 1; of a gauge of ohms, ohms; of a clamp, the volts at which
 *     its part draws what it is made for
 * @param bands from the least share up
 * @param under the setting under which it is looked at, or after which when it is switched off;
 *     empty for none
 * @param module that watches it and sets the codes of its bands; empty when none does
 * @param value the live value that tells it; empty where none does
 * @param scale how the live value follows the voltage
 * @param by what tells when it is not well
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
        By by) {
    public Gauge {
        bands = List.copyOf(bands);
        under = OrEmpty.text(under);
        module = OrEmpty.text(module);
        value = OrEmpty.text(value);
    }

    private static final String PREFIX = "gauge-";

    /** Id of the gauge that tells the current through a consumer. */
    public static String ampsOf(String consumerId) {
        return consumerId + "-amps";
    }

    /** What tells how it is. */
    public enum By {
        /** Its driver notices. */
        DRIVER,
        /** Its driver notices that it goes on when it was switched off. */
        SWITCHED_OFF,
        /** Who listens to it or puts a hand on it. */
        HANDS,
        /** Who hears or feels a relay move; its contacts go with it. */
        ARMATURE,
        /** The module that reads it. */
        MODULE,
        /** The module that it feeds: without it nothing answers. */
        ANSWERS,
        /** What its module tells, held against an instrument of one's own. */
        INSTRUMENT,
        /** Both leads of a meter. */
        METER,
        /** A meter on ohms, at the part alone. */
        OHMMETER,
        /** A clamp round the wire of its part. */
        CLAMP,
        /** A lead from the battery at its own pin: does it live then? */
        LEAD
    }

    /** What a comparison shows at an end of the range: no more, or no less, than is right. */
    private static final String NOT_ABOVE = "not-above";

    private static final String NOT_BELOW = "not-below";

    /** Two instruments that differ by less of the range than this agree, whatever they read. */
    private static final double RESOLVED = 0.01;

    /** Of the range of a value so much at either end is no measurement. */
    private static final double END_SHARE = 0.02;

    /**
     * How a live value follows the voltage of its sensor.
     *
     * @param falls whether it is largest where the voltage is least, as temperatures are
     * @param most that the module tells; 0 for what its bytes can carry
     * @param input the part that stands for the module's input; empty for none
     * @param beside what tells the same figure by hand; empty for a gauge that is not compared
     * @param rest the figure at which the sensor is as it is drawn
     */
    public record Scale(boolean falls, double most, String input, String beside, double rest) {
        /** Of what no live value tells. */
        public static final Scale NONE = new Scale(false, 0, "", "", 0);
    }

    /** Whether it is read with both leads of a meter, in volts. */
    public boolean isAcross() {
        return by == By.METER;
    }

    /** Whether it is read in ohms, of its part alone. */
    public boolean isOhms() {
        return by == By.OHMMETER;
    }

    /** Whether the current through its part is measured; its share of volts is that of amps. */
    public boolean isClamped() {
        return by == By.CLAMP;
    }

    /**
     * What a clamp shows, A.
     *
     * @param share of what its part is made for
     */
    public double amps(Circuit circuit, double share) {
        return share * nominal / ((Consumer) circuit.component(part).orElseThrow()).ohm();
    }

    /** Whether its part is fed by a lead from the battery while it is looked at. */
    public boolean isFed() {
        return by == By.LEAD;
    }

    /** Whether something shows at it that nobody measured or fed. */
    public boolean isNoticed() {
        return !isAcross() && !isOhms() && !isFed() && !isClamped();
    }

    /** The pin at which its part can be fed: that before its own contact. */
    public String fedAt(Circuit circuit) {
        return circuit.segments().stream()
                .filter(s -> s.kind() == SegmentKind.CONTACT && s.to().equals(from))
                .map(Segment::from)
                .findFirst()
                .orElseThrow();
    }

    /** The state of its circuit in which it is looked at. */
    public OperatingState state(Circuit circuit, double supplyVolts) {
        OperatingState state =
                OperatingState.idle(supplyVolts)
                        .moving(made().isEmpty() ? Set.of() : Set.of(made()));
        return isFed() ? state.loaded(fedAt(circuit), Load.LEAD) : state;
    }

    /** Whether a module lives by it, and tells how much of it there is. */
    public boolean feedsModule() {
        return by == By.ANSWERS;
    }

    /** Whether the module that lives by it is silent. */
    public boolean isSilent(double share) {
        return feedsModule() && at(share) == bands.get(0);
    }

    /** Whether it is looked at after it was switched off. */
    public boolean isOff() {
        return by == By.SWITCHED_OFF;
    }

    /** The setting that is made to look at it; empty for none. */
    public String made() {
        return isOff() ? "" : under;
    }

    /** Whether a driver notices by himself when it is not well. */
    public boolean told() {
        return by == By.DRIVER || isOff();
    }

    /** Whether its live value is held against an instrument of one's own. */
    public boolean isCompared() {
        return by == By.INSTRUMENT;
    }

    /**
     * What a comparison shows. Where both read an end of the range, what is off towards that end
     * does not show.
     *
     * @param its characteristic of its sensor
     * @param felt by the instrument of one's own
     * @param told by the module
     */
    public Band compared(Characteristic its, Value v, double felt, double told) {
        Band agrees = agrees();
        boolean same = Math.abs(told - felt) <= RESOLVED * Math.abs(most(v) - v.offset());
        double off = same ? 0 : its.arrives(told) - its.shareAt(felt);
        Band shown = at((begin(agrees) + end(agrees)) / 2 + off);
        if (shown != agrees) {
            return shown;
        }
        if (isAt(v, v.offset(), felt) && isAt(v, v.offset(), told)) {
            return atEnd(scale.falls() ? NOT_BELOW : NOT_ABOVE);
        }
        return isAt(v, most(v), felt) && isAt(v, most(v), told)
                ? atEnd(scale.falls() ? NOT_ABOVE : NOT_BELOW)
                : agrees;
    }

    private boolean isAt(Value v, double end, double figure) {
        return Math.abs(figure - end) <= RESOLVED * Math.abs(most(v) - v.offset());
    }

    private Band agrees() {
        return bands.stream().filter(Band::well).findFirst().orElseThrow();
    }

    private static Band atEnd(String id) {
        return new Band(id, "agrees, at the end of the range", Double.NaN, "", true);
    }

    /** A band of its own, or one of a comparison at an end of the range. */
    public Optional<Band> band(String bandId) {
        return bandId.equals(NOT_ABOVE) || bandId.equals(NOT_BELOW)
                ? Optional.of(atEnd(bandId))
                : bands.stream().filter(b -> b.id().equals(bandId)).findFirst();
    }

    /**
     * Whether its live value alone tells what it shows: a temperature at an end of its range is no
     * temperature, while a pressure of nothing may be one.
     */
    public boolean isToldByValue() {
        return !value.isEmpty() && (feedsModule() || by == By.MODULE && scale.falls());
    }

    /** Whether it is seen, heard or felt at the vehicle; a sensor only tells its module. */
    public boolean isSeen() {
        return told() || by == By.HANDS || by == By.ARMATURE;
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
        if (feedsModule()) {
            return at(figure / nominal);
        }
        double share = (figure - v.offset()) / (most(v) - v.offset());
        double volts = scale.falls() ? 1 - share : share;
        return volts < END_SHARE
                ? bands.get(0)
                : volts > 1 - END_SHARE ? bands.get(bands.size() - 1) : bands.get(1);
    }

    /** Id of the finding that tells what a gauge shows. */
    public static String findingOf(String gaugeId) {
        return PREFIX + gaugeId;
    }

    /** Id of the finding that tells what it shows. */
    public String findingId() {
        return findingOf(id);
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
        if (isOhms()) {
            return ohms(circuit.component(part).orElseThrow(), faults) / nominal;
        }
        double share = (volts.at(from) - volts.at(to)) / nominal;
        for (Fault fault : faults) {
            if (fault instanceof Fault.Misread m && m.input().equals(scale.input())) {
                share *= m.size();
            }
            if (fault.part().equals(part)
                    && circuit.component(part).orElse(null) instanceof Consumer c
                    && c.from().equals(from)) {
                share *= c.ohm() / (c.ohm() + fault.size());
            }
        }
        return share;
    }

    /**
     * What a meter on ohms reads at its part alone.
     *
     * @param its the consumer, whole
     */
    public static double ohms(Component its, Collection<? extends Fault> faults) {
        Component as = its;
        for (Fault fault : faults) {
            as = fault.in(as);
        }
        return ((Consumer) as).coldOhm();
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
        if (band.id().equals(NOT_ABOVE)) {
            return Double.NEGATIVE_INFINITY;
        }
        if (band.id().equals(NOT_BELOW)) {
            return begin(agrees());
        }
        int i = bands.indexOf(band);
        return i == 0 ? Double.NEGATIVE_INFINITY : bands.get(i - 1).upTo();
    }

    /** Share at which a band ends. */
    public double end(Band band) {
        if (band.id().equals(NOT_ABOVE)) {
            return end(agrees());
        }
        if (band.id().equals(NOT_BELOW)) {
            return Double.POSITIVE_INFINITY;
        }
        return bands.indexOf(band) == bands.size() - 1 ? Double.POSITIVE_INFINITY : band.upTo();
    }
}
