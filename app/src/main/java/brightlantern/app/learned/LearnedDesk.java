package brightlantern.app.learned;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.core.learned.LearnedStudy;
import brightlantern.core.learned.LearnedValue;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Reads what the modules of a vehicle have learned, keeps it, and hands it to Trace. */
@Component
public class LearnedDesk {
    private final LearnedReadings readings;
    private final Findings findings;

    LearnedDesk(LearnedReadings readings, Findings findings) {
        this.readings = readings;
        this.findings = findings;
    }

    /**
     * Asks the modules, keeps what they tell, and weighs it. Modules sleep while the key is off,
     * and nothing is read then.
     *
     * @return how many values were told
     */
    public int read(JobPages.Context context, String who) {
        VehicleDescription d = context.description();
        Map<String, Double> told = new LinkedHashMap<>();
        if (!d.learned().isEmpty() && !context.keyOff()) {
            context.link()
                    .read(d, d.learned().stream().map(LearnedValue::value).toList())
                    .forEach(
                            (id, figure) -> {
                                if (Double.isFinite(figure)) {
                                    told.put(id, figure);
                                }
                            });
        }
        readings.add(context.job(), Instant.now(), told);
        verdicts(context).stream()
                .filter(v -> told.containsKey(v.value().id()))
                .forEach(v -> weigh(context, v, who));
        return told.size();
    }

    /** What something else weighs already is told where it is not as usual. */
    private void weigh(JobPages.Context context, LearnedStudy.Verdict verdict, String who) {
        String text = verdict.value().name() + " " + verdict.sentence();
        String finding = verdict.learned().finding();
        if (!finding.isEmpty()) {
            findings.add(
                    context.job().id(),
                    "watch",
                    who,
                    text,
                    Optional.of(verdict.holds()),
                    new Evidence.Outcome(finding, verdict.outcome()));
        } else if (!verdict.holds()) {
            findings.note(context.job().id(), "watch", who, text);
        }
    }

    /** Where each value stands that was ever read of this vehicle, those beyond usual first. */
    public List<LearnedStudy.Verdict> verdicts(JobPages.Context context) {
        Map<String, List<LearnedStudy.Reading>> known = readings(context);
        List<LearnedStudy.Verdict> verdicts = new ArrayList<>();
        for (LearnedValue learned : context.description().learned()) {
            List<LearnedStudy.Reading> its = known.getOrDefault(learned.value(), List.of());
            if (!its.isEmpty()) {
                verdicts.add(LearnedStudy.of(learned, value(context, learned), its));
            }
        }
        verdicts.sort((a, b) -> Double.compare(Math.abs(b.share()), Math.abs(a.share())));
        return verdicts;
    }

    /** Value → what was read of it in the unit in which it is shown, in the order of time. */
    Map<String, List<LearnedStudy.Reading>> readings(JobPages.Context context) {
        Map<String, List<LearnedStudy.Reading>> all = new LinkedHashMap<>();
        for (LearnedReadings.Kept kept : readings.of(context.job().vin())) {
            context.description()
                    .value(kept.value())
                    .ifPresent(
                            v ->
                                    all.computeIfAbsent(v.id(), id -> new ArrayList<>())
                                            .add(
                                                    new LearnedStudy.Reading(
                                                            kept.at(),
                                                            Scaling.shown(v, kept.figure()))));
        }
        return all;
    }

    static Value value(JobPages.Context context, LearnedValue learned) {
        return context.description().value(learned.value()).orElseThrow();
    }
}
