package brightlantern.app.sweep;

import brightlantern.app.job.Sweeps;
import brightlantern.app.page.Drawings;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** The networks as they were first found, when somebody was silent; the odometer's line of time. */
@Component
class MapDrawings implements Drawings {
    private final Sweeps sweeps;
    private final CodeParts parts;
    private final OdometerChecks checks;
    private final UnitChoices units;

    MapDrawings(Sweeps sweeps, CodeParts parts, OdometerChecks checks, UnitChoices units) {
        this.sweeps = sweeps;
        this.parts = parts;
        this.checks = checks;
        this.units = units;
    }

    @Override
    public List<Drawing> of(JobPages.Context context, Instant repaired) {
        List<Drawing> drawings = new ArrayList<>();
        sweeps.heads(context.job().id()).stream()
                .reduce((newer, older) -> older)
                .map(h -> sweeps.read(h.id()).sweep())
                .ifPresent(first -> map(context, first).ifPresent(drawings::add));
        checks.newest(context.job().id())
                .ifPresent(
                        c ->
                                drawings.add(
                                        new Drawing(
                                                "Distance over time, every record",
                                                "sweep/odometer-line",
                                                OdometerChart.of(
                                                        c.verdict(), c.now(), c.shown(), units))));
        return drawings;
    }

    private Optional<Drawing> map(JobPages.Context context, Sweep first) {
        Optional<Element> suspected = parts.suspected(context, first);
        boolean wrong =
                suspected.isPresent()
                        || first.count(Answer.SILENT) + first.count(Answer.FAULTY) > 0;
        return wrong
                ? Optional.of(
                        new Drawing(
                                "The networks at the first sweep",
                                "sweep/map-paper",
                                SweepWords.map(context, Optional.of(first), Set.of(), suspected)))
                : Optional.empty();
    }
}
