package brightlantern.app.page;

import brightlantern.app.job.Job;
import brightlantern.core.actuator.Actuator;
import brightlantern.core.procedure.actuator.ActuatorProcedures;
import brightlantern.core.reason.NextStep;
import brightlantern.core.reason.Reasoner.NextCheck;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Check;
import brightlantern.core.vehicle.VehicleDescription;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * The card of the evidence rail that says what to do next, ready to be shown.
 *
 * @param title heading of the card
 * @param name what the link says; empty when there is nothing to go to
 * @param href where it is done, with its condition set
 * @param minutes in words; empty when it does not take long
 * @param expectations what it should show
 * @param gates where the gates that it needs can be asked for; empty when it needs none
 */
public record NextCard(
        String title,
        String name,
        String href,
        String why,
        String minutes,
        List<String> expectations,
        String gates) {

    static NextCard of(Job job, VehicleDescription description, NextStep step) {
        String base = "/jobs/" + job.id();
        if (step instanceof NextStep.DoCheck todo) {
            Check check = todo.check().check();
            return new NextCard(
                    todo.beforeRepair().isPresent() ? "Before the repair" : "Next check",
                    check.name(),
                    href(job, check),
                    todo.beforeRepair().map(b -> b + " ").orElse("") + check.why(),
                    minutes(todo.check()),
                    todo.check().expectations(),
                    gates(job, description, check));
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
        if (step instanceof NextStep.SweepFirst first) {
            return plain("Next", "Sweep all modules", base + "/sweep", first.why());
        }
        if (step instanceof NextStep.GoOnProving) {
            return plain(
                    "Next",
                    "Go on with the proof",
                    base + "/prove",
                    "A repair was done; what it still has to show is listed there.");
        }
        if (step instanceof NextStep.NothingLeft nothing) {
            return plain("No check is left", "Guided tests", base + "/exercise", nothing.why());
        }
        return plain("Closed", "Look at the report", base + "/prove/report", "This job is closed.");
    }

    private static NextCard plain(String title, String name, String href, String why) {
        return new NextCard(title, name, href, why, "", List.of(), "");
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
        return "/jobs/" + job.id() + "/" + place(check);
    }

    /** The place in a job where a check is done, with its condition set. */
    public static String place(Check check) {
        if (!check.at().isEmpty()) {
            return check.stage() + "/" + check.at();
        }
        return switch (check.kind()) {
            case "reading" -> reading(check.of().get(0), check.load(), check.moving());
            case "run" -> run(check.of().get(0));
            case "finding" ->
                    check.stage().equals("trace")
                            ? check.stage() + "#finding-" + check.of().get(0)
                            : check.stage() + "?check=" + encoded(check.id());
            default -> check.stage();
        };
    }

    /** The place where an actuator is driven. */
    public static String run(String actuatorId) {
        return "exercise/procedures/" + ActuatorProcedures.drive(actuatorId);
    }

    /** The place where a reading is taken, its condition chosen. */
    public static String reading(String point, String load, List<String> moving) {
        String condition =
                load.toLowerCase(Locale.ROOT)
                        + moving.stream().map(m -> "-" + m).findFirst().orElse("");
        return "probe?point=" + encoded(point) + "&condition=" + encoded(condition) + "#point";
    }

    private static String gates(Job job, VehicleDescription description, Check check) {
        Optional<String> procedure =
                switch (check.kind()) {
                    case "run" -> Optional.of(ActuatorProcedures.drive(check.of().get(0)));
                    case "reading" ->
                            description.actuators().stream()
                                    .filter(a -> check.moving().contains(a.motor()))
                                    .map(Actuator::id)
                                    .map(ActuatorProcedures::drive)
                                    .findFirst();
                    default ->
                            Optional.of(check.at())
                                    .filter(a -> a.startsWith("procedures/"))
                                    .map(a -> a.substring("procedures/".length()));
                };
        return procedure
                .map(p -> "/jobs/" + job.id() + "/exercise/procedures/" + p + "/now?in=rail")
                .orElse("");
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }
}
