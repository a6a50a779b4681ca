package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.circuit.Fault;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Two parts of a vehicle are broken; the one is named and mended, then the other. */
class TwoFaultsTest {
    private static final int MOST_DRAWS = 200;

    static Stream<String> vehicles() {
        return Stream.of("oriel-heron", "stonebarrow-wl9", "velmont-cairn");
    }

    /** Breaks a part of another circuit than those of which something is told already. */
    private static Suspect broken(World world, List<Suspect> drawn, Random random) {
        Set<String> before = world.wrong();
        for (int i = 0; i < MOST_DRAWS; i++) {
            Suspect s = World.drawn(drawn, random);
            Effect.Series effect = (Effect.Series) s.effect().orElseThrow();
            world.faults.add(new Fault.Series(effect.of(), Fault.Series.OPEN_OHM));
            Set<String> now = world.wrong();
            if (now.containsAll(before) && now.size() == before.size() + 1) {
                return s;
            }
            world.faults.remove(world.faults.size() - 1);
        }
        throw new IllegalStateException("Nothing else breaks in " + world.d.id());
    }

    /** One is named and mended, what is left is looked for without beginning anew. */
    @ParameterizedTest
    @MethodSource("vehicles")
    void ofTwoFaultsTheSecondIsFoundWhenTheFirstIsMended(String id) {
        VehicleDescription d = Vehicles.derived(id);
        Reasoners reasoners = new Reasoners(d);
        List<Suspect> drawn =
                d.suspects().stream()
                        .filter(Reasoners::isDerived)
                        .filter(s -> s.effect().orElse(null) instanceof Effect.Series)
                        .toList();
        Random random = new Random(7 + id.hashCode());
        World world = new World(d, Optional.empty(), random);
        Set<String> left = new HashSet<>();
        for (int i = 0; i < 2; i++) {
            left.add(((Effect.Series) broken(world, drawn, random).effect().orElseThrow()).of());
        }
        List<Evidence> found = new ArrayList<>(world.noticed());
        String story = id + " " + left;
        for (int i = 0; i < 2; i++) {
            World.Ended ended = World.follow(world, reasoners, found);
            story += ": " + ended.ranking().sentence();
            Standing named = ended.ranking().lead();
            assertThat(ended.ranking().sureness()).as(story).isGreaterThan(Ranking.POINTED_AT);
            Set<String> places = d.wiring().alike(World.partOf(d, named.suspectId()));
            assertThat(left.removeIf(places::contains)).as(story).isTrue();
            world.faults.removeIf(f -> places.contains(f.part()));
            Remaining after =
                    reasoners
                            .of(ended.found())
                            .remaining(
                                    ended.found(),
                                    named.suspectId(),
                                    World.shown(world, ended),
                                    World.SUPPLY);
            // the last doubt may want one more check, and names it
            assertThat(after.chance())
                    .as(story + after)
                    .matches(c -> left.isEmpty() ? c < 0.05 : !after.isLittle());
            found = new ArrayList<>(ended.found());
            found.add(new Evidence.RepairFailed(named.suspectId()));
            found.addAll(world.again(ended.found()));
            found.addAll(world.codes());
        }
        assertThat(left).isEmpty();
        assertThat(world.wrong()).isEmpty();
    }

    /** Neither of them alone leaves the feed that they share without any current. */
    @Test
    void bothBulbsOfOneFeedAreNamed() {
        VehicleDescription d = Vehicles.derived("velmont-cairn");
        World world = new World(d, Optional.empty(), new Random(11));
        List<String> bulbs = List.of("high-left", "high-right");
        bulbs.forEach(b -> world.faults.add(new Fault.Series(b, Fault.Series.OPEN_OHM)));
        World.Ended ended = World.follow(world, new Reasoners(d), world.noticed());
        assertThat(ended.ranking().two()).as(ended.ranking().sentence()).isGreaterThan(0.8);
        assertThat(ended.ranking().standings().subList(0, 2))
                .extracting(s -> World.partOf(d, s.suspectId()))
                .containsExactlyInAnyOrderElementsOf(bulbs);
    }

    /**
     * A contact that nobody listed is open at the starter: a relay with too much resistance and an
     * open earth would each explain some of the readings, and together none of them.
     */
    @Test
    void whatTwoNeverShowTogetherIsNotTheirs() {
        VehicleDescription d = Vehicles.derived("stonebarrow-wl9");
        String contact = "C-X82.1";
        Fault open = new Fault.Series(contact, Fault.Series.OPEN_OHM);
        World world = new World(d, Optional.of(open), new Random(5));
        Set<String> withheld = d.wiring().alike(contact);
        List<Suspect> listed =
                d.suspects().stream()
                        .filter(s -> !withheld.contains(World.partOf(d, s.id())))
                        .toList();
        Reasoners reasoners = new Reasoners(d.withOnly(listed, d.checks()));
        World.Ended ended = World.follow(world, reasoners, world.noticed());
        assertThat(ended.ranking().two()).as(ended.ranking().sentence()).isLessThan(0.2);
        assertThat(ended.ranking().accused()).as(ended.ranking().sentence()).isEmpty();
    }
}
