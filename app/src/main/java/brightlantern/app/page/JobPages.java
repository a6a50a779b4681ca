package brightlantern.app.page;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Reasoning;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.battery.SupplyVerdict;
import brightlantern.core.reason.Contribution;
import brightlantern.core.reason.Explanation;
import brightlantern.core.reason.NextStep;
import brightlantern.core.reason.Standing;
import brightlantern.core.signal.HeadValues;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.ComplaintWords;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.springframework.web.server.ResponseStatusException;

/** Puts the frame of a job's page together: top bar, path of stages, evidence rail. */
@Component
public class JobPages {
    public static final List<String> STAGES =
            List.of("intake", "sweep", "watch", "exercise", "probe", "trace", "prove");

    /** About what a finding is that says that nothing described is meant. */
    public static final String COMPLAINT_ASKED = "complaint";

    private static final int RAIL_SUSPECTS = 4;
    private static final int RAIL_FINDINGS = 5;

    /** A case that is less alike, in percent, is told at Intake alone. */
    private static final int TOLD_EVERYWHERE = 40;

    private final Jobs jobs;
    private final VehicleLinks links;
    private final Findings findings;
    private final Reasoning reasoning;
    private final Sweeps sweeps;
    private final Repairs repairs;
    private final UnitChoices units;
    private final CasesLike cases;

    JobPages(
            Jobs jobs,
            VehicleLinks links,
            Findings findings,
            Reasoning reasoning,
            Sweeps sweeps,
            Repairs repairs,
            UnitChoices units,
            CasesLike cases) {
        this.cases = cases;
        this.units = units;
        this.jobs = jobs;
        this.links = links;
        this.findings = findings;
        this.reasoning = reasoning;
        this.sweeps = sweeps;
        this.repairs = repairs;
    }

    /**
     * What a page was asked for.
     *
     * @throws ResponseStatusException 404 with a sentence that names it, when there is no such
     *     thing
     */
    public static <T> T found(Optional<T> maybe, String kind, Object name) {
        return maybe.orElseThrow(
                () ->
                        new ResponseStatusException(
                                HttpStatus.NOT_FOUND,
                                "There is no " + kind + " '" + name + "' here."));
    }

    /** A job with its description, ready for a stage to work on. */
    public record Context(Job job, VehicleDescription description, VehicleLink link) {
        /**
         * Whether the vehicle says that its key is off: modules sleep then, and what they do not
         * answer says nothing of them.
         */
        public boolean keyOff() {
            // a vehicle that does not tell has NaN, which is below nothing
            return link.status().ignition() < description.live().ignitionOn();
        }

        /** Whether the vehicle says that its key is on. */
        public boolean keyOn() {
            return link.status().ignition() >= description.live().ignitionOn();
        }
    }

    /** What the top bar shows; texts are ready to be read. */
    public record Head(
            boolean connected,
            String link,
            String ignition,
            String supply,
            boolean supplyGood,
            String supplyWords,
            String commander) {}

    public record StageLink(String id, String name, boolean lit, boolean here) {}

    /**
     * @param push strength and direction on the leading suspect, -1..1
     */
    public record RailFinding(String stage, String text, String verdict, double push) {}

    public record RailSuspect(String name, int percent, String sure) {}

    /**
     * @param step what to do next, for pages that follow it
     * @param budget how its time stands; empty when nothing is looked for any more
     * @param alike the case on the shelf that is most like this job; null without one
     */
    public record Rail(
            String sentence,
            List<RailSuspect> suspects,
            List<RailFinding> findings,
            NextStep step,
            NextCard next,
            String budget,
            CasesLike.Alike alike) {}

    public Job job(long id) {
        return jobs.byId(id)
                .orElseThrow(
                        () ->
                                new ResponseStatusException(
                                        HttpStatus.NOT_FOUND, "There is no job " + id + "."));
    }

    public Context context(long id) {
        Job job = job(id);
        return new Context(job, links.description(job).shownIn(units.ofWhoever()), links.link(job));
    }

    /** Fills the model for a full page of a stage. */
    public Context fill(long id, String stage, Model model) {
        Context context = context(id);
        Job job = context.job();
        model.addAttribute("job", job);
        model.addAttribute("description", context.description());
        model.addAttribute("stage", stage);
        model.addAttribute("stages", stages(job, stage));
        model.addAttribute("head", head(context));
        model.addAttribute("rail", rail(context));
        return context;
    }

    public Head head(Context context) {
        VehicleLink.Status status = context.link().status();
        HeadValues live = context.description().live();
        SupplyVerdict supply = SupplyVerdict.of(status.supply(), status.engineRuns());
        String ignition =
                Double.isNaN(status.ignition())
                        ? "not known"
                        : context.description()
                                .value(live.ignition())
                                .map(v -> Scaling.show(v, status.ignition()))
                                .orElse("not known");
        return new Head(
                status.connected(),
                status.words(),
                ignition + (status.engineRuns() ? ", engine runs" : ""),
                Double.isNaN(status.supply())
                        ? "–"
                        : String.format(Locale.ROOT, "%.1f V", status.supply()),
                supply.good(),
                supply.words(),
                context.link().lease().holder().orElse(""));
    }

    private List<StageLink> stages(Job job, String here) {
        List<String> lit =
                new ArrayList<>(
                        findings.of(job.id()).stream()
                                .filter(f -> f.evidence().isPresent() || f.passed().isPresent())
                                .map(Findings.Finding::stage)
                                .toList());
        lit.add("intake");
        if (!sweeps.heads(job.id()).isEmpty()) {
            lit.add("sweep");
        }
        if (!repairs.of(job.id()).isEmpty()) {
            lit.add("prove");
        }
        return STAGES.stream()
                .map(
                        s ->
                                new StageLink(
                                        s,
                                        s.substring(0, 1).toUpperCase(Locale.ROOT) + s.substring(1),
                                        lit.contains(s),
                                        s.equals(here)))
                .toList();
    }

    public Rail rail(Context context) {
        Reasoning.State state =
                reasoning.of(
                        context.job().id(),
                        context.description(),
                        context.link().status().supply());
        Standing lead = state.ranking().lead();
        // before anything was found, how common things are says nothing of this vehicle
        boolean bare = state.isBare();
        List<RailSuspect> suspects =
                state.ranking().standings().stream()
                        .limit(bare ? 0 : RAIL_SUSPECTS)
                        .map(
                                s ->
                                        new RailSuspect(
                                                s.name(),
                                                (int) Math.round(100 * s.sureness()),
                                                Words.percent(s.sureness())))
                        .toList();
        List<Findings.Finding> all = findings.of(context.job().id());
        List<RailFinding> last = new ArrayList<>();
        for (int i = all.size() - 1; i >= 0 && last.size() < RAIL_FINDINGS; i--) {
            Findings.Finding f = all.get(i);
            int index = indexOf(state.findings(), f);
            double push =
                    lead.contributions().stream()
                            .filter(p -> p.evidenceIndex() == index)
                            .mapToDouble(Contribution::log10Odds)
                            .findFirst()
                            .orElse(0);
            last.add(
                    new RailFinding(
                            f.stage(),
                            f.text(),
                            f.passed().map(p -> p ? "holds" : "fails").orElse(""),
                            Math.max(-1, Math.min(1, push / 2))));
        }
        NextStep step = next(context, state);
        return new Rail(
                bare
                        ? Explanation.nothingFound(!context.job().symptoms().isEmpty())
                        : state.ranking().sentence(),
                suspects,
                last,
                step,
                NextCard.of(context.job(), context.description(), step),
                step instanceof NextStep.DoCheck ? state.budget().words() : "",
                bare ? null : nearest(context, state));
    }

    /** Cases on the shelf that are like a job, the most alike first. */
    public List<CasesLike.Alike> alike(Context context, int most) {
        return alike(
                context,
                reasoning.of(
                        context.job().id(),
                        context.description(),
                        context.link().status().supply()),
                most);
    }

    /** The most alike, if it is alike enough to be told everywhere; null without one. */
    private CasesLike.Alike nearest(Context context, Reasoning.State state) {
        return alike(context, state, 1).stream()
                .filter(a -> a.percent() >= TOLD_EVERYWHERE)
                .findFirst()
                .orElse(null);
    }

    private List<CasesLike.Alike> alike(Context context, Reasoning.State state, int most) {
        return cases.of(
                context.job(), context.description(), state.ranking(), state.evidence(), most);
    }

    /** What the words of a complaint may mean; none once it is coded, or was asked. */
    public List<Symptom> meant(Context context) {
        boolean asked =
                findings.of(context.job().id()).stream()
                        .anyMatch(f -> f.about().equals(COMPLAINT_ASKED));
        return asked || !context.job().symptoms().isEmpty()
                ? List.of()
                : ComplaintWords.meant(context.description().symptoms(), context.job().complaint());
    }

    private NextStep next(Context context, Reasoning.State state) {
        Job job = context.job();
        return NextStep.of(
                new NextStep.Situation(
                        job.isOpen(),
                        sweeps.heads(job.id()).stream().anyMatch(Sweeps.Head::whole),
                        !job.symptoms().isEmpty(),
                        meant(context),
                        repairs.current(job.id()).isPresent(),
                        state.ranking(),
                        state.evidence(),
                        state.next()),
                context.description());
    }

    private static int indexOf(List<Findings.Finding> list, Findings.Finding finding) {
        for (int i = 0; i < list.size(); i++) {
            if (list.get(i).id() == finding.id()) {
                return i;
            }
        }
        return -1;
    }
}
