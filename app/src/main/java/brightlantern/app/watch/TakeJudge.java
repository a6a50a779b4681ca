package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.LeadCodes;
import brightlantern.app.job.Takes;
import brightlantern.app.page.JobPages;
import brightlantern.app.page.Proofs;
import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.proof.DriveConditions;
import brightlantern.core.proof.ProofRecord;
import brightlantern.core.signal.Units;
import brightlantern.core.study.target.Follow;
import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.study.trim.TrimSet;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** All studies that judge a take by itself, for its page and for Trace. */
@Component
class TakeJudge {
    private static final String ENOUGH = "It is judged when the take ends.";

    private final Takes takes;
    private final Findings findings;
    private final LeadCodes leads;
    private final TrimFindings trims;
    private final Proofs proofs;

    TakeJudge(Takes takes, Findings findings, LeadCodes leads, TrimFindings trims, Proofs proofs) {
        this.takes = takes;
        this.findings = findings;
        this.leads = leads;
        this.trims = trims;
        this.proofs = proofs;
    }

    /** What the studies make of a take, for its page. */
    record Views(
            String answer,
            List<TargetStudy.Verdict> targets,
            List<TrimFindings.View> trims,
            Optional<CylinderStudy.Verdict> cylinders,
            List<String> whyNot) {
        public boolean any() {
            return !targets.isEmpty() || !trims.isEmpty() || cylinders.isPresent();
        }
    }

    /** Hands what a take says to Trace. */
    void judge(JobPages.Context context, long takeId, String who) {
        Take take = takes.read(takeId);
        long job = context.job().id();
        String name = takes.head(job, takeId).map(Takes.TakeHead::name).orElse("take");
        boolean judged = false;
        for (Follow follow : context.description().follows()) {
            Optional<TargetStudy.Verdict> verdict = target(context, follow, take);
            if (verdict.isPresent()) {
                judged = true;
                TargetStudy.Verdict v = verdict.get();
                findings.add(
                        job,
                        "watch",
                        who,
                        String.format(
                                Locale.ROOT,
                                "%s: %s Worst %s %s behind.",
                                name,
                                v.sentence(),
                                Units.told(Math.max(0, v.worst())),
                                v.unit()),
                        Optional.of(v.outcome().equals("follows")),
                        Optional.of(new Evidence.Outcome(follow.finding(), v.outcome())),
                        v);
            }
        }
        judged |= trims.judge(context, takeId, take, who);
        judged |= cylinders(context, take, name, who);
        if (!judged) {
            findings.note(
                    job,
                    "watch",
                    who,
                    String.format(
                            Locale.ROOT,
                            "%s recorded, %.0f s; no stretch in it to judge.",
                            name,
                            take.lengthSeconds()));
        }
    }

    private boolean cylinders(JobPages.Context context, Take take, String name, String who) {
        Optional<Cylinders> described = context.description().cylinders();
        Optional<CylinderStudy.Verdict> verdict =
                described.flatMap(c -> CylinderStudy.study(take, c));
        verdict.ifPresent(
                v ->
                        findings.add(
                                context.job().id(),
                                "watch",
                                who,
                                name + ": " + v.sentence(),
                                Optional.of(v.holds()),
                                described
                                        .map(Cylinders::finding)
                                        .filter(f -> !f.isEmpty())
                                        .map(f -> new Evidence.Outcome(f, v.outcome())),
                                v,
                                "cylinders"));
        return verdict.isPresent();
    }

    private Optional<TargetStudy.Verdict> target(
            JobPages.Context context, Follow follow, Take take) {
        return TargetStudy.study(
                take,
                follow,
                context.description().finding(follow.finding()).orElseThrow(),
                context.description().signals(),
                leads.frame(context.job(), context.description()));
    }

    Views views(JobPages.Context context, Takes.TakeHead head, Take take) {
        List<TargetStudy.Verdict> targets = new ArrayList<>();
        List<String> whyNot = new ArrayList<>();
        for (Follow follow : context.description().follows()) {
            target(context, follow, take)
                    .ifPresentOrElse(
                            targets::add,
                            () ->
                                    whyNot.add(
                                            TargetStudy.whyNot(
                                                    take,
                                                    follow,
                                                    context.description().signals())));
        }
        List<TrimFindings.View> trimViews = trims.views(context, head, take);
        whyNot.addAll(trims.whyNot(context, take));
        Optional<Cylinders> described = context.description().cylinders();
        Optional<CylinderStudy.Verdict> cylinders =
                described.flatMap(c -> CylinderStudy.study(take, c));
        if (cylinders.isEmpty()) {
            described.ifPresent(
                    c ->
                            whyNot.add(
                                    CylinderStudy.whyNot(
                                            take, c, context.description().signals())));
        }
        // what fails is the answer, whichever study says so
        List<String> failing = new ArrayList<>();
        List<String> holding = new ArrayList<>();
        targets.forEach(v -> (v.outcome().equals("follows") ? holding : failing).add(v.sentence()));
        trimViews.forEach(v -> (v.holds() ? holding : failing).add(v.sentence()));
        cylinders.ifPresent(v -> (v.holds() ? holding : failing).add(v.sentence()));
        failing.addAll(holding);
        String answer =
                failing.isEmpty()
                        ? "No stretch in this take meets the conditions of a study."
                        : failing.get(0);
        return new Views(answer, targets, trimViews, cylinders, whyNot);
    }

    /**
     * How far a take that runs has come.
     *
     * @param told how long it is
     * @param ticks what it is for, each ticked off once there is enough of it
     * @param later what is told or swept when it is over; empty unless it is to prove a repair
     */
    record Enough(String told, List<Tick> ticks, List<String> later) {
        /** What the page says in a line. */
        public String words() {
            long done = ticks.stream().filter(Tick::done).count();
            return told
                    + (done == 0
                            ? ""
                            : done == ticks.size()
                                    ? " Enough for all of it."
                                    : " Enough for " + done + " of " + ticks.size() + " things.");
        }
    }

    /**
     * @param told what there is of it, or what it still needs
     * @param along what it hangs on, at this moment
     */
    record Tick(boolean done, String what, String told, List<DriveConditions.Standing> along) {
        Tick(boolean done, String what, String told) {
            this(done, what, told, List.of());
        }

        /** What stands on its tag. */
        public String mark() {
            return done ? "enough" : "not yet";
        }
    }

    Enough enough(JobPages.Context context, long takeId, double seconds) {
        Take take = takes.read(takeId);
        VehicleDescription d = context.description();
        List<Tick> ticks = new ArrayList<>();
        conditions(context, take).ifPresent(ticks::add);
        for (Follow follow : d.follows()) {
            boolean done = target(context, follow, take).isPresent();
            ticks.add(
                    new Tick(
                            done,
                            name(d, follow.finding()),
                            done ? ENOUGH : TargetStudy.whyNot(take, follow, d.signals())));
        }
        for (TrimSet set : d.trims()) {
            boolean done = TrimStudy.study(take, set).isPresent();
            ticks.add(
                    new Tick(
                            done,
                            set.name(),
                            done ? ENOUGH : TrimStudy.whyNot(take, set, d.signals())));
        }
        d.cylinders()
                .filter(c -> !c.finding().isEmpty())
                .ifPresent(
                        c -> {
                            boolean done = CylinderStudy.study(take, c).isPresent();
                            ticks.add(
                                    new Tick(
                                            done,
                                            "The cylinders",
                                            done
                                                    ? ENOUGH
                                                    : CylinderStudy.whyNot(take, c, d.signals())));
                        });
        return new Enough(
                String.format(
                        Locale.ROOT,
                        "Recording for %d:%02d.",
                        (int) seconds / 60,
                        (int) seconds % 60),
                ticks,
                later(context));
    }

    private Optional<Tick> conditions(JobPages.Context context, Take take) {
        DriveConditions conditions = leads.conditions(context.job(), context.description());
        if (conditions.isEmpty()) {
            return Optional.empty();
        }
        double met = conditions.met(take, context.description()).seconds();
        return Optional.of(
                new Tick(
                        met >= conditions.seconds(),
                        "The conditions of " + conditions.from(),
                        String.format(
                                Locale.ROOT,
                                "Met together for %.0f of %.0f s.",
                                Math.min(met, conditions.seconds()),
                                conditions.seconds()),
                        conditions.standing(take, context.description())));
    }

    /** What a recording alone does not show of a repair. */
    private List<String> later(JobPages.Context context) {
        return proofs.drive(context).stream()
                .flatMap(drive -> drive.shows().stream())
                .flatMap(
                        shown ->
                                shown.isTests()
                                        ? Stream.of(
                                                "A sweep afterwards tells: " + shown.words() + ".")
                                        : shown.id().equals(ProofRecord.COMPLAINT)
                                                ? Stream.of(
                                                        "Say in Prove whether the complaint is gone.")
                                                : Stream.empty())
                .toList();
    }

    private static String name(VehicleDescription d, String finding) {
        return d.finding(finding).map(Finding::name).orElse(finding);
    }
}
