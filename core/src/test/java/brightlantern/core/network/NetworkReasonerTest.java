package brightlantern.core.network;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.network.NetworkModel.Kind;
import brightlantern.core.network.RollCall.Miss;
import brightlantern.core.network.RollCall.Tally;
import brightlantern.core.reason.NetworkSuspects;
import brightlantern.core.reason.Ranking;
import brightlantern.core.reason.Reasoner;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Worked examples on the Cairn's four buses. */
class NetworkReasonerTest {
    private static final VehicleDescription CAIRN = Vehicles.named("velmont-cairn");
    private static final NetworkModel MODEL = new NetworkModel(CAIRN.network());
    private static final Set<String> FITTED =
            CAIRN.modules().stream()
                    .filter(m -> m.option().isEmpty())
                    .map(ControlModule::id)
                    .collect(Collectors.toSet());

    private final NetworkReasoner reasoner = new NetworkReasoner(CAIRN.network());

    private static Element element(String id) {
        return MODEL.elements().stream().filter(e -> e.id().equals(id)).findFirst().orElseThrow();
    }

    /** Everybody answers every time, save those named, who answer so often. */
    private static Map<String, Tally> calls(int asked, Map<String, Integer> otherwise) {
        Map<String, Tally> calls = new HashMap<>();
        for (String module : FITTED) {
            if (!module.equals(Network.GATEWAY)) {
                calls.put(module, new Tally(asked, otherwise.getOrDefault(module, asked)));
            }
        }
        return calls;
    }

    private NetworkReasoner.Ranking rank(Map<String, Tally> calls, Set<Miss> misses) {
        Set<String> read =
                calls.entrySet().stream()
                        .filter(c -> c.getValue().answered() > 0)
                        .map(Map.Entry::getKey)
                        .collect(Collectors.toSet());
        return reasoner.rank(new RollCall(calls, read, misses), FITTED);
    }

    @Test
    void aMessageCrossesTheGapsBetweenItsEnds() {
        Element x31 = element("X31");
        assertThat(x31.kind()).isEqualTo(Kind.GAP);
        assertThat(x31.modules())
                .containsExactlyInAnyOrder("park-brake", "air-springs", "rear-axle");
        assertThat(MODEL.link(x31, 0, "brakes", "park-brake")).isZero();
        assertThat(MODEL.link(x31, 0.4, "engine", "air-springs")).isCloseTo(0.4, within(1e-9));
        // both behind the break: only the lost terminating resistor tells
        assertThat(MODEL.link(x31, 0, "park-brake", "rear-axle")).isBetween(0.95, 0.999);
        assertThat(MODEL.link(x31, 0, "engine", "body")).isEqualTo(1);
        assertThat(MODEL.link(element("dead-body"), 0, "body", "engine")).isZero();
        assertThat(MODEL.link(element("short-info"), 0, "audio", "screen")).isZero();
        assertThat(MODEL.link(element("short-info"), 0, "brakes", "engine")).isEqualTo(1);
    }

    @Test
    void threeThatFlickerTogetherHangBehindOneConnector() {
        NetworkReasoner.Ranking ranking =
                rank(
                        calls(40, Map.of("park-brake", 17, "air-springs", 15, "rear-axle", 18)),
                        Set.of());
        assertThat(ranking.lead().id()).isEqualTo("X31");
        assertThat(ranking.lead().sureness()).isGreaterThan(0.95);
        assertThat(ranking.lead().quality()).isBetween(0.2, 0.9);
        assertThat(ranking.lead().reasons())
                .anyMatch(r -> r.startsWith("Would silence Air springs"));
    }

    @Test
    void oneSilentModuleIsDeadAndAllOfABusMeanAShort() {
        assertThat(rank(calls(30, Map.of("steering", 0)), Set.of()).lead().id())
                .isEqualTo("dead-steering");
        Map<String, Integer> info = new HashMap<>();
        CAIRN.onWire("info").forEach(m -> info.put(m.id(), 0));
        assertThat(rank(calls(30, info), Set.of()).lead().id()).isEqualTo("short-info");
    }

    @Test
    void modulesOfOneFuseAreSilentTogetherThoughTheyHangApart() {
        NetworkReasoner.Ranking ranking =
                rank(calls(30, Map.of("park-brake", 0, "air-springs", 0, "tailgate", 0)), Set.of());
        assertThat(ranking.lead().id()).isEqualTo("F31");
        assertThat(ranking.sentence()).contains("Fuse F31").contains("load bay");
    }

    @Test
    void complaintsAloneTellOfAFaultThatComesAndGoes() {
        Element x31 = element("X31");
        Set<Miss> misses = new HashSet<>();
        for (ControlModule listener : CAIRN.modules()) {
            for (String other : listener.watches()) {
                if (FITTED.contains(other)
                        && FITTED.contains(listener.id())
                        && MODEL.link(x31, 0, other, listener.id()) < 0.5) {
                    misses.add(new Miss(listener.id(), other));
                }
            }
        }
        assertThat(misses).hasSizeGreaterThan(5);
        NetworkReasoner.Ranking ranking = rank(calls(2, Map.of()), misses);
        assertThat(ranking.standings().subList(0, 3))
                .extracting(NetworkReasoner.Standing::id)
                .contains("X31");
    }

    @Test
    void aModuleThatAnswersIsNotSaidToBeSilent() {
        Set<Miss> misses =
                CAIRN.modules().stream()
                        .filter(m -> m.watches().contains("steering") && FITTED.contains(m.id()))
                        .map(m -> new Miss(m.id(), "steering"))
                        .collect(Collectors.toSet());
        assertThat(misses).isNotEmpty();
        for (int asked : new int[] {2, 30}) {
            Element now = heard(rank(calls(asked, Map.of()), misses));
            assertThat(now.heardAt()).contains("was silent for a while").doesNotContain("dead");
            Element then = heard(rank(calls(asked, Map.of("steering", 0)), misses));
            assertThat(then.heardAt()).contains("silent: without supply or earth, or dead");
        }
    }

    private static Element heard(NetworkReasoner.Ranking ranking) {
        return ranking.standings().stream()
                .filter(s -> s.id().equals("dead-steering"))
                .findFirst()
                .flatMap(NetworkReasoner.Standing::element)
                .orElseThrow();
    }

    @Test
    void aSoundNetworkIsNotAccusedNorIsWhatIsNotFitted() {
        assertThat(rank(calls(50, Map.of()), Set.of()).lead().id())
                .isEqualTo(NetworkReasoner.NOTHING);
        Map<String, Tally> withAbsent = calls(50, Map.of());
        withAbsent.put("trailer", new Tally(50, 0));
        assertThat(rank(withAbsent, Set.of()).lead().id()).isEqualTo(NetworkReasoner.NOTHING);
    }

    @Test
    void twoFaultsAtOnceAreNotPressedIntoOne() {
        Map<String, Integer> two = new HashMap<>(Map.of("audio", 0, "engine", 20, "tailgate", 31));
        assertThat(rank(calls(40, two), Set.of()).lead().id())
                .isEqualTo(NetworkReasoner.SOMETHING_ELSE);
    }

    @Test
    void surenessAddsUpToOne() {
        double sum =
                rank(calls(10, Map.of("brakes", 3)), Set.of()).standings().stream()
                        .mapToDouble(NetworkReasoner.Standing::sureness)
                        .sum();
        assertThat(sum).isCloseTo(1, within(1e-9));
        assertThatThrownBy(() -> new Tally(3, 4)).hasMessageContaining("Expected 0 to 3 answers");
    }

    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void whatWasHeardMovesTheSuspectsOfTheWire(String vehicle) {
        VehicleDescription bare = Vehicles.named(vehicle);
        VehicleDescription d = NetworkSuspects.added(bare);
        Reasoner weigher = new Reasoner(d);
        Set<String> has =
                d.modules().stream()
                        .filter(m -> m.option().isEmpty())
                        .map(ControlModule::id)
                        .collect(Collectors.toSet());
        String victim = d.onWire(d.buses().get(0).id()).get(1).id();
        Map<String, Tally> calls = new HashMap<>();
        has.stream()
                .filter(m -> !m.equals(Network.GATEWAY))
                .forEach(m -> calls.put(m, new Tally(30, m.equals(victim) ? 0 : 30)));
        Set<String> read = new HashSet<>(has);
        read.remove(victim);
        Set<Miss> misses = new HashSet<>();
        d.modules().stream()
                .filter(m -> m.watches().contains(victim) && has.contains(m.id()))
                .forEach(m -> misses.add(new Miss(m.id(), victim)));
        Ranking ranking =
                weigher.rank(
                        List.of(new Evidence.Heard(new RollCall(calls, read, misses), has, false)));
        assertThat(ranking.lead().suspectId()).isEqualTo("wire-dead-" + victim);
        Ranking sound =
                weigher.rank(
                        List.of(
                                new Evidence.Heard(
                                        new RollCall(
                                                calls.keySet().stream()
                                                        .collect(
                                                                Collectors.toMap(
                                                                        m -> m,
                                                                        m -> new Tally(30, 30))),
                                                has,
                                                Set.of()),
                                        has,
                                        true)));
        assertThat(sound.accused()).isEmpty();
        assertThat(weigher.nextChecks(List.of(), 12.4))
                .extracting(n -> n.check().key())
                .contains("network");
    }
}
