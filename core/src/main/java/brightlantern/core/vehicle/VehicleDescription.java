package brightlantern.core.vehicle;

import brightlantern.core.signal.Units;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * All that is known of one kind of vehicle. Made by {@link DescriptionReader} from YAML; references
 * between its parts have been checked when it exists. Addresses and identifiers are numbers as they
 * stand on the wire.
 */
public record VehicleDescription(
        String id,
        String name,
        String engine,
        String vinPattern,
        List<Bus> buses,
        List<Module> modules,
        List<Feed> feeds,
        List<Value> values,
        List<Code> codes,
        List<Symptom> symptoms,
        List<Actuator> actuators,
        List<Circuit> circuits,
        List<Finding> findings,
        List<Suspect> suspects,
        List<Check> checks,
        List<Follow> follows,
        List<Agreement> agreements,
        List<TrimSet> trims,
        List<Mileage> mileage,
        Optional<Cylinders> cylinders,
        List<Drawing> drawings,
        Live live) {
    /** The module that joins the buses and answers for the vehicle on the network. */
    public static final String GATEWAY = "gateway";

    /**
     * @param kbit speed in kbit/s
     * @param terminators modules that hold the terminating resistors
     * @param connectors connectors and splices in its wire
     */
    public record Bus(
            String id,
            String name,
            int kbit,
            List<String> terminators,
            List<Connector> connectors) {}

    /**
     * A connector or splice in the wire of a bus.
     *
     * @param after the module that it follows, seen from the gateway
     * @param minutes to get at it
     * @param common how often it is the culprit, relative to others
     */
    public record Connector(
            String id, String name, String after, String place, double minutes, double common) {}

    /**
     * @param order place on the wire of its bus, from 1, the gateway's end first
     * @param freezeFrame ids of the values that its freeze frames hold, in the wire's order
     * @param missed code that others set when its messages stay away; empty when none does
     * @param watches modules whose messages it would miss
     * @param option fitted only with this option; empty when always fitted
     * @param under the module behind which this sub-module sits; empty for a module of its own
     * @param emission whether it answers for the emission system (ISO 27145)
     */
    public record Module(
            String id,
            String name,
            int address,
            String bus,
            int order,
            List<String> freezeFrame,
            String missed,
            List<String> watches,
            String option,
            String under,
            boolean emission) {}

    /**
     * A fuse or an earth that modules share.
     *
     * @param kind supply or earth
     */
    public record Feed(
            String id,
            String name,
            String kind,
            String place,
            double minutes,
            double common,
            List<String> modules) {}

    /**
     * Something that tells how far the vehicle has run.
     *
     * @param kind distance (km), hours, or count
     * @param least and most km an hour or a count stands for; both 1 for a distance
     * @param independent whether its module counts by itself, rather than being told by the cluster
     * @param history whether it holds entries with their times rather than one figure
     */
    public record Mileage(
            String id,
            String name,
            String module,
            String kind,
            int did,
            int bytes,
            double scale,
            double least,
            double most,
            boolean independent,
            boolean history) {}

    /**
     * A live value: physical = raw × scale + offset.
     *
     * @param did identifier for service 0x22
     * @param bytes 1, 2 or 4, big-endian
     * @param show unit in which values that belong together are shown
     * @param states raw number → word, for switches and enumerations; empty for numbers
     * @param words further words under which it is found
     */
    public record Value(
            String id,
            String module,
            int did,
            int bytes,
            boolean signed,
            double scale,
            double offset,
            String name,
            String unit,
            String show,
            int digits,
            Map<Integer, String> states,
            List<String> words,
            List<Range> ranges) {
        public boolean isState() {
            return !states.isEmpty();
        }

        /** The same under another id. */
        public Value as(String otherId) {
            return new Value(
                    otherId, module, did, bytes, signed, scale, offset, name, unit, show, digits,
                    states, words, ranges);
        }

        /** The same, shown in another unit, with as many digits as tell as much. */
        Value shownIn(String other) {
            if (isState() || other == null || other.equals(show)) {
                return this;
            }
            double step = Math.abs(Units.convertDifference(Math.pow(10, -digits), show, other));
            int enough = (int) Math.max(0, Math.min(4, Math.round(-Math.log10(step))));
            return new Value(
                    id, module, did, bytes, signed, scale, offset, name, unit, other, enough,
                    states, words, ranges);
        }
    }

    /** Where a value should lie while all conditions hold; limits in the value's own unit. */
    public record Range(String condition, List<Condition> when, double min, double max) {}

    /** A value within limits (its own unit), held by ranges and gates alike. */
    public record Condition(
            String value, Optional<Double> min, Optional<Double> max, String says, String opens) {}

    /**
     * @param weight 0..1, how much this code can have to do with a complaint
     * @param family codes of one family belong together
     * @param sets supply when a low supply explains it, condition when it only means that a test's
     *     conditions were not met, network when it follows from missing messages; empty otherwise
     * @param misses the module whose messages stayed away; empty otherwise
     * @param brings codes that this one brings along
     * @param about the value whose sensor or reference it speaks of; empty for none
     * @param uses values on which its test relies
     */
    public record Code(
            String code,
            String module,
            String name,
            double weight,
            String family,
            String why,
            String sets,
            String misses,
            List<String> brings,
            String about,
            List<String> uses) {}

    /**
     * @param under what must hold for the complaint to show, as far as live values tell; may be
     *     empty
     */
    public record Symptom(
            String id,
            String system,
            String name,
            String when,
            List<String> families,
            List<Condition> under) {}

    /**
     * Something that a module can be told to move or to switch.
     *
     * @param did output for service 0x2F; one byte a percentage of travel × 2
     * @param feedback value with its position; empty for what is only switched or set
     * @param current value with the current that it draws; empty when no module tells it
     * @param moveSeconds longest time for the travel from low to high; 0 without feedback
     * @param endError largest difference of feedback and command at rest, percent of travel; 0
     *     without feedback
     * @param circuit and motor: where it stands in a circuit sheet; empty when none is described
     * @param responds what else follows when it goes from low to high
     */
    public record Actuator(
            String id,
            String name,
            String module,
            int did,
            String command,
            String feedback,
            Optional<String> current,
            double low,
            double high,
            double moveSeconds,
            double endError,
            String circuit,
            String motor,
            List<Response> responds,
            List<Condition> gates) {
        public boolean hasFeedback() {
            return !feedback.isEmpty();
        }
    }

    /**
     * A value that follows an actuator.
     *
     * @param by change from low to high at least, in the value's own unit; negative when it falls
     * @param seconds after the command until it begins to move, at most
     */
    public record Response(String value, double by, double seconds) {}

    /** A circuit sheet; voltages count from battery minus. */
    public record Circuit(
            String id,
            String name,
            List<Point> points,
            List<Segment> segments,
            List<MotorPart> motors) {
        public Point point(String pointId) {
            return points.stream().filter(p -> p.id().equals(pointId)).findFirst().orElseThrow();
        }

        public Segment segment(String segmentId) {
            return segments.stream()
                    .filter(s -> s.id().equals(segmentId))
                    .findFirst()
                    .orElseThrow();
        }
    }

    /**
     * A place where wires meet and a probe can touch.
     *
     * @param side supply or earth; a load is hung towards the other battery pole
     * @param x grid column, y grid row, for the drawing
     * @param minutes to get at it; 0 when it cannot be probed
     */
    public record Point(
            String id, String name, String side, double x, double y, double minutes, String place) {
        public boolean canBeProbed() {
            return minutes > 0;
        }
    }

    /**
     * What joins two points.
     *
     * @param kind wire, fuse, relay, splice, contact or earth
     * @param ohm resistance when healthy
     */
    public record Segment(
            String id, String name, String kind, String from, String to, double ohm) {}

    /**
     * A motor between two points; see {@link brightlantern.core.actuator.Motor} for the figures.
     */
    public record MotorPart(
            String id,
            String name,
            String from,
            String to,
            double ohm,
            double loadAmps,
            double dampAmpsPerVolt,
            double percentPerVoltSecond) {}

    /**
     * A finding with a fixed set of outcomes.
     *
     * @param element of the network, for which every outcome speaks that is rare on a healthy
     *     vehicle; empty for findings of which the suspects tell themselves
     */
    public record Finding(String id, String name, List<Outcome> outcomes, String element) {
        public Finding {
            element = element == null ? "" : element;
        }

        public Outcome outcome(String outcomeId) {
            return outcomes.stream()
                    .filter(o -> o.id().equals(outcomeId))
                    .findFirst()
                    .orElseThrow();
        }
    }

    /**
     * @param healthy probability on a healthy vehicle
     */
    public record Outcome(String id, String name, double healthy) {}

    /**
     * A possible cause.
     *
     * @param common how common it is, relative to the others
     * @param effect what it does physically
     * @param codes code → probability that this cause brings it
     * @param symptoms symptom → probability that this cause is noticed so
     * @param tells finding → outcome → probability
     */
    public record Suspect(
            String id,
            String name,
            double common,
            Optional<Effect> effect,
            Map<String, Double> codes,
            Map<String, Double> symptoms,
            Map<String, Map<String, Double>> tells,
            List<String> chain,
            Repair repair) {}

    /**
     * @param kind series (ohms added in a segment) or drag (load current of a motor multiplied)
     * @param of segment or motor
     * @param from smallest, to largest severity
     */
    public record Effect(String kind, String circuit, String of, double from, double to) {}

    /**
     * An offered repair; price in the workshop's currency.
     *
     * @param told whether nothing is mended by it: what was found is told to the customer, and
     *     there is nothing to prove
     */
    public record Repair(
            String id,
            String name,
            double minutes,
            double price,
            String parts,
            String risk,
            boolean told) {}

    /**
     * A check that may be proposed next.
     *
     * @param kind run, reading or finding
     * @param of actuators, probe point, or finding
     * @param load nothing, lamp or bulb
     * @param at where in its stage it is done, such as {@code procedures/leak-test}; empty when the
     *     rest of the check says so
     */
    public record Check(
            String id,
            String name,
            String kind,
            String stage,
            List<String> of,
            String circuit,
            List<String> moving,
            String load,
            double minutes,
            String why,
            String at) {}

    /**
     * A target that an actual value must follow while the conditions hold; limits in the unit in
     * which both are shown.
     *
     * @param behind how far the actual may stay behind
     * @param seconds for how long together
     * @param command the actuator's command and feedback its position, to tell a lazy actuator from
     *     a lack of effect
     * @param short how far feedback may stay below command, percent
     * @param end command at which the actuator has nothing left to give, percent; 0 when that is
     *     not judged
     */
    public record Follow(
            String id,
            String finding,
            String target,
            String actual,
            String command,
            String feedback,
            List<Condition> when,
            double behind,
            double seconds,
            double shortBy,
            double atLeastSeconds,
            double end,
            List<String> conditions) {
        Follow in(String from, String to) {
            return to == null
                    ? this
                    : new Follow(
                            id,
                            finding,
                            target,
                            actual,
                            command,
                            feedback,
                            when,
                            Units.convertDifference(behind, from, to),
                            seconds,
                            shortBy,
                            atLeastSeconds,
                            end,
                            conditions);
        }
    }

    /**
     * Two values that must agree while the conditions hold.
     *
     * @param within largest difference, in the unit in which {@code a} is shown
     * @param agrees and differs: outcomes of the finding
     */
    public record Agreement(
            String id,
            String name,
            String finding,
            String a,
            String b,
            double within,
            List<Condition> when,
            String agrees,
            String differs) {
        Agreement in(String from, String to) {
            return to == null
                    ? this
                    : new Agreement(
                            id,
                            name,
                            finding,
                            a,
                            b,
                            Units.convertDifference(within, from, to),
                            when,
                            agrees,
                            differs);
        }
    }

    /**
     * The fuel trims of one bank of cylinders.
     *
     * @param shortTerm and longTerm: values that hold them, percent
     * @param finding what the pattern over the regimes is told as
     * @param refuelled what filling up changed is told as; empty when it is not looked at
     * @param lean and rich: totals beyond which a mixture is off, percent
     * @param leastSeconds for how long a regime must be recorded
     * @param regimes idle first
     */
    public record TrimSet(
            String id,
            String name,
            String shortTerm,
            String longTerm,
            String finding,
            String refuelled,
            double lean,
            double rich,
            double leastSeconds,
            List<Regime> regimes) {}

    /** A way in which the engine runs, held by its conditions. */
    public record Regime(String id, String name, List<Condition> when) {}

    /**
     * The cylinders of the engine, and how much each contributes.
     *
     * @param order in which they fire
     * @param banks cylinder → bank; empty with one bank
     * @param deviation and misfires: beginnings of the ids of a cylinder's values, its number
     *     follows
     * @param roughness value that tells how much the crank shakes; empty for none
     * @param finding what is found is told as; empty when it is not
     * @param weak speed that the weak one lacks at least, rpm (below zero)
     * @param scatter of the cylinders of a healthy engine, rpm (one standard deviation)
     * @param soundTo engine speed above which the deviation says nothing, rpm
     */
    public record Cylinders(
            List<Integer> order,
            Map<Integer, String> banks,
            String deviation,
            String misfires,
            String speed,
            String roughness,
            String finding,
            double weak,
            double scatter,
            double soundTo,
            double leastSeconds,
            List<Condition> when) {
        public String deviationOf(int cylinder) {
            return deviation + cylinder;
        }

        public String misfiresOf(int cylinder) {
            return misfires + cylinder;
        }
    }

    /**
     * A system as a picture: parts with the values that are measured there, and what joins them.
     *
     * @param pipes pairs of part ids, in the direction of the flow
     */
    public record Drawing(
            String id, String name, List<DrawnPart> parts, List<List<String>> pipes) {}

    /**
     * @param shape box, round or tank
     * @param x and y: grid column and row of its middle
     */
    public record DrawnPart(
            String id, String name, String shape, double x, double y, List<String> values) {}

    /** The values that the page head needs. */
    public record Live(
            String supply,
            String ignition,
            double ignitionOn,
            String engineSpeed,
            String odometer,
            String vinModule) {}

    /** A vehicle of which only the networks are known. */
    public static VehicleDescription ofNetwork(
            String id,
            String name,
            String engine,
            String vinPattern,
            List<Bus> buses,
            List<Module> modules,
            List<Feed> feeds,
            Live live) {
        return new VehicleDescription(
                id,
                name,
                engine,
                vinPattern,
                buses,
                modules,
                feeds,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                List.of(),
                live);
    }

    /** False for what was put together from a vehicle that nobody described. */
    public boolean isKnown() {
        return !id.equals(UnknownVehicle.ID);
    }

    public boolean fits(Vin vin) {
        return Pattern.matches(vinPattern, vin.text());
    }

    public Optional<Module> module(String moduleId) {
        return modules.stream().filter(m -> m.id().equals(moduleId)).findFirst();
    }

    public Optional<Module> moduleAt(int address) {
        return modules.stream().filter(m -> m.address() == address).findFirst();
    }

    /** The same with these suspects beside its own. */
    public VehicleDescription withSuspects(List<Suspect> more) {
        List<Suspect> all = new ArrayList<>(suspects);
        all.addAll(more);
        return with(values, all, follows, agreements);
    }

    /** The wire knows modules by address; people know them by name. */
    public String named(String words) {
        String told = words;
        for (Module m : modules) {
            String address = "%04X".formatted(m.address());
            told =
                    told.replaceAll(
                            "\\b[Mm]odule " + address + "\\b",
                            Matcher.quoteReplacement(m.name() + " (module " + address + ")"));
        }
        return told;
    }

    /** The same with these values beside its own; what it knows already stays. */
    public VehicleDescription withValues(List<Value> more) {
        List<Value> all = new ArrayList<>(values);
        more.stream().filter(v -> value(v.id()).isEmpty()).forEach(all::add);
        return more.isEmpty() ? this : with(all, suspects, follows, agreements);
    }

    /**
     * The same with values shown in other units; limits that are told in the unit shown follow.
     *
     * @param choices quantity → unit, as {@link brightlantern.core.signal.Units} knows them
     */
    public VehicleDescription shownIn(Map<String, String> choices) {
        if (choices.isEmpty()) {
            return this;
        }
        return with(
                values.stream().map(v -> v.shownIn(unit(v, choices))).toList(),
                suspects,
                follows.stream()
                        .map(
                                f ->
                                        value(f.target())
                                                .map(t -> f.in(t.show(), unit(t, choices)))
                                                .orElse(f))
                        .toList(),
                agreements.stream()
                        .map(a -> value(a.a()).map(v -> a.in(v.show(), unit(v, choices))).orElse(a))
                        .toList());
    }

    private static String unit(Value value, Map<String, String> choices) {
        return Units.quantity(value.show()).map(choices::get).orElse(value.show());
    }

    private VehicleDescription with(
            List<Value> itsValues,
            List<Suspect> itsSuspects,
            List<Follow> itsFollows,
            List<Agreement> itsAgreements) {
        return new VehicleDescription(
                id,
                name,
                engine,
                vinPattern,
                buses,
                modules,
                feeds,
                itsValues,
                codes,
                symptoms,
                actuators,
                circuits,
                findings,
                itsSuspects,
                checks,
                itsFollows,
                itsAgreements,
                trims,
                mileage,
                cylinders,
                drawings,
                live);
    }

    /** Modules of a bus in the order of its wire, the gateway and sub-modules left out. */
    public List<Module> onWire(String busId) {
        return modules.stream()
                .filter(m -> m.bus().equals(busId))
                .filter(m -> !m.id().equals(GATEWAY) && m.under().isEmpty())
                .sorted(Comparator.comparingInt(Module::order))
                .toList();
    }

    public Optional<Value> value(String valueId) {
        return values.stream().filter(v -> v.id().equals(valueId)).findFirst();
    }

    public Optional<Code> code(String moduleId, String code) {
        return codes.stream()
                .filter(c -> c.module().equals(moduleId) && c.code().equals(code))
                .findFirst();
    }

    public Optional<Actuator> actuator(String actuatorId) {
        return actuators.stream().filter(a -> a.id().equals(actuatorId)).findFirst();
    }

    public Optional<Circuit> circuit(String circuitId) {
        return circuits.stream().filter(c -> c.id().equals(circuitId)).findFirst();
    }

    public Optional<Suspect> suspect(String suspectId) {
        return suspects.stream().filter(s -> s.id().equals(suspectId)).findFirst();
    }

    public Optional<Check> check(String checkId) {
        return checks.stream().filter(c -> c.id().equals(checkId)).findFirst();
    }

    public Optional<Finding> finding(String findingId) {
        return findings.stream().filter(f -> f.id().equals(findingId)).findFirst();
    }
}
