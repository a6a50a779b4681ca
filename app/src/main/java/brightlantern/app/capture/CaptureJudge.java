package brightlantern.app.capture;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Fitted;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CaptureReading;
import brightlantern.core.capture.CaptureStudy;
import brightlantern.core.capture.ContactStudy;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.bus.BusReading;
import brightlantern.core.capture.bus.BusStudy;
import brightlantern.core.network.Bus;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What is read in a capture, and what of it is filed as a finding. */
@Component
class CaptureJudge {
    private final Captures captures;
    private final Findings findings;
    private final Jobs jobs;
    private final VehicleLinks links;
    private final Fitted fitted;
    private final CaptureMarks marks;

    CaptureJudge(
            Captures captures,
            Findings findings,
            Jobs jobs,
            VehicleLinks links,
            Fitted fitted,
            CaptureMarks marks) {
        this.marks = marks;
        this.captures = captures;
        this.findings = findings;
        this.jobs = jobs;
        this.links = links;
        this.fitted = fitted;
    }

    /** Reads what its lanes allow. */
    CaptureStudy.Read read(Captures.Opened opened, Job job, VehicleDescription description) {
        if (opened.head().lanes().stream().anyMatch(Captures.LaneHead::apart)) {
            return new CaptureStudy.Nothing(
                    "It cannot be judged before it is said by how much its further instruments began later: below, at what each lane shows.");
        }
        List<CaptureStudy> studies = new ArrayList<>();
        studies.add(wires(opened.head(), job, description));
        studies.addAll(CaptureStudy.of(description.cylinders(), description.circuits()));
        studies.add(contact(opened.head(), description));
        return CaptureStudy.read(studies, opened.capture());
    }

    /** The bus is told by the plan by which it was recorded. */
    private CaptureStudy wires(Captures.Head head, Job job, VehicleDescription description) {
        Optional<Bus> bus =
                description.buses().stream()
                        .filter(b -> head.plan().equals(CapturePlan.BUS + b.id()))
                        .findFirst();
        String cannot = "Its wires cannot be judged.";
        if (bus.isEmpty()) {
            return new CaptureStudy(
                    CaptureJudge::isOfWires,
                    cannot,
                    c ->
                            Optional.of(
                                    "Which bus this is was not said, so its frames cannot be read."),
                    c -> Optional.empty());
        }
        Bus its = bus.get();
        List<BusStudy.Station> stations =
                BusStudy.stations(description.network(), its.id(), fitted.of(job, description));
        return new CaptureStudy(
                CaptureJudge::isOfWires,
                cannot,
                c -> BusStudy.whyNot(c, its.rate()),
                c ->
                        BusStudy.judge(c, its.rate(), stations)
                                .map(j -> new BusReading(its, stations, j)));
    }

    /** Volts at a point, with what was moved when. */
    private CaptureStudy contact(Captures.Head head, VehicleDescription description) {
        List<ContactStudy.Mark> set =
                marks.of(head.id()).stream()
                        .map(m -> new ContactStudy.Mark(m.seconds(), m.words()))
                        .toList();
        Set<String> moved =
                description.causes().findings().stream()
                        .map(Finding::id)
                        .filter(f -> f.startsWith(ContactStudy.MOVED))
                        .map(f -> f.substring(ContactStudy.MOVED.length()))
                        .collect(Collectors.toSet());
        return new CaptureStudy(
                c -> c.lane(LaneRole.POINT).isPresent(),
                "Whether a contact comes and goes cannot be told.",
                ContactStudy::whyNot,
                c -> ContactStudy.judge(c, set, moved));
    }

    private static boolean isOfWires(Capture capture) {
        return capture.lane(LaneRole.HIGH_NEAR).isPresent();
    }

    /** Judges a capture and files what was found; the sentence of it. */
    String file(Captures.Head head, String who) {
        Job job = jobs.byId(head.jobId()).orElseThrow();
        VehicleDescription description = links.description(job);
        CaptureStudy.Read read =
                captures.open(head)
                        .map(o -> read(o, job, description))
                        .orElse(new CaptureStudy.Nothing("Nothing of it was kept."));
        if (read instanceof CaptureStudy.Judged judged) {
            if (judged.reading() instanceof BusReading wires) {
                file(job, wires, who);
            }
            for (CaptureReading.Told told : judged.reading().tells()) {
                file(job, description, head.name(), told, read.reasons(), who);
            }
        }
        return read.sentence();
    }

    /** Files what comes of marks that were set after it was judged, once. */
    void marked(Captures.Head head, String who) {
        Job job = jobs.byId(head.jobId()).orElseThrow();
        VehicleDescription description = links.description(job);
        Optional<CaptureStudy.Read> read = captures.open(head).map(o -> read(o, job, description));
        read.flatMap(r -> r.as(ContactStudy.Judgement.class)).stream()
                .flatMap(j -> j.tells().stream())
                .filter(t -> !isFiled(job, t))
                .forEach(t -> file(job, description, head.name(), t, read.get().reasons(), who));
    }

    private boolean isFiled(Job job, CaptureReading.Told told) {
        Evidence same = new Evidence.Outcome(told.finding(), told.outcome());
        return findings.of(job.id()).stream()
                .anyMatch(f -> f.evidence().filter(same::equals).isPresent());
    }

    /** What speaks for no described outcome is told, and weighs nothing. */
    private void file(
            Job job,
            VehicleDescription description,
            String name,
            CaptureReading.Told told,
            List<String> reasons,
            String who) {
        boolean described =
                description.finding(told.finding()).stream()
                        .flatMap(f -> f.outcomes().stream())
                        .anyMatch(o -> o.id().equals(told.outcome()));
        findings.add(
                job.id(),
                "probe",
                who,
                name + ": " + told.sentence(),
                Optional.of(told.holds()),
                described
                        ? Optional.of(new Evidence.Outcome(told.finding(), told.outcome()))
                        : Optional.empty(),
                reasons,
                told.finding());
    }

    private void file(Job job, BusReading wires, String who) {
        BusStudy.Judgement judgement = wires.judgement();
        findings.add(
                job.id(),
                "probe",
                who,
                wires.sentence(),
                Optional.of(judgement.holds()),
                Optional.of(
                        new Evidence.BusSeen(
                                wires.bus().id(),
                                judgement.state(),
                                judgement.at().orElse(-1),
                                judgement.upTo(),
                                judgement.absent(),
                                judgement.holds())),
                judgement.reasons());
    }
}
