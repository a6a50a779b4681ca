package brightlantern.standin;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.function.Function;
import java.util.stream.IntStream;

/**
 * Runs of a bench, two beside each other. Each draws by a seed of its own, so that one that is told
 * of can be looked at again alone: {@code -Dseed=N -Dcase=N}.
 */
final class Runs {
    private static final int HANDS = 2;
    private static final int ALL = -1;
    private static final long APART = 1_000_003;

    private final long seed = Long.getLong("seed", 1);
    private final int only = Integer.getInteger("case", ALL);
    private final List<Yard> yards = new ArrayList<>();

    /**
     * @param number of the run, from 0
     * @param random what it draws by
     * @param yard vehicles that nobody else works on meanwhile
     */
    record Run(int number, Random random, Yard yard) {}

    Runs() {
        for (int hand = 0; hand < HANDS; hand++) {
            yards.add(new Yard(new Random(seed * HANDS + hand)));
        }
    }

    /**
     * @return what the runs came to, in their order
     */
    <T> List<T> of(int many, Function<Run, T> each) {
        var came = new ConcurrentSkipListMap<Integer, T>();
        IntStream.range(0, HANDS)
                .parallel()
                .forEach(
                        hand -> {
                            for (int i = hand; i < many; i += HANDS) {
                                if (only == ALL || only == i) {
                                    came.put(i, each.apply(run(i, yards.get(hand))));
                                }
                            }
                        });
        return List.copyOf(came.values());
    }

    /** One run, while no other goes on. */
    <T> T alone(int number, Function<Run, T> each) {
        return each.apply(run(number, yards.get(0)));
    }

    /** Whether a single one is looked at. */
    boolean isOne() {
        return only != ALL;
    }

    private Run run(int number, Yard yard) {
        return new Run(number, new Random(seed * APART + number), yard);
    }
}
