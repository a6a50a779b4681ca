package brightlantern.core.capture;

import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A wire while its harness is moved: when its volts leave where they rest, and which marks that
 * goes with. A short departure from the sliding median is a jump; what stays longer was switched.
 */
public final class ContactStudy {
    /** Half of what the median slides over, s: what lasts longer was switched. */
    private static final double HALF_SPAN = 0.5;

    /** Medians are taken of blocks of this, s. */
    private static final double BLOCK = 0.02;

    private static final double SLOWEST_INTERVAL = 5e-3;
    private static final double SHORTEST_SECONDS = 2;

    /** Less than this, V, and less than so many times its noise, is none. */
    private static final double LEAST_VOLTS = 0.2;

    private static final double NOISES = 8;

    /** Jumps that are closer than this, s, come from one move. */
    private static final double ONE_MOVE = 0.5;

    /** Who moves something sets the mark so long before or behind it, s. */
    private static final double MARK_BEFORE = 0.5;

    private static final double MARK_BEHIND = 2;

    /** That jumps fall to a mark by chance only so rarely is a connection. */
    private static final double CHANCE = 0.05;

    /** Beginning of the finding that tells whether something jumps while a thing is moved. */
    public static final String MOVED = "move-";

    /** Its outcomes. */
    public static final String JUMPS = "jumps";

    public static final String STEADY = "steady";

    private ContactStudy() {}

    /**
     * @param seconds after the capture began
     * @param words what was seen, or done
     */
    public record Mark(double seconds, String words) {}

    /**
     * Jumps that came from one move.
     *
     * @param from and {@code to}: seconds after the capture began
     * @param jumps how often it left where it rests
     * @param volts furthest from where it rests
     */
    public record Burst(double from, double to, int jumps, double volts) {}

    /**
     * What a mark's words go with.
     *
     * @param set how often it was set
     * @param hit how often jumps came with it
     * @param chance that so many would come with it by chance; 1 where none did
     */
    public record Near(String words, int set, int hit, double chance) {
        /** Whether jumps come of what it says; once is no proof. */
        public boolean isCause() {
            return hit > 1 && chance < CHANCE;
        }

        /** Whether it was done more than once, and nothing came of it. */
        public boolean isSteady() {
            return set > 1 && hit == 0;
        }
    }

    /**
     * @param bursts in the order of time
     * @param near by what marks say
     */
    public record Judgement(
            String sentence,
            List<String> reasons,
            List<Burst> bursts,
            List<Near> near,
            List<Told> tells)
            implements CaptureReading {
        public Judgement {
            reasons = List.copyOf(reasons);
            bursts = List.copyOf(bursts);
            near = List.copyOf(near);
            tells = List.copyOf(tells);
        }

        @Override
        public boolean holds() {
            return bursts.isEmpty();
        }
    }

    /** Why a capture cannot be judged; empty where it can. */
    public static Optional<String> whyNot(Capture capture) {
        if (capture.interval() > SLOWEST_INTERVAL || capture.seconds() < SHORTEST_SECONDS) {
            return Optional.of(
                    String.format(
                            Locale.ROOT,
                            "It has a sample every %.1f ms for %.1f s; expected one every %.0f ms or faster, for %.0f s or longer.",
                            1000 * capture.interval(),
                            capture.seconds(),
                            1000 * SLOWEST_INTERVAL,
                            SHORTEST_SECONDS));
        }
        return Optional.empty();
    }

    /**
     * What it says; empty when nothing can be said, and {@link #whyNot} says why.
     *
     * @param moved what can be moved by itself, and is told of where a mark names it
     */
    public static Optional<Judgement> judge(
            Capture capture, List<Mark> marks, Collection<String> moved) {
        Optional<Lane> lane = capture.lane(LaneRole.POINT);
        if (lane.isEmpty() || whyNot(capture).isPresent()) {
            return Optional.empty();
        }
        double[] samples = lane.get().samples();
        double[] off = off(samples, capture.interval());
        double least = Math.max(LEAST_VOLTS, NOISES * noise(off));
        List<Burst> bursts = bursts(off, least, capture.interval());
        List<Near> near = near(bursts, marks, capture.seconds());
        List<CaptureReading.Told> tells = tells(near, moved);
        return Optional.of(
                new Judgement(
                        sentence(bursts, near, marks.isEmpty()),
                        reasons(bursts, near, least),
                        bursts,
                        near,
                        tells));
    }

    /** How far each sample is from the median of what is around it, V. */
    private static double[] off(double[] samples, double interval) {
        int size = Math.max(1, (int) Math.round(BLOCK / interval));
        int blocks = (samples.length + size - 1) / size;
        double[] medians = new double[blocks];
        for (int b = 0; b < blocks; b++) {
            medians[b] =
                    middle(
                            Arrays.copyOfRange(
                                    samples, b * size, Math.min(samples.length, (b + 1) * size)));
        }
        int reach = (int) Math.round(HALF_SPAN / (size * interval));
        double[] rests = new double[blocks];
        for (int b = 0; b < blocks; b++) {
            // a whole window even at the ends, so that a jump there is no new level
            int from = Math.max(0, Math.min(b - reach, blocks - 2 * reach - 1));
            int to = Math.min(blocks, Math.max(b + reach + 1, 2 * reach + 1));
            rests[b] = middle(Arrays.copyOfRange(medians, from, to));
        }
        double[] off = new double[samples.length];
        for (int i = 0; i < samples.length; i++) {
            off[i] = Double.POSITIVE_INFINITY;
            // where it is switched the level changes within a block
            for (int b = Math.max(0, i / size - 1); b <= Math.min(blocks - 1, i / size + 1); b++) {
                double its = samples[i] - rests[b];
                off[i] = Math.abs(its) < Math.abs(off[i]) ? its : off[i];
            }
        }
        return off;
    }

    private static double middle(double[] of) {
        Arrays.sort(of);
        return of[of.length / 2];
    }

    /** Standard deviation of noise, by the middle one of all departures (1.4826 · MAD). */
    private static double noise(double[] off) {
        return 1.4826 * middle(Arrays.stream(off).map(Math::abs).toArray());
    }

    private static List<Burst> bursts(double[] off, double least, double interval) {
        List<Burst> all = new ArrayList<>();
        int at = 0;
        while (at < off.length) {
            if (Math.abs(off[at]) <= least) {
                at++;
                continue;
            }
            int begin = at;
            double most = 0;
            while (at < off.length && Math.abs(off[at]) > least) {
                most = Math.abs(off[at]) > Math.abs(most) ? off[at] : most;
                at++;
            }
            Burst jump = new Burst(begin * interval, at * interval, 1, most);
            Burst last = all.isEmpty() ? null : all.get(all.size() - 1);
            if (jump.to() - jump.from() > HALF_SPAN) {
                continue;
            }
            if (last != null && jump.from() - last.to() < ONE_MOVE) {
                all.set(all.size() - 1, together(last, jump));
            } else {
                all.add(jump);
            }
        }
        return all;
    }

    private static Burst together(Burst first, Burst then) {
        double volts =
                Math.abs(then.volts()) > Math.abs(first.volts()) ? then.volts() : first.volts();
        return new Burst(first.from(), then.to(), first.jumps() + then.jumps(), volts);
    }

    /**
     * How often jumps come with each mark, held against how often they come elsewhere (Poisson,
     * with half a burst more than was seen).
     */
    private static List<Near> near(List<Burst> bursts, List<Mark> marks, double seconds) {
        Map<String, List<Mark>> byWords = new LinkedHashMap<>();
        for (Mark m : marks) {
            byWords.computeIfAbsent(m.words().toLowerCase(Locale.ROOT), w -> new ArrayList<>())
                    .add(m);
        }
        List<Near> all = new ArrayList<>();
        for (List<Mark> same : byWords.values()) {
            int hit =
                    (int)
                            same.stream()
                                    .filter(m -> bursts.stream().anyMatch(b -> by(m, b)))
                                    .count();
            long elsewhere =
                    bursts.stream().filter(b -> marks.stream().noneMatch(m -> by(m, b))).count();
            double span = MARK_BEFORE + MARK_BEHIND;
            double free = Math.max(span, seconds - marks.size() * span);
            double once = 1 - Math.exp(-span * (elsewhere + 0.5) / free);
            all.add(
                    new Near(
                            same.get(0).words(),
                            same.size(),
                            hit,
                            hit == 0 ? 1 : atLeast(hit, same.size(), once)));
        }
        return all;
    }

    private static boolean by(Mark m, Burst b) {
        return b.to() >= m.seconds() - MARK_BEFORE && b.from() <= m.seconds() + MARK_BEHIND;
    }

    /** Chance of at least so many hits of n (binomial). */
    private static double atLeast(int hits, int n, double once) {
        double sum = 0;
        for (int k = hits; k <= n; k++) {
            double ways = 1;
            for (int i = 0; i < k; i++) {
                ways = ways * (n - i) / (i + 1);
            }
            sum += ways * Math.pow(once, k) * Math.pow(1 - once, n - k);
        }
        return sum;
    }

    private static List<CaptureReading.Told> tells(List<Near> near, Collection<String> moved) {
        List<CaptureReading.Told> all = new ArrayList<>();
        for (Near n : near) {
            for (String id : moved) {
                if ((n.isCause() || n.isSteady()) && names(n.words(), id)) {
                    all.add(
                            new CaptureReading.Told(
                                    MOVED + id,
                                    n.isCause() ? JUMPS : STEADY,
                                    n.isSteady(),
                                    told(n)));
                }
            }
        }
        return all;
    }

    /** Whether a mark says the name of something, as a word of its own. */
    private static boolean names(String words, String id) {
        return Arrays.stream(words.split("[\\s,;:()]+")).anyMatch(w -> w.equalsIgnoreCase(id));
    }

    private static String told(Near n) {
        return String.format(
                Locale.ROOT,
                n.isCause()
                        ? "'%s': the volts jump, %s."
                        : n.isSteady() ? "'%s': all stays steady, %s." : "'%s': jumps %s.",
                n.words(),
                n.isSteady()
                        ? Words.count(n.set(), "time")
                        : n.hit() + " of " + Words.count(n.set(), "time"));
    }

    private static String sentence(List<Burst> bursts, List<Near> near, boolean unmarked) {
        if (bursts.isEmpty()) {
            return "Nothing jumps: the volts leave where they rest only where it was switched.";
        }
        int jumps = bursts.stream().mapToInt(Burst::jumps).sum();
        String seen =
                "The volts jump "
                        + Words.count(jumps, "time")
                        + ", in "
                        + Words.count(bursts.size(), "burst")
                        + ": a contact comes and goes. ";
        String causes =
                near.stream()
                        .filter(Near::isCause)
                        .map(n -> "'" + n.words() + "'")
                        .collect(Collectors.joining(", "));
        if (!causes.isEmpty()) {
            return seen + "It goes with " + causes + ".";
        }
        return seen
                + (unmarked
                        ? "Mark what was moved when, and it is told which of it this goes with."
                        : "It goes with none of what was marked so often that it is no chance; move each again, and leave it alone for as long in between.");
    }

    private static List<String> reasons(List<Burst> bursts, List<Near> near, double least) {
        List<String> all = new ArrayList<>();
        all.add(
                String.format(
                        Locale.ROOT,
                        "A jump is more than %.2f V from the middle of the second around it, for less than %.1f s.",
                        least,
                        HALF_SPAN));
        bursts.stream()
                .limit(12)
                .map(
                        b ->
                                String.format(
                                        Locale.ROOT,
                                        "At %.2f s: %s in %.0f ms, as far as %+.2f V.",
                                        b.from(),
                                        Words.count(b.jumps(), "jump"),
                                        1000 * (b.to() - b.from()),
                                        b.volts()))
                .forEach(all::add);
        near.forEach(n -> all.add(told(n)));
        return all;
    }
}
