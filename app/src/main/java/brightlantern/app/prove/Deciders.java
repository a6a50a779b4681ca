package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Reasoning;
import brightlantern.app.job.Repairs;
import brightlantern.app.page.JobPages;
import brightlantern.core.reason.Ranking;
import java.util.List;
import org.springframework.stereotype.Component;

/** What decided for a cause. */
@Component
class Deciders {
    private final Repairs repairs;
    private final Reasoning reasoning;
    private final Findings findings;

    Deciders(Repairs repairs, Reasoning reasoning, Findings findings) {
        this.repairs = repairs;
        this.reasoning = reasoning;
        this.findings = findings;
    }

    Ranking ranking(JobPages.Context context) {
        return reasoning
                .of(context.job().id(), context.description(), context.link().status().supply())
                .ranking();
    }

    /** The findings that spoke loudest for the repaired suspect. */
    List<String> decisive(JobPages.Context context) {
        Reasoning.State state =
                reasoning.of(
                        context.job().id(),
                        context.description(),
                        context.link().status().supply());
        String suspect =
                repairs.current(context.job().id())
                        .map(Repairs.Repair::suspectId)
                        .orElse(state.ranking().lead().suspectId());
        return state.ranking().of(suspect).stream()
                .flatMap(s -> s.contributions().stream())
                .filter(p -> p.log10Odds() > 0.1)
                .sorted((a, b) -> Double.compare(b.log10Odds(), a.log10Odds()))
                .limit(4)
                .map(p -> state.findings().get(p.evidenceIndex()).text())
                .toList();
    }
}
