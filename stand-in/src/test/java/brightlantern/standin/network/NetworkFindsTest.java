package brightlantern.standin.network;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Feed;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.network.NetworkReasoner;
import brightlantern.core.network.RollCall;
import brightlantern.core.network.WireConnector;
import brightlantern.core.signal.HeadValues;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * Random faults on random buses: the reasoning hears only calls and complaints, and must name the
 * element that the wires were given.
 */
class NetworkFindsTest {
    private static final int FAULTS = 300;
    private static final int ROUNDS = 40;
    private static final double ROUND_SECONDS = 0.5;
    private static final double DRIVE_SECONDS = 60;
    private static final double STEP_SECONDS = 0.2;

    private static VehicleDescription randomVehicle(Random random) {
        List<Bus> buses = new ArrayList<>();
        List<ControlModule> modules = new ArrayList<>();
        modules.add(
                new ControlModule(
                        "gateway",
                        "Gateway",
                        0x1001,
                        "bus0",
                        1,
                        List.of(),
                        "U0146-00",
                        List.of(),
                        "",
                        "",
                        false));
        int count = 1 + random.nextInt(4);
        Map<String, List<String>> on = new TreeMap<>();
        for (int b = 0; b < count; b++) {
            List<WireConnector> connectors = new ArrayList<>();
            int size = 3 + random.nextInt(9);
            String before = "gateway";
            List<String> names = new ArrayList<>();
            for (int i = 0; i < size; i++) {
                String id = "m" + b + "-" + i;
                if (random.nextBoolean()) {
                    connectors.add(
                            new WireConnector(
                                    "X" + b + i,
                                    "Connector X" + b + i,
                                    before,
                                    "somewhere",
                                    10,
                                    1 + random.nextInt(3)));
                }
                names.add(id);
                before = id;
            }
            on.put("bus" + b, names);
            buses.add(
                    new Bus(
                            "bus" + b,
                            "Bus " + b,
                            b == 0 ? 500 : 250,
                            0,
                            List.of(),
                            connectors,
                            null));
        }
        List<String> all = on.values().stream().flatMap(List::stream).toList();
        int number = 0;
        for (Map.Entry<String, List<String>> bus : on.entrySet()) {
            for (int i = 0; i < bus.getValue().size(); i++) {
                String id = bus.getValue().get(i);
                Set<String> watches = new HashSet<>();
                int wanted = 2 + random.nextInt(3);
                while (watches.size() < wanted) {
                    List<String> from = random.nextInt(3) > 0 ? bus.getValue() : all;
                    String other = from.get(random.nextInt(from.size()));
                    if (!other.equals(id)) {
                        watches.add(other);
                    } else if (bus.getValue().size() + all.size() < 2) {
                        break;
                    }
                    if (watches.size() >= bus.getValue().size() - 1) {
                        break;
                    }
                }
                modules.add(
                        new ControlModule(
                                id,
                                "Module " + id,
                                0x1100 + number,
                                bus.getKey(),
                                i + 1,
                                List.of(),
                                "U%04X-00".formatted(0x0100 + number),
                                List.copyOf(watches),
                                "",
                                "",
                                false));
                number++;
            }
        }
        List<Feed> feeds = new ArrayList<>();
        List<String> left = new ArrayList<>(all);
        Collections.shuffle(left, random);
        while (left.size() > 1) {
            int size = Math.min(left.size(), 1 + random.nextInt(4));
            feeds.add(
                    new Feed(
                            "F" + feeds.size(),
                            "Fuse F" + feeds.size(),
                            "supply",
                            "fuse box",
                            3,
                            1,
                            List.copyOf(left.subList(0, size))));
            left = new ArrayList<>(left.subList(size, left.size()));
        }
        return VehicleDescription.ofNetwork(
                "random",
                "Random",
                "",
                ".*",
                buses,
                modules,
                feeds,
                new HeadValues("", "", 0, "", "", ""));
    }

    /** A fault, and the id under which the model knows its element. */
    private record Truth(WireFault fault, String element) {}

    private static Truth randomFault(VehicleDescription d, Random random) {
        boolean flickers = random.nextInt(3) == 0;
        double bad = flickers ? 1 + 2 * random.nextDouble() : Double.POSITIVE_INFINITY;
        double good = 1 + 3 * random.nextDouble();
        Bus bus = d.buses().get(random.nextInt(d.buses().size()));
        List<ControlModule> line = d.onWire(bus.id());
        switch (random.nextInt(4)) {
            case 0 -> {
                return new Truth(
                        new WireFault.Shorted("it", bus.id(), 5 * random.nextDouble(), bad, good),
                        "short-" + bus.id());
            }
            case 1 -> {
                String module = line.get(random.nextInt(line.size())).id();
                return new Truth(new WireFault.Dead("it", module, bad, good), "dead-" + module);
            }
            case 2 -> {
                Feed feed = d.feeds().get(random.nextInt(d.feeds().size()));
                String id = feed.modules().size() > 1 ? feed.id() : "dead-" + feed.modules().get(0);
                return new Truth(new WireFault.Unfed("it", feed.id(), bad, good), id);
            }
            default -> {
                int at = random.nextInt(line.size());
                String element =
                        new NetworkModel(d.network())
                                .elements().stream()
                                        .filter(e -> e.kind() == NetworkModel.Kind.GAP)
                                        .filter(e -> e.bus().equals(bus.id()) && e.at() == at)
                                        .findFirst()
                                        .orElseThrow()
                                        .id();
                WireFault.Wire wire = WireFault.Wire.values()[random.nextInt(3)];
                return new Truth(
                        new WireFault.Broken(
                                "it",
                                bus.id(),
                                at,
                                wire,
                                500 + 5000 * random.nextDouble(),
                                bad,
                                good),
                        element);
            }
        }
    }

    /** Drives for a minute, then calls all modules for some twenty seconds and reads codes. */
    private static RollCall hear(VehicleDescription d, BusWires wires) {
        Set<RollCall.Miss> stored = new HashSet<>();
        Map<String, String> byCode = new HashMap<>();
        d.modules().forEach(m -> byCode.put(m.missed(), m.id()));
        MissMonitors monitors = new MissMonitors(d, wires, m -> true);
        double t = 0;
        for (; t < DRIVE_SECONDS; t += STEP_SECONDS) {
            monitors.watch(
                    t,
                    STEP_SECONDS,
                    (module, code, failed) -> {
                        if (failed) {
                            stored.add(new RollCall.Miss(module, byCode.get(code)));
                        }
                    });
        }
        Map<String, Integer> answered = new HashMap<>();
        Set<String> modules =
                d.modules().stream()
                        .map(ControlModule::id)
                        .filter(m -> !m.equals("gateway"))
                        .collect(Collectors.toSet());
        for (int round = 0; round < ROUNDS; round++, t += ROUND_SECONDS) {
            for (String module : modules) {
                boolean heard =
                        wires.gets("gateway", module, t) && wires.gets(module, "gateway", t);
                answered.merge(module, heard ? 1 : 0, Integer::sum);
            }
        }
        Map<String, RollCall.Tally> calls = new HashMap<>();
        answered.forEach((m, k) -> calls.put(m, new RollCall.Tally(ROUNDS, k)));
        Set<String> read =
                modules.stream().filter(m -> answered.get(m) > 0).collect(Collectors.toSet());
        return new RollCall(
                calls,
                read,
                stored.stream()
                        .filter(m -> read.contains(m.listener()))
                        .collect(Collectors.toSet()));
    }

    private static Set<String> fitted(VehicleDescription d) {
        return d.modules().stream().map(ControlModule::id).collect(Collectors.toSet());
    }

    @Test
    void theBrokenElementIsFirstOrNearly() {
        int first = 0;
        int amongThree = 0;
        Map<String, int[]> byKind = new TreeMap<>();
        List<String> missed = new ArrayList<>();
        for (int i = 0; i < FAULTS; i++) {
            Random random = new Random(7919L * i + 1);
            VehicleDescription d = randomVehicle(random);
            BusWires wires = new BusWires(d, random);
            Truth truth = randomFault(d, random);
            wires.add(truth.fault());
            NetworkReasoner.Ranking ranking =
                    new NetworkReasoner(d.network()).rank(hear(d, wires), fitted(d));
            int place = 0;
            while (!ranking.standings().get(place).id().equals(truth.element())) {
                place++;
            }
            int[] tally =
                    byKind.computeIfAbsent(
                            truth.fault().getClass().getSimpleName(), k -> new int[3]);
            tally[0]++;
            first += place == 0 ? 1 : 0;
            amongThree += place < 3 ? 1 : 0;
            tally[1] += place == 0 ? 1 : 0;
            tally[2] += place < 3 ? 1 : 0;
            if (place > 0) {
                missed.add(
                        truth
                                + " was "
                                + (place + 1)
                                + ", first "
                                + ranking.lead().name()
                                + " "
                                + ranking.lead().sureness());
            }
        }
        byKind.forEach(
                (kind, t) ->
                        System.out.printf(
                                Locale.ROOT,
                                "%s: %d, first %d, among three %d%n",
                                kind,
                                t[0],
                                t[1],
                                t[2]));
        System.out.printf(
                Locale.ROOT, "of %d: first %d, among three %d%n", FAULTS, first, amongThree);
        assertThat(first).as("%s", missed).isGreaterThanOrEqualTo(FAULTS * 90 / 100);
        assertThat(amongThree).as("%s", missed).isGreaterThanOrEqualTo(FAULTS * 98 / 100);
    }

    @Test
    void aWholeNetworkIsNotAccused() {
        for (int i = 0; i < 100; i++) {
            Random random = new Random(104_729L * i + 5);
            VehicleDescription d = randomVehicle(random);
            NetworkReasoner.Ranking ranking =
                    new NetworkReasoner(d.network())
                            .rank(hear(d, new BusWires(d, random)), fitted(d));
            assertThat(ranking.lead().id()).isEqualTo(NetworkReasoner.NOTHING);
        }
    }
}
