package brightlantern.app.page;

import brightlantern.app.job.Job;
import brightlantern.core.reason.MeterFinding;
import brightlantern.core.reason.NextCheck;
import brightlantern.core.reason.NextStep;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Place;
import brightlantern.core.vehicle.VehicleDescription;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * The card of the evidence rail that says what to do next, ready to be shown.
 *
 * @param title heading of the card
 * @param name what the link says; empty when there is nothing to go to
 * @param href where it is done, with its condition set
 * @param minutes in words; empty when it does not take long
 * @param expectations what it should show
 * @param gates where the gates that it needs can be asked for; empty when it needs none
 * @param answers what may be seen, to be told at once; empty when it is done somewhere else
 * @param meter what a meter reads, to be typed at once; null when no meter tells it
 */
public record NextCard(
        String title,
        String name,
        String href,
        String why,
        String minutes,
        List<String> expectations,
        String gates,
        List<Answer> answers,
        Meter meter) {

    /** More than so many are chosen from a list, on a page of their own. */
    private static final int FEW = 4;

    private static final String PROCEDURES = "exercise/procedures/";

    /** One thing that may be seen. */
    public record Answer(String finding, String outcome, String words) {}

    /** A finding that a meter tells, and the unit in which it reads. */
    public record Meter(String finding, String unit) {}

    static NextCard of(Job job, VehicleDescription description, NextStep step) {
        String base = "/jobs/" + job.id();
        if (step instanceof NextStep.DoCheck todo) {
            Check check = todo.check().check();
            return new NextCard(
                    title(todo),
                    check.name(),
                    href(job, check),
                    todo.beforeRepair().map(b -> b + " ").orElse("") + check.why(),
                    minutes(todo.check()),
                    todo.check().expectations(),
                    gates(job, description, check),
                    answers(description, check),
                    meter(description, check));
        }
        if (step instanceof NextStep.Repair repair
                && description
                        .suspect(repair.cause().suspectId())
                        .filter(s -> s.repair().told())
                        .isPresent()) {
            return plain("Next", "Tell the customer", base + "/prove", told(repair.cause().name()));
        }
        if (step instanceof NextStep.Repair repair) {
            return plain(
                    "Next",
                    "Repair it and prove it",
                    base + "/prove",
                    repair.cause().name()
                            + ": no check that is left would tell more than it costs.");
        }
        if (step instanceof NextStep.Trial trial) {
            return plain(
                    "A trial", "Repair it on trial and prove it", base + "/prove", trial.why());
        }
        if (step instanceof NextStep.SweepFirst first) {
            return plain("Next", "Sweep all modules", base + "/sweep", first.why());
        }
        if (step instanceof NextStep.CodeComplaint code) {
            return plain(
                    "Next",
                    "Say what is meant",
                    base + "/intake#meant",
                    "The complaint is told in words alone, which speak for no cause. They may mean: "
                            + code.meant().stream()
                                    .map(s -> s.name() + " (" + s.when() + ")")
                                    .collect(Collectors.joining("; "))
                            + ".");
        }
        if (step instanceof NextStep.Uncovered uncovered) {
            return plain("Next", "Try it and record it", base + "/watch", uncovered.why());
        }
        if (step instanceof NextStep.GoOnProving) {
            return plain(
                    "Next",
                    "Go on with the proof",
                    base + "/prove",
                    "A repair was done. What it still has to show is listed there, and when all is shown the job is closed there.");
        }
        if (step instanceof NextStep.NothingLeft nothing) {
            return plain("No check is left", "Guided tests", base + "/exercise", nothing.why());
        }
        return plain("Closed", "Look at the report", base + "/prove/report", "This job is closed.");
    }

    private static String title(NextStep.DoCheck todo) {
        if (todo.again()) {
            return todo.check().check() instanceof Check.Reading ? "Read again" : "Look again";
        }
        return todo.beforeRepair().isPresent() ? "Before the repair" : "Next check";
    }

    private static NextCard plain(String title, String name, String href, String why) {
        return new NextCard(title, name, href, why, "", List.of(), "", List.of(), null);
    }

    private static Meter meter(VehicleDescription description, Check check) {
        return check instanceof Check.Look look
                ? MeterFinding.of(description, look.finding())
                        .map(m -> new Meter(look.finding(), m.unit()))
                        .orElse(null)
                : null;
    }

    /** Eyes, ears and hands have few answers; what an instrument or a module tells is read. */
    private static List<Answer> answers(VehicleDescription description, Check check) {
        if (!(check instanceof Check.Look look)
                || !look.place().path().equals("trace")
                || MeterFinding.of(description, look.finding()).isPresent()
                || description.circuits().stream()
                        .flatMap(c -> c.gauges().stream())
                        .anyMatch(
                                g ->
                                        g.findingId().equals(look.finding())
                                                && (g.isCompared() || g.isToldByValue()))) {
            return List.of();
        }
        List<Answer> all =
                description.finding(look.finding()).stream()
                        .flatMap(f -> f.outcomes().stream())
                        .map(o -> new Answer(look.finding(), o.id(), o.name()))
                        .toList();
        return all.size() > FEW ? List.of() : all;
    }

    private static String minutes(NextCheck next) {
        return Words.count(Math.max(1, Math.round(next.check().minutes())), "minute");
    }

    /** What is found and cannot be mended. */
    public static String told(String cause) {
        return cause
                + ": nothing is to be mended, so there is nothing to prove. The report says it; hand it over and close the job.";
    }

    /** The address where a check is done, with its condition set. */
    public static String href(Job job, Check check) {
        return "/jobs/" + job.id() + "/" + address(check.place());
    }

    /** A place below a job, as part of an address. */
    public static String address(Place place) {
        String with =
                place.with().entrySet().stream()
                        .sorted(Map.Entry.comparingByKey())
                        .map(e -> e.getKey() + "=" + encoded(e.getValue()))
                        .collect(Collectors.joining("&"));
        return place.path()
                + (with.isEmpty() ? "" : "?" + with)
                + (place.part().isEmpty() ? "" : "#" + place.part());
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    /** Where the gates that a check needs can be asked for; empty when it needs none. */
    private static String gates(Job job, VehicleDescription description, Check check) {
        return driven(description, check)
                .map(Place::path)
                .filter(path -> path.startsWith(PROCEDURES))
                .map(path -> "/jobs/" + job.id() + "/" + path + "/now?in=rail")
                .orElse("");
    }

    /** Where what a check moves is driven; the place of the check itself when it moves nothing. */
    private static Optional<Place> driven(VehicleDescription description, Check check) {
        return check instanceof Check.Reading reading
                ? description.actuators().stream()
                        .filter(a -> reading.moving().contains(a.motor()))
                        .map(a -> Place.driving(a.id()))
                        .findFirst()
                : Optional.of(check.place());
    }
}
