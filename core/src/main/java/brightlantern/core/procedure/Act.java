package brightlantern.core.procedure;

import brightlantern.core.filter.Filter;
import brightlantern.core.procedure.Step.Exit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What a step does. Names of steps to go on with are ids; times are in seconds. */
public sealed interface Act {
    /** In which ways it is left. */
    List<Exit> exits();

    /** Whether the program goes on without anybody. */
    default boolean automatic() {
        return true;
    }

    /** Where to go on when the vehicle refuses; empty to end with its words. */
    default Optional<String> refused() {
        return Optional.empty();
    }

    /** Something to do; the technician says when it is done. */
    record Tell(String next) implements Act {
        @Override
        public List<Exit> exits() {
            return List.of(new Exit("done", next));
        }

        @Override
        public boolean automatic() {
            return false;
        }
    }

    record Choice(String id, String name, String next) {}

    /** A number asked for, with its limits. */
    record Figure(String name, String unit, double least, double most) {}

    /**
     * A question, answered by a choice or with a number.
     *
     * @param shows a configuration, to be shown as it is and as it would be written; empty for none
     */
    record Ask(List<Choice> choices, Optional<Figure> figure, String shows, String next)
            implements Act {
        @Override
        public List<Exit> exits() {
            return figure.isPresent()
                    ? List.of(new Exit("answered", next))
                    : choices.stream().map(c -> new Exit(c.name(), c.next())).toList();
        }

        @Override
        public boolean automatic() {
            return false;
        }
    }

    /**
     * Waits until a condition holds.
     *
     * @param seconds at most
     * @param asked whether somebody has to do something meanwhile, so that a wait in vain means an
     *     instruction not followed
     */
    record Wait(String when, Filter until, double seconds, boolean asked, String next, String late)
            implements Act {
        @Override
        public List<Exit> exits() {
            return List.of(new Exit(when, next), new Exit("not in time", late));
        }
    }

    /**
     * A part of a command.
     *
     * @param to percent
     * @param seconds for which it is held before the next part; 0 to go on at once
     */
    record Leg(double to, double seconds) {}

    /**
     * Takes an output over and leads it through positions one after another; with the last one it
     * goes on being held.
     *
     * @param values read meanwhile as fast as the module answers
     */
    record Command(
            String output,
            List<Leg> legs,
            List<String> values,
            String next,
            Optional<String> refused)
            implements Act {
        @Override
        public List<Exit> exits() {
            return withRefusal(next, refused);
        }
    }

    /** Gives every output back. */
    record GiveBack(String next) implements Act {
        @Override
        public List<Exit> exits() {
            return List.of(new Exit("given back", next));
        }
    }

    enum How {
        START,
        STOP,
        RESULT
    }

    /** Starts a routine, stops it or asks for its result. */
    record RunRoutine(String routine, How how, String next, Optional<String> refused)
            implements Act {
        @Override
        public List<Exit> exits() {
            return withRefusal(next, refused);
        }
    }

    /**
     * Reads all that a module was told and keeps it.
     *
     * @param as under which it is kept
     * @param refused where to go on when the module does not tell, or is not there
     */
    record Keep(String configuration, String as, String next, Optional<String> refused)
            implements Act {
        @Override
        public List<Exit> exits() {
            return withRefusal(next, refused);
        }
    }

    /**
     * Makes what a new module is told from the vehicle's VIN and its options.
     *
     * @param options those fitted when their condition holds
     */
    record Build(String configuration, Map<String, Filter> options, String next) implements Act {
        @Override
        public List<Exit> exits() {
            return List.of(new Exit("built", next));
        }
    }

    /** Writes what was kept or built, reads it back and compares. */
    record Write(String configuration, String next, Optional<String> refused) implements Act {
        @Override
        public List<Exit> exits() {
            return withRefusal(next, refused);
        }
    }

    /**
     * Reads the stored codes of some modules and keeps them.
     *
     * @param since under which an earlier reading is kept, with which this one is compared
     */
    record Codes(List<String> modules, String as, Optional<String> since, String next)
            implements Act {
        /** End of the line of a code whose test fails at present. */
        public static final String NOW = " (fails now)";

        /** What a comparison may come to; a code that came and passes again is none. */
        public static final List<String> OUTCOMES = List.of("same", "new");

        @Override
        public List<Exit> exits() {
            return List.of(new Exit("read", next));
        }
    }

    /**
     * Reads values over a time, or once when that is 0.
     *
     * @param until ends it early; empty for none
     * @param as first part of the names under which mean, least and most are known afterwards
     */
    record Measure(
            List<String> values, double seconds, Optional<Filter> until, String as, String next)
            implements Act {
        @Override
        public List<Exit> exits() {
            return List.of(new Exit("read", next));
        }
    }

    /**
     * @param passes empty for what is neither right nor wrong
     * @param tells finding → outcome
     */
    record Case(
            String when,
            Filter filter,
            String says,
            Optional<Boolean> passes,
            Map<String, String> tells,
            String next) {}

    /** The first case that holds decides. */
    record Decide(List<Case> cases, String otherwise) implements Act {
        @Override
        public List<Exit> exits() {
            List<Exit> exits = new ArrayList<>();
            cases.forEach(c -> exits.add(new Exit(c.when(), c.next())));
            exits.add(new Exit("otherwise", otherwise));
            return exits;
        }
    }

    /**
     * Judges what was measured with one of the core's studies.
     *
     * @param about id of what it judges, where the study wants one; empty for none
     * @param finding as which its outcome is told; empty for none
     * @param with figures of this vehicle that the study wants
     * @param outcomes all that the study may come to
     */
    record Study(
            String study,
            String about,
            String finding,
            Map<String, Double> with,
            String next,
            List<String> outcomes)
            implements Act {
        public Study {
            with = Map.copyOf(with);
            outcomes = List.copyOf(outcomes);
        }

        @Override
        public List<Exit> exits() {
            return List.of(new Exit("judged", next));
        }
    }

    /** Goes back until a condition holds, so many times at most. */
    record Repeat(String back, String when, Filter until, int times, String next, String otherwise)
            implements Act {
        @Override
        public List<Exit> exits() {
            return List.of(
                    new Exit(when, next),
                    new Exit("again, up to " + times + " times", back),
                    new Exit("not even then", otherwise));
        }
    }

    /** The end, with what it means. */
    record Conclude(Optional<Boolean> passes, Map<String, String> tells) implements Act {
        @Override
        public List<Exit> exits() {
            return List.of();
        }
    }

    private static List<Exit> withRefusal(String next, Optional<String> refused) {
        List<Exit> exits = new ArrayList<>(List.of(new Exit("done", next)));
        refused.ifPresent(r -> exits.add(new Exit("refused", r)));
        return exits;
    }
}
