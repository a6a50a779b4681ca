package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.network.RollCall;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Finding;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Figures of the ranking and of the planning, as they were when the rules last changed on purpose:
 * who moves code about must not move them. {@code -Drankings.write=true} writes them anew.
 */
class RecordedRankingsTest {
    private static final Path FOLDER = Path.of("src/test/resources/rankings");
    private static final int CASES = 6;
    private static final double EXACT = 1e-9;

    /** One piece of every kind that this vehicle can give, some of them absurd. */
    private static List<Evidence> drawn(VehicleDescription d, Random random) {
        List<Evidence> all = new ArrayList<>();
        d.symptoms().stream()
                .filter(s -> random.nextInt(3) == 0)
                .forEach(s -> all.add(new Evidence.SymptomTold(s.id())));
        d.codes().stream()
                .filter(c -> !d.wiring().codes().contains(c))
                .filter(c -> random.nextInt(12) == 0)
                .forEach(c -> all.add(new Evidence.CodeSeen(c.code(), random.nextBoolean())));
        for (Finding f : d.findings()) {
            String outcome = f.outcomes().get(random.nextInt(f.outcomes().size())).id();
            switch (random.nextInt(4)) {
                case 0 -> all.add(new Evidence.Outcome(f.id(), outcome));
                case 1 ->
                        all.add(
                                new Evidence.Judged(
                                        f.id(), outcome, 0.5 + random.nextDouble() / 2));
                default -> {}
            }
        }
        d.actuators().stream()
                .filter(a -> random.nextBoolean())
                .forEach(
                        a ->
                                all.add(
                                        new Evidence.Run(
                                                a.id(),
                                                List.of(a.id()),
                                                random.nextInt(4) == 0
                                                        ? -1
                                                        : random.nextDouble() * 3,
                                                0.02,
                                                12.4,
                                                true)));
        // circuits that are drawn came after these figures were recorded
        d.circuits().stream()
                .filter(c -> c.gauges().isEmpty())
                .forEach(
                        c ->
                                c.points().stream()
                                        .filter(p -> p.canBeProbed() && random.nextInt(3) == 0)
                                        .forEach(
                                                p ->
                                                        all.add(
                                                                new Evidence.Reading(
                                                                        c.id(),
                                                                        p.id(),
                                                                        "bulb",
                                                                        List.of(),
                                                                        random.nextDouble() * 12,
                                                                        12.6,
                                                                        true))));
        Map<String, RollCall.Tally> calls = new HashMap<>();
        d.modules()
                .forEach(
                        m ->
                                calls.put(
                                        m.id(),
                                        new RollCall.Tally(
                                                8,
                                                random.nextInt(5) == 0 ? random.nextInt(9) : 8)));
        Set<String> fitted = calls.keySet();
        if (random.nextBoolean()) {
            all.add(new Evidence.Heard(new RollCall(calls, fitted, Set.of()), fitted, false));
        }
        if (!d.suspects().isEmpty()) {
            String some = d.suspects().get(random.nextInt(d.suspects().size())).id();
            all.add(
                    random.nextBoolean()
                            ? new Evidence.RepairFailed(some)
                            : new Evidence.RuledOut(some, "seen"));
        }
        return all;
    }

    private static Map<String, Double> figures(VehicleDescription bare) {
        VehicleDescription d = NetworkSuspects.added(bare);
        Reasoner reasoner = new Reasoner(d);
        Random random = new Random(bare.id().hashCode());
        Map<String, Double> figures = new LinkedHashMap<>();
        for (int i = 0; i < CASES; i++) {
            List<Evidence> found = drawn(d, random);
            String at = i + " ";
            for (Standing s : reasoner.rank(found).standings()) {
                figures.put(at + s.suspectId(), s.sureness());
                s.contributions()
                        .forEach(
                                p ->
                                        figures.merge(
                                                at + s.suspectId() + " pushes",
                                                p.log10Odds(),
                                                Double::sum));
            }
            for (NextCheck c : reasoner.nextChecks(found, 12.4)) {
                figures.put(at + "check " + c.check().id(), c.bits());
            }
        }
        return figures;
    }

    private static Path file(String vehicle) {
        return FOLDER.resolve(vehicle + ".txt");
    }

    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void areAsTheyWere(String vehicle) throws Exception {
        Map<String, Double> now = figures(Vehicles.named(vehicle));
        if (Boolean.getBoolean("rankings.write")) {
            Files.write(
                    file(vehicle),
                    now.entrySet().stream().map(e -> e.getKey() + " = " + e.getValue()).toList());
        }
        Map<String, Double> then =
                Files.readAllLines(file(vehicle)).stream()
                        .map(l -> l.split(" = "))
                        .collect(Collectors.toMap(p -> p[0], p -> Double.valueOf(p[1])));
        assertThat(now.keySet()).hasSizeGreaterThan(20).isEqualTo(then.keySet());
        now.forEach(
                (what, figure) ->
                        assertThat(figure)
                                .as(vehicle + ": " + what)
                                .isCloseTo(
                                        then.get(what),
                                        Assertions.within(EXACT * Math.max(1, Math.abs(figure)))));
    }
}
