package brightlantern.core.reason;

import brightlantern.core.network.NetworkModel;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.network.NetworkSounds;
import brightlantern.core.network.RollCall;
import brightlantern.core.network.WireState;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Elements of the network as an oscilloscope shows them at both ends of a bus. */
final class BusMechanism implements Mechanism {
    private static final double MINUTES = 12;

    /** A module that answers less often is in question. */
    private static final double ANSWERS = 0.97;

    /** What is on the bus all the time shows so in most captures. */
    private static final double SHOWS = 0.9;

    /** A bad contact may be good while it is looked at. */
    private static final double CONTACT_SHOWS = 0.65;

    private static final double CONTACT_IS_GOOD = 0.28;

    /** A sound bus shows itself so. */
    private static final double SOUND = 0.96;

    /** Any state that is not foretold, and any place of a break. */
    private static final double STRAY = 0.001;

    /** Nothing that may be seen is quite impossible. */
    private static final double LEAST = 1e-9;

    /** Under a cause that nobody described each state is as likely as any other. */
    private static final double ANY = 1.0 / WireState.values().length;

    private final NetworkModel model;
    private final NetworkFaults faults;
    private final Map<String, String> names = new HashMap<>();
    private final Map<String, Set<String>> onBus = new HashMap<>();

    BusMechanism(VehicleDescription description, NetworkFaults faults) {
        this.faults = faults;
        model = faults.model();
        description
                .buses()
                .forEach(
                        b -> {
                            names.put(b.id(), b.name());
                            Set<String> its = new HashSet<>();
                            description.onWire(b.id()).forEach(m -> its.add(m.id()));
                            onBus.put(b.id(), its);
                        });
    }

    @Override
    public boolean weighs(Evidence piece) {
        return piece instanceof Evidence.BusSeen;
    }

    @Override
    public double[] logLikelihoods(Evidence piece, Hypotheses under) {
        Evidence.BusSeen seen = (Evidence.BusSeen) piece;
        return under.each(h -> Math.log(chance(h, seen)));
    }

    private double chance(Hypothesis h, Evidence.BusSeen seen) {
        if (h.isUnknown()) {
            return ANY;
        }
        Optional<NetworkFaults.As> as = faults.of(h);
        boolean now = as.filter(a -> a.severity() != NetworkSounds.ONLY_ONCE).isPresent();
        return now || as.isPresent() && faults.isElement(h.suspectId())
                ? under(as.get().element(), seen)
                : sound(seen);
    }

    private static double sound(Evidence.BusSeen seen) {
        return seen.state() == WireState.SOUND ? SOUND : STRAY;
    }

    private double under(Element e, Evidence.BusSeen seen) {
        return switch (e.kind()) {
            case GAP -> e.bus().equals(seen.bus()) ? gap(e, seen) : sound(seen);
            case SHORT -> steady(e, seen, WireState.SHORTED);
            case BABBLING -> steady(e, seen, WireState.BABBLING);
            case TERMINATOR -> steady(e, seen, WireState.UNTERMINATED);
            case MODULE, FEED -> without(e, seen);
        };
    }

    private static double gap(Element e, Evidence.BusSeen seen) {
        if (seen.state().isOpen()) {
            // which of both wires it is, is not foretold
            return seen.mayBeBehind(e.at()) ? CONTACT_SHOWS / 3 : STRAY;
        }
        return seen.state() == WireState.SOUND ? CONTACT_IS_GOOD : STRAY;
    }

    private static double steady(Element e, Evidence.BusSeen seen, WireState its) {
        if (!e.bus().equals(seen.bus())) {
            return sound(seen);
        }
        return seen.state() == its ? SHOWS : STRAY;
    }

    /** Modules without supply send nothing; where none of them is on this bus it is sound. */
    private double without(Element e, Evidence.BusSeen seen) {
        Set<String> its = new HashSet<>(e.modules());
        its.retainAll(onBus.getOrDefault(seen.bus(), Set.of()));
        if (its.isEmpty()) {
            return sound(seen);
        }
        if (seen.state() == WireState.SOUND_WITHOUT || seen.state() == WireState.SILENT) {
            return seen.absent().equals(its) ? CONTACT_SHOWS : STRAY;
        }
        return seen.state() == WireState.SOUND ? CONTACT_IS_GOOD : STRAY;
    }

    /** A capture of each bus on which somebody is silent, flickers, or is missed. */
    @Override
    public List<Check> checks(List<Evidence> known) {
        Set<String> buses = new LinkedHashSet<>();
        for (Evidence piece : known) {
            if (piece instanceof Evidence.Heard heard && !heard.right()) {
                heard.call().calls().entrySet().stream()
                        .filter(c -> c.getValue().rate() < ANSWERS)
                        .forEach(c -> buses.add(model.bus(c.getKey())));
                heard.call().misses().stream()
                        .map(RollCall.Miss::missing)
                        .forEach(m -> buses.add(model.bus(m)));
            }
        }
        return buses.stream()
                .filter(names::containsKey)
                .sorted()
                .map(
                        b ->
                                (Check)
                                        new Check.BusCapture(
                                                "bus-" + b,
                                                "Record both ends of the " + lower(names.get(b)),
                                                b,
                                                MINUTES,
                                                "The levels of each module's frames at either end tell which of the wires is sick and between which two modules, and tell a short from a module that sends without an end."))
                .toList();
    }

    private static String lower(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }

    @Override
    public Optional<Forecast> forecast(
            Check check, Hypotheses under, double[] weights, double supplyVolts) {
        return check instanceof Check.BusCapture capture
                ? Optional.of(new Looking(capture.bus(), under))
                : Optional.empty();
    }

    /** What may be seen of a bus. */
    private final class Looking implements Forecast {
        private final String bus;
        private final Hypotheses under;

        Looking(String bus, Hypotheses under) {
            this.bus = bus;
            this.under = under;
        }

        @Override
        public Outcomes outcomes() {
            Set<Evidence.BusSeen> possible = new LinkedHashSet<>();
            for (WireState state :
                    List.of(
                            WireState.SOUND,
                            WireState.SHORTED,
                            WireState.BABBLING,
                            WireState.UNTERMINATED)) {
                possible.add(new Evidence.BusSeen(bus, state, -1, -1, Set.of(), false));
            }
            for (Element e : faults.elements()) {
                if (e.kind() == NetworkModel.Kind.GAP && e.bus().equals(bus)) {
                    possible.add(
                            new Evidence.BusSeen(
                                    bus, WireState.HIGH_OPEN, e.at(), e.at(), Set.of(), false));
                } else if (e.kind() == NetworkModel.Kind.MODULE
                        || e.kind() == NetworkModel.Kind.FEED) {
                    Set<String> its = new HashSet<>(e.modules());
                    its.retainAll(onBus.getOrDefault(bus, Set.of()));
                    possible.add(
                            new Evidence.BusSeen(bus, WireState.SOUND_WITHOUT, -1, -1, its, false));
                }
            }
            List<double[]> outcomes = new ArrayList<>();
            double[] rest = under.each(h -> 1);
            for (Evidence.BusSeen seen : possible) {
                // either wire may be the open one
                int ways = seen.state().isOpen() ? 3 : 1;
                double[] chances = under.each(h -> ways * chance(h, seen));
                for (int i = 0; i < rest.length; i++) {
                    chances[i] = Math.max(LEAST, Math.min(chances[i], rest[i]));
                    rest[i] = Math.max(LEAST, rest[i] - chances[i]);
                }
                outcomes.add(chances);
            }
            outcomes.add(rest);
            return Outcomes.of(outcomes);
        }

        @Override
        public List<String> expectations() {
            return List.of("Sound wires: every module's frames at both ends, about 2.2 V apart");
        }
    }
}
