package brightlantern.core.procedure.actuator;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.actuator.Response;
import brightlantern.core.filter.Filter;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Scene;
import brightlantern.core.procedure.Step;
import brightlantern.core.procedure.Study;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The tests that every described actuator has: driven from end to end, and up and down in steps.
 */
public final class ActuatorProcedures {
    private static final double LOW_SECONDS = 1.1;
    private static final double HIGH_SECONDS = 1.3;
    private static final int STAIRS = 8;
    private static final double STAIR_SECONDS = 0.8;

    /** At rest before and after, s, so that a movement can be told from noise. */
    private static final double REST_SECONDS = 4;

    private ActuatorProcedures() {}

    /** Id of the test that tells whether an actuator does what it is told. */
    public static String drive(String actuator) {
        return "drive-" + actuator;
    }

    /** Id of the test that looks for friction and play; there is none without feedback. */
    public static String steps(String actuator) {
        return "steps-" + actuator;
    }

    private static final String STROKES = "strokes";
    private static final String UP_AND_DOWN = "up-and-down";
    private static final String RESPONSES = "responses";
    private static final String BY_HAND = "by-hand";

    /** The studies of actuators by the names under which procedures ask for them. */
    public static final Map<String, Study> STUDIES =
            Map.of(
                    STROKES, ActuatorRun.STROKES,
                    UP_AND_DOWN, ActuatorRun.STEPS,
                    RESPONSES, Responses.STUDY,
                    BY_HAND, ByHand.STUDY);

    /** None of them speaks of cylinders. */
    private static List<String> outcomes(String study) {
        return STUDIES.get(study).outcomes(0);
    }

    /** A procedure or two for each actuator of a vehicle. */
    public static List<Procedure> of(VehicleDescription d, Equipment equipment) {
        List<Procedure> all = new ArrayList<>();
        for (Actuator a : d.actuators()) {
            String name = a.name().toLowerCase(Locale.ROOT);
            if (!a.hasFeedback()) {
                all.add(
                        procedure(
                                d,
                                equipment,
                                a,
                                drive(a.id()),
                                "Drive " + name,
                                "Command, current and what follows from it, one after the other.",
                                onAndOff(a),
                                RESPONSES,
                                1));
                continue;
            }
            all.add(
                    procedure(
                            d,
                            equipment,
                            a,
                            drive(a.id()),
                            "Drive " + name,
                            "How fast it moves, where it ends, and whether it shoots over.",
                            ends(a),
                            STROKES,
                            ActuatorRun.MOST_STROKES));
            all.add(
                    procedure(
                            d,
                            equipment,
                            a,
                            steps(a.id()),
                            "Move " + name + " up and down in steps",
                            "Friction holds it until the command has gone ahead; play makes it stand"
                                    + " elsewhere on the way up than on the way down.",
                            stairs(a),
                            UP_AND_DOWN,
                            1));
        }
        return all;
    }

    /** The procedure that leads an actuator by hand, read out of its id; see {@link ByHand#id}. */
    public static Optional<Procedure> byHand(VehicleDescription d, Equipment equipment, String id) {
        return ByHand.asked(id)
                .flatMap(
                        asked ->
                                d.actuator(asked.actuator())
                                        .map(
                                                a ->
                                                        procedure(
                                                                d,
                                                                equipment,
                                                                a,
                                                                id,
                                                                a.name() + " by hand",
                                                                ByHand.told(asked.legs()) + ".",
                                                                asked.legs(),
                                                                BY_HAND,
                                                                1)));
    }

    private static List<Act.Leg> onAndOff(Actuator a) {
        double slowest = a.responds().stream().mapToDouble(Response::seconds).max().orElse(0);
        return List.of(
                new Act.Leg(a.low(), REST_SECONDS),
                new Act.Leg(a.high(), REST_SECONDS + slowest),
                new Act.Leg(a.low(), REST_SECONDS));
    }

    private static List<Act.Leg> ends(Actuator a) {
        return List.of(new Act.Leg(a.low(), LOW_SECONDS), new Act.Leg(a.high(), HIGH_SECONDS));
    }

    private static List<Act.Leg> stairs(Actuator a) {
        List<Act.Leg> legs = new ArrayList<>();
        for (int i = 0; i <= 2 * STAIRS; i++) {
            int stair = Math.min(i, 2 * STAIRS - i);
            legs.add(new Act.Leg(a.low() + stair * (a.high() - a.low()) / STAIRS, STAIR_SECONDS));
        }
        return legs;
    }

    /** What is read while it moves: command, feedback, current, and what follows. */
    static List<String> values(Actuator a) {
        return Stream.of(
                        Stream.of(a.command()),
                        Stream.of(a.feedback()).filter(v -> !v.isEmpty()),
                        a.current().stream(),
                        a.responds().stream().map(Response::value))
                .flatMap(v -> v)
                .distinct()
                .toList();
    }

    private static Step step(String id, String says, Act act) {
        return new Step(id, says, "", "", act);
    }

    /**
     * @param rounds at most, as long as the study is unsure
     */
    private static Procedure procedure(
            VehicleDescription d,
            Equipment equipment,
            Actuator a,
            String id,
            String name,
            String why,
            List<Act.Leg> legs,
            String study,
            int rounds) {
        List<Step> steps = new ArrayList<>();
        steps.add(
                step(
                        "supply",
                        "Reading the supply",
                        new Act.Measure(
                                List.of(d.live().supply()),
                                0,
                                Optional.empty(),
                                "supply",
                                "moving")));
        steps.add(
                step(
                        "moving",
                        a.name() + " is being driven",
                        new Act.Command(a.id(), legs, values(a), "judged", Optional.empty())));
        steps.add(
                step(
                        "judged",
                        "",
                        new Act.Study(
                                study,
                                a.id(),
                                "",
                                Map.of(),
                                rounds > 1 ? "sure" : "back",
                                outcomes(study))));
        if (rounds > 1) {
            Filter sure =
                    new Filter.Compare(
                            Scene.study("judged"),
                            Filter.Operator.OTHER,
                            outcomes(study).indexOf(ActuatorRun.UNSURE));
            steps.add(
                    step(
                            "sure",
                            "",
                            new Act.Repeat(
                                    "moving",
                                    "the verdict is sure",
                                    sure,
                                    rounds,
                                    "back",
                                    "back")));
        }
        steps.add(step("back", "Giving it back", new Act.GiveBack("end")));
        steps.add(
                step(
                        "end",
                        a.name() + " was driven and given back.",
                        new Act.Conclude(Optional.empty(), Map.of())));
        return new Procedure(
                id,
                name,
                Procedure.Kind.ACTUATOR,
                why,
                1,
                false,
                "",
                "",
                a.gates().stream().map(Procedure.GateRule::of).toList(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                equipment.outputs(),
                equipment.routines(),
                equipment.configurations(),
                steps,
                Scene.values(d, steps, equipment.routines()));
    }
}
