package brightlantern.core.reason;

import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.network.NetworkSounds;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** Elements of the network that let too little through: who answers, and who misses whom. */
final class NetworkMechanism implements Mechanism {
    /** Nothing that was heard makes a suspect quite impossible: ears err as well. */
    private static final double FAINTEST = 1e-9;

    private static final double SWEEP_MINUTES = 3;
    private static final double ROLL_CALL_MINUTES = 4;

    /** In a sweep a module is called so often at most; a roll call goes on for longer. */
    private static final int CALLS_OF_A_SWEEP = 4;

    /** On random networks a sweep and roll call name the wrong element about so often. */
    private static final double HEARD_WRONG = 0.1;

    private static final Check.Listen SWEEP =
            new Check.Listen(
                    "network",
                    "Sweep all modules",
                    "sweep",
                    SWEEP_MINUTES,
                    "Who answers, and who misses whom, says whether a wire is broken and where.",
                    "");
    private static final Check.Listen ROLL_CALL =
            new Check.Listen(
                    "roll-call",
                    "Call the roll",
                    "sweep",
                    ROLL_CALL_MINUTES,
                    "A sweep asks each module once or twice; asked again and again, the flickering ones show between which two points the wire is bad.",
                    "roll-call");

    private final NetworkFaults faults;

    /** Element → the modules that fall silent, by which one hears of it. */
    private final Map<NetworkModel.Element, Set<String>> silent = new HashMap<>();

    NetworkMechanism(NetworkFaults faults) {
        this.faults = faults;
        faults.elements().forEach(e -> silent.put(e, silent(e)));
    }

    /** Modules of which the gateway hears nothing while an element is at fault. */
    private Set<String> silent(NetworkModel.Element element) {
        return faults.model().names().keySet().stream()
                .filter(m -> faults.model().link(element, 0, Network.GATEWAY, m) < 0.5)
                .collect(Collectors.toSet());
    }

    @Override
    public int sizes(Suspect suspect) {
        return isComplete(suspect) ? NetworkSounds.severities() : 1;
    }

    @Override
    public boolean isComplete(Suspect suspect) {
        return faults.isElement(suspect.id());
    }

    @Override
    public boolean weighs(Evidence piece) {
        return piece instanceof Evidence.Heard;
    }

    /** Relative to the best, as hundreds of answers together are too unlikely for a number. */
    @Override
    public double[] logLikelihoods(Evidence piece, Hypotheses under) {
        Evidence.Heard heard = (Evidence.Heard) piece;
        NetworkSounds.Hearing hearing =
                faults.reasoner().sounds().hear(heard.call(), heard.fitted());
        double other =
                Math.max(hearing.sound() + Math.log(Odds.UNKNOWN_HEALTHY), hearing.anything());
        Map<String, double[]> known = new HashMap<>();
        double[] logs =
                under.each(
                        h -> {
                            if (h.isUnknown()) {
                                return other;
                            }
                            return faults.of(h)
                                    .map(
                                            as ->
                                                    known.computeIfAbsent(
                                                                    as.element().id(),
                                                                    hearing::under)[as.severity()])
                                    .orElse(hearing.sound());
                        });
        double top = Math.max(hearing.sound(), other);
        for (double log : logs) {
            top = Math.max(top, log);
        }
        for (int i = 0; i < logs.length; i++) {
            logs[i] = Math.max(Math.log(FAINTEST), logs[i] - top);
        }
        return logs;
    }

    /** A sweep or a roll call, where the network is among the suspects. */
    @Override
    public List<Check> checks(List<Evidence> known) {
        if (faults.isEmpty()) {
            return List.of();
        }
        Optional<Evidence.Heard> heard =
                known.stream()
                        .filter(Evidence.Heard.class::isInstance)
                        .map(Evidence.Heard.class::cast)
                        .findFirst();
        if (heard.isEmpty()) {
            return List.of(SWEEP);
        }
        boolean briefly =
                heard.get().call().calls().values().stream()
                        .allMatch(t -> t.asked() <= CALLS_OF_A_SWEEP);
        return briefly ? List.of(ROLL_CALL) : List.of();
    }

    @Override
    public boolean mayRepeat(Check check) {
        return check.equals(ROLL_CALL);
    }

    @Override
    public Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts) {
        return check instanceof Check.Listen ? Optional.of(new Listening(under)) : Optional.empty();
    }

    private final class Listening implements Forecast {
        private final Hypotheses under;

        Listening(Hypotheses under) {
            this.under = under;
        }

        /**
         * It names the elements of which one hears the same, or clears the network; where it errs,
         * any of them.
         */
        @Override
        public Outcomes outcomes() {
            Set<Set<String>> named = new LinkedHashSet<>(silent.values());
            double stray = HEARD_WRONG / (named.size() + 1);
            List<double[]> outcomes = new ArrayList<>();
            for (Set<String> these : named) {
                outcomes.add(
                        chances(
                                stray,
                                h ->
                                        faults.of(h)
                                                .filter(a -> silent.get(a.element()).equals(these))
                                                .isPresent()));
            }
            outcomes.add(chances(stray, h -> faults.of(h).isEmpty()));
            return Outcomes.of(outcomes);
        }

        private double[] chances(double stray, Predicate<Hypothesis> right) {
            return under.each(h -> stray + (right.test(h) ? 1 - HEARD_WRONG : 0));
        }

        @Override
        public List<String> expectations() {
            return List.of("A sound network: every fitted module answers, none misses another");
        }
    }
}
