package brightlantern.app.capture;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What is read in a capture, and what of it is filed as a finding. */
@Component
class CaptureJudge {
    /** The clamp shows the firing of the first cylinder so long before its dead centre, degrees. */
    static final double FIRES_BEFORE = 6;

    private final Captures captures;
    private final Findings findings;
    private final Jobs jobs;
    private final VehicleLinks links;

    CaptureJudge(Captures captures, Findings findings, Jobs jobs, VehicleLinks links) {
        this.captures = captures;
        this.findings = findings;
        this.jobs = jobs;
        this.links = links;
    }

    /**
     * What one cranking shows.
     *
     * @param whyNot why it cannot be judged; empty when it was
     */
    record Cranking(Optional<CrankingStudy.Judgement> judgement, String whyNot) {}

    /** Empty for a capture in which nothing tells cylinders apart, or of no described engine. */
    Optional<Cranking> cranking(Captures.Opened opened, Optional<Cylinders> cylinders) {
        if (cylinders.isEmpty() || opened.capture().lanes().size() < 2) {
            return Optional.empty();
        }
        return Optional.of(
                new Cranking(
                        CrankingStudy.judge(
                                opened.capture(), cylinders.get().order(), FIRES_BEFORE),
                        CrankingStudy.whyNot(opened.capture()).orElse("")));
    }

    /** Judges what a plan asked for and files it; the sentence of what was found. */
    String file(long jobId, String planId, Captures.Head head, String who) {
        if (!planId.equals(CapturePlan.CRANKING)) {
            return "";
        }
        VehicleDescription description = links.description(jobs.byId(jobId).orElseThrow());
        Optional<Cranking> read =
                captures.open(head).flatMap(o -> cranking(o, description.cylinders()));
        if (read.isEmpty()) {
            return "Nothing of it can be judged.";
        }
        if (read.get().judgement().isEmpty()) {
            return read.get().whyNot();
        }
        CrankingStudy.Judgement judgement = read.get().judgement().get();
        boolean described =
                description.finding(CapturePlan.CRANKING).stream()
                        .flatMap(f -> f.outcomes().stream())
                        .anyMatch(o -> o.id().equals(judgement.outcome()));
        findings.add(
                jobId,
                "probe",
                who,
                "One cranking: " + judgement.sentence(),
                Optional.of(judgement.holds()),
                described
                        ? Optional.of(
                                new Evidence.Outcome(CapturePlan.CRANKING, judgement.outcome()))
                        : Optional.empty(),
                judgement.reasons(),
                "one cranking");
        return judgement.sentence();
    }
}
