package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Map;

/** A check that may be proposed next. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
    @JsonSubTypes.Type(value = Check.Run.class, name = "run"),
    @JsonSubTypes.Type(value = Check.Reading.class, name = "reading"),
    @JsonSubTypes.Type(value = Check.Look.class, name = "finding")
})
public sealed interface Check {
    String id();

    String name();

    /** The stage of the job in which it is done. */
    String stage();

    double minutes();

    String why();

    /** The key that evidence from this check will bear. */
    String key();

    /** Where it is done, with its condition set. */
    Place place();

    /** What it refers to must be described. */
    void check(References.At at);

    /**
     * An actuator is driven and its speed taken.
     *
     * @param of actuators that move at once, the one that is judged first
     */
    record Run(String id, String name, String stage, List<String> of, double minutes, String why)
            implements Check {
        public Run {
            of = OrEmpty.list(of);
            why = OrEmpty.text(why);
        }

        /** The actuator that is judged. */
        public String actuator() {
            return of.get(0);
        }

        @Override
        public String key() {
            return Evidence.Run.key(actuator(), of);
        }

        @Override
        public Place place() {
            return Place.driving(actuator());
        }

        @Override
        public void check(References.At at) {
            at.needs("an actuator", of);
        }
    }

    /**
     * A meter is held to a point.
     *
     * @param of the point
     * @param moving motors that move meanwhile
     * @param load nothing, lamp or bulb
     */
    record Reading(
            String id,
            String name,
            String stage,
            String circuit,
            List<String> of,
            List<String> moving,
            String load,
            double minutes,
            String why)
            implements Check {
        public Reading {
            of = OrEmpty.list(of);
            moving = OrEmpty.list(moving);
            load = load == null ? "nothing" : load;
            why = OrEmpty.text(why);
        }

        /** The point that is measured. */
        public String point() {
            return of.get(0);
        }

        @Override
        public String key() {
            return Evidence.Reading.key(circuit, point(), load, moving);
        }

        @Override
        public Place place() {
            return Place.probing(circuit, point(), Evidence.Reading.condition(load, moving));
        }

        @Override
        public void check(References.At at) {
            at.needs("a circuit", circuit);
            at.needs("a point of circuit " + circuit, of);
            at.needs("a motor of circuit " + circuit, moving);
        }
    }

    /**
     * A finding is made: by a study, a guided test, or by looking.
     *
     * @param of the findings that it gives, the one that it is done for first
     * @param at where in its stage it is done, such as {@code procedures/leak-test}; empty when the
     *     check itself says so
     * @param running whether it takes an engine that runs
     */
    record Look(
            String id,
            String name,
            String stage,
            List<String> of,
            double minutes,
            String why,
            String at,
            boolean running)
            implements Check {
        /** One that is done whether the engine runs or not. */
        public Look(
                String id,
                String name,
                String stage,
                List<String> of,
                double minutes,
                String why,
                String at) {
            this(id, name, stage, of, minutes, why, at, false);
        }

        public Look {
            of = OrEmpty.list(of);
            why = OrEmpty.text(why);
            at = OrEmpty.text(at);
        }

        /** The finding that it is done for. */
        public String finding() {
            return of.get(0);
        }

        @Override
        public String key() {
            return Evidence.Outcome.key(finding());
        }

        @Override
        public Place place() {
            if (!at.isEmpty()) {
                return Place.of(stage + "/" + at);
            }
            return stage.equals("trace")
                    ? new Place(stage, Map.of(), "finding-" + finding())
                    : new Place(stage, Map.of("check", id), "");
        }

        @Override
        public void check(References.At at) {
            at.needs("a finding", of);
        }
    }

    /**
     * The network is listened to.
     *
     * @param at the page of its stage on which it is done; empty for the stage itself
     */
    record Listen(String id, String name, String stage, double minutes, String why, String at)
            implements Check {
        @Override
        public String key() {
            return Evidence.Heard.KEY;
        }

        @Override
        public Place place() {
            return Place.of(at.isEmpty() ? stage : stage + "/" + at);
        }

        @Override
        public void check(References.At place) {
            // made by the program, it refers to nothing that is written
        }
    }

    /** Both ends of a bus are recorded by an oscilloscope. */
    record BusCapture(String id, String name, String bus, double minutes, String why)
            implements Check {
        @Override
        public String stage() {
            return "probe";
        }

        @Override
        public String key() {
            return Evidence.BusSeen.key(bus);
        }

        @Override
        public Place place() {
            return Place.capturing("bus-" + bus);
        }

        @Override
        public void check(References.At place) {
            // made by the program, it refers to nothing that is written
        }
    }
}
