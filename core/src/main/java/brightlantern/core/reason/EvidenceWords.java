package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Locale;

/** What a piece of evidence says, for those who were not there. */
public final class EvidenceWords {
    /** Less than this shows as zero, and has no sign, V. */
    private static final double SHOWN = 0.005;

    private EvidenceWords() {}

    /** In a sentence; empty for what says nothing by itself. */
    public static String of(Evidence piece, VehicleDescription d) {
        if (piece instanceof Evidence.SymptomTold told) {
            return d.symptoms().stream()
                    .filter(s -> s.id().equals(told.symptomId()))
                    .map(s -> "Told: " + s.name() + ", " + s.when())
                    .findFirst()
                    .orElse("");
        }
        if (piece instanceof Evidence.CodeSeen code) {
            return code.present() ? "Code " + code.code() : "No code " + code.code();
        }
        if (piece instanceof Evidence.Outcome outcome) {
            return d.finding(outcome.findingId())
                    .map(f -> f.name() + ": " + shown(f, outcome.outcomeId()))
                    .orElse("");
        }
        if (piece instanceof Evidence.Judged judged) {
            return d.finding(judged.findingId())
                    .map(f -> f.name() + ": " + shown(f, judged.outcomeId()))
                    .orElse("");
        }
        if (piece instanceof Evidence.Reading reading) {
            return reading(reading, d);
        }
        if (piece instanceof Evidence.BusSeen seen) {
            return "Both ends of the bus: " + seen.state().words();
        }
        return piece instanceof Evidence.Heard heard
                ? heard.right() ? "Every fitted module answers" : "Not all modules answer"
                : "";
    }

    private static String shown(Finding finding, String outcomeId) {
        return finding.outcomes().stream()
                .filter(o -> o.id().equals(outcomeId))
                .map(o -> o.name())
                .findFirst()
                .orElse(outcomeId);
    }

    private static String reading(Evidence.Reading r, VehicleDescription d) {
        String point =
                d.circuit(r.circuitId()).map(c -> c.point(r.pointId()).name()).orElse(r.pointId());
        String moving =
                r.moving().stream()
                        .flatMap(
                                m ->
                                        d
                                                .circuit(r.circuitId())
                                                .flatMap(c -> c.setting(m))
                                                .map(x -> x.name())
                                                .stream())
                        .findFirst()
                        .map(name -> ", " + name)
                        .orElse("");
        return String.format(
                Locale.ROOT,
                "%s%s: %.2f V, %s",
                point,
                moving,
                Math.abs(r.volts()) < SHOWN ? 0.0 : r.volts(),
                r.right() ? "as it should be" : "not as it should be");
    }
}
