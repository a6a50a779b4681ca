package brightlantern.app;

import brightlantern.standin.StandInVehicle;
import brightlantern.standin.plant.Driver;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Somebody who replaces the trailer module of a van, page by page. */
final class TrailerSwap {
    private static final Pattern RUN = Pattern.compile("/exercise/runs/(\\d+)/now");

    private final StandInVehicle van;
    private final String run;
    private Visitor visitor;

    private TrailerSwap(StandInVehicle van, Visitor visitor, String run) {
        this.van = van;
        this.visitor = visitor;
        this.run = run;
    }

    static TrailerSwap begin(StandInVehicle van, Visitor visitor, long job) throws Exception {
        String exercise = "/jobs/" + job + "/exercise";
        String page = exercise + "/procedures/replace-trailer";
        String shown = visitor.post(page, page, Map.of());
        Matcher number = RUN.matcher(shown);
        if (!number.find()) {
            throw new AssertionError(shown);
        }
        return new TrailerSwap(van, visitor, exercise + "/runs/" + number.group(1));
    }

    /** The program was started anew, or somebody else goes on. */
    void goesOn(Visitor other) {
        visitor = other;
    }

    String page() {
        return visitor.reads(run);
    }

    /** Waits until the run stands at a step. */
    void at(String step) {
        Garage.until("step " + step, () -> page().contains("data-step=\"" + step + "\""));
    }

    void choose(String step, String choice) throws Exception {
        at(step);
        visitor.post(run, run + "/choose", Map.of("step", step, "choice", choice));
    }

    void done(String step) throws Exception {
        at(step);
        visitor.post(run, run + "/done", Map.of("step", step));
    }

    void resume() throws Exception {
        visitor.post(run, run + "/resume", Map.of());
    }

    void key(String step, int position) {
        at(step);
        van.driver(Driver.away().key(position));
    }

    /** From the key off to the question whether it may be erased. */
    void swap() throws Exception {
        key("key-off", 0);
        at("swap");
        van.simulation().act("swap-trailer");
        done("swap");
        key("key-on", 2);
        at("agree");
    }

    /** The key off and on after writing. */
    void wake() {
        key("off-again", 0);
        key("on-again", 2);
    }

    void ended() {
        Garage.until("the end", () -> page().contains("id=\"ended\""));
    }
}
