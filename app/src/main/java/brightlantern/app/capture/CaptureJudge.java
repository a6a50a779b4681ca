package brightlantern.app.capture;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Fitted;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CaptureReading;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.DepartureStudy;
import brightlantern.core.capture.LaneRole;
import brightlantern.core.capture.RippleStudy;
import brightlantern.core.capture.ToothStudy;
import brightlantern.core.capture.bus.BusStudy;
import brightlantern.core.cylinder.Cylinders;
import brightlantern.core.network.Bus;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What is read in a capture, and what of it is filed as a finding. */
@Component
class CaptureJudge {
    /** The clamp shows the firing of the first cylinder so long before its dead centre, degrees. */
    static final double FIRES_BEFORE = 6;

    private static final String LEFT_FIRST = "left-first";

    private final Captures captures;
    private final Findings findings;
    private final Jobs jobs;
    private final VehicleLinks links;
    private final Fitted fitted;

    CaptureJudge(
            Captures captures, Findings findings, Jobs jobs, VehicleLinks links, Fitted fitted) {
        this.captures = captures;
        this.findings = findings;
        this.jobs = jobs;
        this.links = links;
        this.fitted = fitted;
    }

    /** What was read in a capture. */
    sealed interface Read {
        /** In a sentence. */
        String sentence();

        List<String> reasons();
    }

    /** What a study says of it. */
    sealed interface Judged extends Read {
        CaptureReading judgement();

        @Override
        default String sentence() {
            return judgement().sentence();
        }

        @Override
        default List<String> reasons() {
            return judgement().reasons();
        }
    }

    record Cranking(CrankingStudy.Judgement judgement) implements Judged {}

    record Departed(DepartureStudy.Judgement judgement) implements Judged {}

    record Toothed(ToothStudy.Judgement judgement) implements Judged {}

    record Rippled(RippleStudy.Judgement judgement) implements Judged {}

    record Wires(Bus bus, List<BusStudy.Station> stations, BusStudy.Judgement judgement)
            implements Judged {
        @Override
        public String sentence() {
            return bus.name() + ": " + judgement.sentence();
        }
    }

    /**
     * Nothing, and why.
     *
     * @param sentence why; empty for lanes that no study looks at
     */
    record Nothing(String sentence) implements Read {
        @Override
        public List<String> reasons() {
            return List.of();
        }
    }

    /** Reads what its lanes allow. */
    Read read(Captures.Opened opened, Job job, VehicleDescription description) {
        Capture capture = opened.capture();
        if (capture.lane(LaneRole.HIGH_NEAR).isPresent()) {
            return wires(opened, job, description);
        }
        if (capture.lane(LaneRole.SUPPLY).isPresent()) {
            return RippleStudy.judge(capture)
                    .<Read>map(Rippled::new)
                    .orElseGet(
                            () ->
                                    new Nothing(
                                            "Its ripple cannot be judged. "
                                                    + RippleStudy.whyNot(capture).orElse("")));
        }
        if (capture.lane(LaneRole.CRANK).isPresent() && description.cylinders().isPresent()) {
            Cylinders cylinders = description.cylinders().get();
            return ToothStudy.judge(capture, cylinders)
                    .<Read>map(Toothed::new)
                    .orElseGet(
                            () ->
                                    new Nothing(
                                            "Its marks cannot be judged. "
                                                    + ToothStudy.whyNot(capture, cylinders)
                                                            .orElse("")));
        }
        if (capture.lane(LaneRole.COUNT).isPresent()) {
            return DepartureStudy.judge(capture)
                    .<Read>map(Departed::new)
                    .orElseGet(
                            () ->
                                    new Nothing(
                                            "Who left first cannot be told. "
                                                    + DepartureStudy.whyNot(capture).orElse("")));
        }
        boolean cylinders =
                capture.lane(LaneRole.FIRST_CYLINDER).isPresent()
                        || capture.lane(LaneRole.EXHAUST).isPresent();
        if (!cylinders || description.cylinders().isEmpty()) {
            return new Nothing("");
        }
        return CrankingStudy.judge(capture, description.cylinders().get().order(), FIRES_BEFORE)
                .<Read>map(Cranking::new)
                .orElseGet(
                        () ->
                                new Nothing(
                                        "Cylinders cannot be compared in it. "
                                                + CrankingStudy.whyNot(capture).orElse("")));
    }

    /** The bus is told by the speed at which it was recorded, and by the places of its lanes. */
    private Read wires(Captures.Opened opened, Job job, VehicleDescription description) {
        Optional<Bus> bus =
                description.buses().stream()
                        .filter(b -> opened.head().plan().equals(CapturePlan.BUS + b.id()))
                        .findFirst();
        if (bus.isEmpty()) {
            return new Nothing("Which bus this is was not said, so its frames cannot be read.");
        }
        List<BusStudy.Station> stations =
                BusStudy.stations(
                        description.network(), bus.get().id(), fitted.of(job, description));
        return BusStudy.judge(opened.capture(), bus.get().kbit(), stations)
                .<Read>map(judgement -> new Wires(bus.get(), stations, judgement))
                .orElseGet(
                        () ->
                                new Nothing(
                                        "Its wires cannot be judged. "
                                                + BusStudy.whyNot(
                                                                opened.capture(), bus.get().kbit())
                                                        .orElse("")));
    }

    /** Judges a capture and files what was found; the sentence of it. */
    String file(Captures.Head head, String who) {
        Job job = jobs.byId(head.jobId()).orElseThrow();
        VehicleDescription description = links.description(job);
        Read read =
                captures.open(head)
                        .map(o -> read(o, job, description))
                        .orElse(new Nothing("Nothing of it was kept."));
        if (read instanceof Cranking c) {
            String outcome = c.judgement().outcome();
            file(job, description, CapturePlan.CRANKING, outcome, "One cranking", c, who);
        } else if (read instanceof Departed d) {
            String outcome = d.judgement().outcome();
            file(job, description, LEFT_FIRST, outcome, head.name(), d, who);
        } else if (read instanceof Toothed t) {
            String outcome = t.judgement().outcome();
            file(job, description, CapturePlan.TEETH, outcome, head.name(), t, who);
        } else if (read instanceof Rippled r) {
            String outcome = r.judgement().outcome();
            file(job, description, CapturePlan.RIPPLE, outcome, head.name(), r, who);
        } else if (read instanceof Wires wires) {
            file(job, wires, who);
        }
        return read.sentence();
    }

    /** What speaks for no described outcome is told, and weighs nothing. */
    private void file(
            Job job,
            VehicleDescription description,
            String finding,
            String outcome,
            String name,
            Judged read,
            String who) {
        boolean described =
                description.finding(finding).stream()
                        .flatMap(f -> f.outcomes().stream())
                        .anyMatch(o -> o.id().equals(outcome));
        findings.add(
                job.id(),
                "probe",
                who,
                name + ": " + read.sentence(),
                Optional.of(read.judgement().holds()),
                described ? Optional.of(new Evidence.Outcome(finding, outcome)) : Optional.empty(),
                read.reasons(),
                finding);
    }

    private void file(Job job, Wires wires, String who) {
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
                                judgement.absent(),
                                judgement.holds())),
                judgement.reasons());
    }
}
