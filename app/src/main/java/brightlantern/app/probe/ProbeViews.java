package brightlantern.app.probe;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Reasoning;
import brightlantern.app.page.JobPages;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel;
import brightlantern.core.circuit.HungOn;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.reason.SensorWalk;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What the Probe page shows of one point of one circuit. */
@Component
final class ProbeViews {
    private static final double TYPICAL_VOLTS = 12.4;

    private final Reasoning reasoning;
    private final Findings findings;

    ProbeViews(Reasoning reasoning, Findings findings) {
        this.reasoning = reasoning;
        this.findings = findings;
    }

    ProbeView of(JobPages.Context context, Circuit circuit, ProbePoint point, String wanted) {
        double supply = supply(context);
        TakenReadings taken = new TakenReadings(findings.of(context.job().id()));
        HungOn hung = new HungOn(circuit, point.id());
        List<ProbeCondition> conditions = hung.offered();
        List<String> common = new CircuitModel(circuit).commonPath();
        VehicleDescription d = context.description();
        SharedPoints shared = new SharedPoints(d.circuits());
        Optional<Sensed> sensed =
                Sensed.at(circuit, point.id(), d::value, Asked.told(context, circuit, point));
        return new ProbeView(
                SheetFinder.bySystem(context.description(), circuit),
                circuit,
                point,
                taken.answer(),
                String.format(Locale.ROOT, "%.2f", supply),
                ToldWords.of(d, sensed),
                conditions.stream()
                        .map(
                                c ->
                                        new ProbeView.Condition(
                                                c.id(),
                                                c.name(circuit),
                                                c.does(circuit),
                                                c.healthy(
                                                                shared,
                                                                circuit,
                                                                point.id(),
                                                                supply,
                                                                // unplugged it tells nothing
                                                                sensed.filter(s -> !c.unplugs()))
                                                        .words()))
                        .toList(),
                // nothing that moves the vehicle is preselected unless somebody asked for it
                conditions.stream()
                        .filter(c -> c.id().equals(wanted))
                        .findFirst()
                        .orElse(conditions.get(0))
                        .id(),
                hung.refused(),
                CircuitSheet.of(
                        circuit,
                        common,
                        point.id(),
                        taken.in(circuit),
                        reasoning.inQuestion(context.job().id(), context.description(), supply)),
                common.stream()
                        .map(s -> circuit.segment(s).name())
                        .collect(Collectors.joining(", ")),
                taken.hidden(circuit),
                SheetFinder.shares(context.description(), circuit),
                SensorWalk.sensors(circuit),
                taken.rows(context.description()));
    }

    private static double supply(JobPages.Context context) {
        double supply = context.link().status().supply();
        return Double.isNaN(supply) ? TYPICAL_VOLTS : supply;
    }
}
