package brightlantern.core.vehicle;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.actuator.Outputs;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Wiring;
import brightlantern.core.code.Code;
import brightlantern.core.code.CodeTable;
import brightlantern.core.cylinder.CylinderSection;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.learned.LearnedValue;
import brightlantern.core.learned.LearnedValues;
import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Feed;
import brightlantern.core.network.Network;
import brightlantern.core.odometer.Distances;
import brightlantern.core.odometer.Mileage;
import brightlantern.core.signal.Drawing;
import brightlantern.core.signal.HeadValues;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import brightlantern.core.study.agreement.Agreement;
import brightlantern.core.study.agreement.Agreements;
import brightlantern.core.study.target.Follow;
import brightlantern.core.study.target.Targets;
import brightlantern.core.study.trim.FuelTrims;
import brightlantern.core.study.trim.TrimSet;
import brightlantern.core.suspect.Causes;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Consequence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * All that is known of one kind of vehicle, composed of the slices that the packages of the trade
 * own. Made by {@link DescriptionReader} from YAML; references between its parts have been checked
 * when it exists. Addresses and identifiers are numbers as they stand on the wire.
 */
public record VehicleDescription(
        String id,
        String name,
        String engine,
        String vinPattern,
        Network network,
        Signals signals,
        CodeTable codeTable,
        Causes causes,
        Wiring wiring,
        Outputs outputs,
        Targets targets,
        Agreements comparisons,
        FuelTrims fuelTrims,
        CylinderSection cylinderSection,
        Distances distances,
        LearnedValues learnedValues) {
    /** A vehicle of which only the networks are known. */
    public static VehicleDescription ofNetwork(
            String id,
            String name,
            String engine,
            String vinPattern,
            List<Bus> buses,
            List<ControlModule> modules,
            List<Feed> feeds,
            HeadValues live) {
        return Slices.compose(
                id,
                name,
                engine,
                vinPattern,
                List.of(
                        new Network(buses, modules, feeds),
                        new Signals(List.of(), List.of(), Optional.of(live))));
    }

    /** False for what was put together from a vehicle that nobody described. */
    public boolean isKnown() {
        return !id.equals(UnknownVehicle.ID);
    }

    /** Whether a VIN fits its pattern. */
    public boolean fits(Vin vin) {
        return Pattern.matches(vinPattern, vin.text());
    }

    /** The same with these symptoms and findings beside its own. */
    public VehicleDescription with(List<Symptom> symptoms, List<Finding> findings) {
        return Slices.replaced(this, List.of(causes.with(symptoms, findings)));
    }

    /** The same with these suspects and checks in the place of its own. */
    public VehicleDescription withOnly(List<Suspect> suspects, List<Check> checks) {
        return Slices.replaced(this, List.of(causes.withOnly(suspects, checks)));
    }

    /** The same with these suspects beside its own. */
    public VehicleDescription withSuspects(List<Suspect> more) {
        return Slices.replaced(this, List.of(causes.with(more)));
    }

    /** The same with these checks beside its own. */
    public VehicleDescription withChecks(List<Check> more) {
        return Slices.replaced(this, List.of(causes.withChecks(more)));
    }

    /** The same with these values beside its own; what it knows already stays. */
    public VehicleDescription withValues(List<Value> more) {
        return more.isEmpty() ? this : Slices.replaced(this, List.of(signals.with(more)));
    }

    /**
     * The same with values shown in other units; limits that are told in the unit shown follow.
     *
     * @param choices quantity → unit, as {@link brightlantern.core.signal.Units} knows them
     */
    public VehicleDescription shownIn(Map<String, String> choices) {
        return choices.isEmpty()
                ? this
                : Slices.replaced(
                        this,
                        List.of(
                                signals.shownIn(choices),
                                targets.shownIn(choices, signals),
                                comparisons.shownIn(choices, signals),
                                learnedValues.shownIn(choices, signals)));
    }

    /** See {@link LearnedValues#learned}. */
    public List<LearnedValue> learned() {
        return learnedValues.learned();
    }

    /** See {@link Network#buses}. */
    public List<Bus> buses() {
        return network.buses();
    }

    /** See {@link Network#modules}. */
    public List<ControlModule> modules() {
        return network.modules();
    }

    /** See {@link Network#feeds}. */
    public List<Feed> feeds() {
        return network.feeds();
    }

    /** See {@link Network#module}. */
    public Optional<ControlModule> module(String moduleId) {
        return network.module(moduleId);
    }

    /** See {@link Network#moduleAt}. */
    public Optional<ControlModule> moduleAt(int address) {
        return network.moduleAt(address);
    }

    /** See {@link Network#onWire}. */
    public List<ControlModule> onWire(String busId) {
        return network.onWire(busId);
    }

    /** See {@link Network#named}. */
    public String named(String words) {
        return network.named(words);
    }

    /** See {@link Signals#values}. */
    public List<Value> values() {
        return signals.values();
    }

    /** See {@link Signals#value}. */
    public Optional<Value> value(String valueId) {
        return signals.value(valueId);
    }

    /** See {@link Signals#drawings}. */
    public List<Drawing> drawings() {
        return signals.drawings();
    }

    /** See {@link Signals#live}. */
    public HeadValues live() {
        return signals.live().orElse(HeadValues.NONE);
    }

    /** See {@link CodeTable#codes}. */
    public List<Code> codes() {
        return codeTable.codes();
    }

    /** See {@link CodeTable#code}. */
    public Optional<Code> code(String moduleId, String code) {
        return codeTable.code(moduleId, code);
    }

    /** See {@link Causes#symptoms}. */
    public List<Symptom> symptoms() {
        return causes.symptoms();
    }

    /** See {@link Causes#findings}. */
    public List<Finding> findings() {
        return causes.findings();
    }

    /** See {@link Causes#finding}. */
    public Optional<Finding> finding(String findingId) {
        return causes.finding(findingId);
    }

    /** See {@link Causes#suspects}. */
    public List<Suspect> suspects() {
        return causes.suspects();
    }

    /** See {@link Causes#suspect}. */
    public Optional<Suspect> suspect(String suspectId) {
        return causes.suspect(suspectId);
    }

    /** See {@link Causes#checks}. */
    public List<Check> checks() {
        return causes.checks();
    }

    /** See {@link Causes#check}. */
    public Optional<Check> check(String checkId) {
        return causes.check(checkId);
    }

    /** See {@link Causes#consequences}. */
    public List<Consequence> consequences() {
        return causes.consequences();
    }

    /** See {@link Wiring#circuits}. */
    public List<Circuit> circuits() {
        return wiring.circuits();
    }

    /** See {@link Wiring#circuit}. */
    public Optional<Circuit> circuit(String circuitId) {
        return wiring.circuit(circuitId);
    }

    /** See {@link Outputs#actuators}. */
    public List<Actuator> actuators() {
        return outputs.actuators();
    }

    /** See {@link Outputs#actuator}. */
    public Optional<Actuator> actuator(String actuatorId) {
        return outputs.actuator(actuatorId);
    }

    /** See {@link Targets#follows}. */
    public List<Follow> follows() {
        return targets.follows();
    }

    /** See {@link Agreements#agreements}. */
    public List<Agreement> agreements() {
        return comparisons.agreements();
    }

    /** See {@link FuelTrims#trims}. */
    public List<TrimSet> trims() {
        return fuelTrims.trims();
    }

    /** See {@link CylinderSection#cylinders}. */
    public Optional<Cylinders> cylinders() {
        return cylinderSection.cylinders();
    }

    /** See {@link Distances#mileage}. */
    public List<Mileage> mileage() {
        return distances.mileage();
    }
}
