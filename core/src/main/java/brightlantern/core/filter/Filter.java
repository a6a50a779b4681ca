package brightlantern.core.filter;

import brightlantern.core.take.Take;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * A condition over values. Limits are in each value's own unit; a value that is not known holds no
 * condition, and neither does the opposite of one on it.
 */
public sealed interface Filter {
    /** A value that stays within this share of itself is steady. */
    double STEADY_SHARE = 0.03;

    /** Changes of so many steps of the sensor's resolution are noise. */
    double NOISE_STEPS = 3;

    /** So much of all that a value did must go one way before it rises or falls. */
    double ONE_WAY = 0.8;

    /** Ids of the values that it looks at. */
    Set<String> values();

    /**
     * For each moment whether it held.
     *
     * @param times rising, in seconds of the take
     */
    State[] over(Take take, double[] times);

    /** Whether a condition held at a moment, or nobody knows. */
    enum State {
        HOLDS,
        FAILS,
        UNKNOWN;

        static State of(boolean holds) {
            return holds ? HOLDS : FAILS;
        }
    }

    /** All of these hold. */
    record And(List<Filter> parts) implements Filter {
        @Override
        public Set<String> values() {
            return union(parts);
        }

        @Override
        public State[] over(Take take, double[] times) {
            return combine(parts, take, times, State.FAILS, State.HOLDS);
        }
    }

    /** At least one of these holds. */
    record Or(List<Filter> parts) implements Filter {
        @Override
        public Set<String> values() {
            return union(parts);
        }

        @Override
        public State[] over(Take take, double[] times) {
            return combine(parts, take, times, State.HOLDS, State.FAILS);
        }
    }

    /** This does not hold. */
    record Not(Filter part) implements Filter {
        @Override
        public Set<String> values() {
            return part.values();
        }

        @Override
        public State[] over(Take take, double[] times) {
            State[] states = part.over(take, times);
            for (int i = 0; i < states.length; i++) {
                states[i] =
                        switch (states[i]) {
                            case HOLDS -> State.FAILS;
                            case FAILS -> State.HOLDS;
                            case UNKNOWN -> State.UNKNOWN;
                        };
            }
            return states;
        }
    }

    /** How a value is compared. */
    enum Operator {
        LESS("<"),
        LESS_OR_EQUAL("<="),
        MORE(">"),
        MORE_OR_EQUAL(">="),
        EQUAL("="),
        OTHER("!=");

        private final String sign;

        Operator(String sign) {
            this.sign = sign;
        }

        /** As it is written. */
        public String sign() {
            return sign;
        }

        boolean holds(double a, double b) {
            return switch (this) {
                case LESS -> a < b;
                case LESS_OR_EQUAL -> a <= b;
                case MORE -> a > b;
                case MORE_OR_EQUAL -> a >= b;
                case EQUAL -> a == b;
                case OTHER -> a != b;
            };
        }
    }

    /**
     * A value against a limit.
     *
     * @param limit in the value's own unit; the raw number for a state
     */
    record Compare(String value, Operator operator, double limit) implements Filter {
        @Override
        public Set<String> values() {
            return Set.of(value);
        }

        @Override
        public State[] over(Take take, double[] times) {
            State[] states = new State[times.length];
            for (int i = 0; i < times.length; i++) {
                double now = take.at(value, times[i]);
                states[i] =
                        Double.isNaN(now) ? State.UNKNOWN : State.of(operator.holds(now, limit));
            }
            return states;
        }
    }

    /** How a value moves. */
    enum Trend {
        STEADY,
        RISING,
        FALLING
    }

    /**
     * A value that stays as it is, or goes up or down, over the time before each moment.
     *
     * @param seconds how long that time is
     * @param resolution smallest step of the value, in its own unit
     */
    record Moves(String value, Trend trend, double seconds, double resolution) implements Filter {
        @Override
        public Set<String> values() {
            return Set.of(value);
        }

        @Override
        public State[] over(Take take, double[] times) {
            State[] states = new State[times.length];
            int from = 0;
            for (int i = 0; i < times.length; i++) {
                while (times[i] - times[from] > seconds + 1e-9) {
                    from++;
                }
                boolean whole = times[i] - times[0] >= seconds - 1e-9;
                states[i] = whole ? state(take, times, from, i) : State.UNKNOWN;
            }
            return states;
        }

        private State state(Take take, double[] times, int from, int to) {
            double least = Double.POSITIVE_INFINITY;
            double most = Double.NEGATIVE_INFINITY;
            for (int i = from; i <= to; i++) {
                double now = take.at(value, times[i]);
                if (Double.isNaN(now)) {
                    return State.UNKNOWN;
                }
                least = Math.min(least, now);
                most = Math.max(most, now);
            }
            double range = most - least;
            double noise = NOISE_STEPS * resolution;
            double change = take.at(value, times[to]) - take.at(value, times[from]);
            return State.of(
                    switch (trend) {
                        case STEADY ->
                                range
                                        <= Math.max(
                                                noise,
                                                STEADY_SHARE
                                                        * Math.max(
                                                                Math.abs(least), Math.abs(most)));
                        case RISING -> change > noise && change >= ONE_WAY * range;
                        case FALLING -> -change > noise && -change >= ONE_WAY * range;
                    });
        }
    }

    /**
     * A value that went up, or down, by so much within the time before each moment; a rate with a
     * limit. What lies before the first reading is not missed: nothing is known to have changed.
     *
     * @param trend rising or falling
     * @param by in the value's own unit, above zero
     */
    record Changed(String value, Trend trend, double by, double seconds) implements Filter {
        @Override
        public Set<String> values() {
            return Set.of(value);
        }

        @Override
        public State[] over(Take take, double[] times) {
            State[] states = new State[times.length];
            int from = 0;
            for (int i = 0; i < times.length; i++) {
                while (times[i] - times[from] > seconds + 1e-9) {
                    from++;
                }
                double now = take.at(value, times[i]);
                double most = 0;
                for (int k = from; k < i; k++) {
                    double then = take.at(value, times[k]);
                    most = Math.max(most, trend == Trend.RISING ? now - then : then - now);
                }
                states[i] = Double.isNaN(now) ? State.UNKNOWN : State.of(most >= by);
            }
            return states;
        }
    }

    /** A condition that has held without a break for so many seconds. */
    record For(Filter part, double seconds) implements Filter {
        @Override
        public Set<String> values() {
            return part.values();
        }

        @Override
        public State[] over(Take take, double[] times) {
            State[] states = part.over(take, times);
            double since = Double.NaN;
            for (int i = 0; i < states.length; i++) {
                if (states[i] != State.HOLDS) {
                    since = Double.NaN;
                } else {
                    since = Double.isNaN(since) ? times[i] : since;
                    states[i] = State.of(times[i] - since >= seconds - 1e-9);
                }
            }
            return states;
        }
    }

    private static Set<String> union(List<Filter> parts) {
        Set<String> all = new LinkedHashSet<>();
        parts.forEach(p -> all.addAll(p.values()));
        return all;
    }

    /** One part decides for all; without it, one that is not known leaves the whole not known. */
    private static State[] combine(
            List<Filter> parts, Take take, double[] times, State decides, State otherwise) {
        State[] result = new State[times.length];
        Arrays.fill(result, otherwise);
        for (Filter part : parts) {
            State[] its = part.over(take, times);
            for (int i = 0; i < its.length; i++) {
                if (its[i] == decides || its[i] == State.UNKNOWN && result[i] != decides) {
                    result[i] = its[i];
                }
            }
        }
        return result;
    }
}
