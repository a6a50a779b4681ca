package brightlantern.standin.plant;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.standin.StandIns;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;

/** Parts by themselves: what they do when a module takes them over, is erased, or is told anew. */
class PartsTest {
    private static final double STEP = 0.01;

    /** A vehicle that stands still with what a test wants. */
    private static final class Standing implements Whole {
        private Driver driver = Driver.away().key(2);
        private boolean running;

        @Override
        public Driver driver() {
            return driver;
        }

        @Override
        public double seconds() {
            return 0;
        }

        @Override
        public boolean running() {
            return running;
        }

        @Override
        public boolean cranking() {
            return false;
        }

        @Override
        public double rpm() {
            return running ? 800 : 0;
        }

        @Override
        public double kilometresPerHour() {
            return 0;
        }

        @Override
        public double coolant() {
            return 20;
        }

        @Override
        public double volts() {
            return 12.5;
        }

        @Override
        public double load() {
            return running ? 0.03 : 0;
        }
    }

    private final Standing whole = new Standing();

    private void live(Part part, double seconds) {
        for (double t = 0; t < seconds; t += STEP) {
            part.step(whole, STEP);
        }
    }

    private static double reads(Part part, String value) {
        return part.sensors().get(value).getAsDouble();
    }

    private static Part.Memory memory(Part part, int did) {
        return part.memories().stream().filter(m -> m.did() == did).findFirst().orElseThrow();
    }

    @Nested
    class Outlets {
        @Test
        void theFeedPumpIsTakenOverAndGivenBack() {
            InjectionRail rail = new InjectionRail(StandIns.engine("oriel-finch"), 1);
            live(rail, 3);
            assertThat(reads(rail, "feed.pressure")).isCloseTo(420, within(10.0));
            assertThat(reads(rail, "feed.current")).isBetween(4.0, 8.0);
            Part.Outlet outlet = rail.outlets().get(0);
            assertThat(outlet.allowed().getAsBoolean()).isTrue();
            outlet.take().accept(OptionalDouble.of(0));
            live(rail, 3);
            assertThat(reads(rail, "feed.pressure")).isLessThan(10);
            assertThat(reads(rail, "feed.current")).isLessThan(0.3);
            outlet.take().accept(OptionalDouble.empty());
            live(rail, 3);
            assertThat(reads(rail, "feed.pressure")).isCloseTo(420, within(10.0));
        }

        @Test
        void nothingMovesWithoutTheKeyAndNothingMayBeTakenWhileTheEngineRuns() {
            Warmth warmth = new Warmth(StandIns.engine("oriel-finch"), 0);
            Part.Outlet fan = warmth.outlets().get(0);
            fan.take().accept(OptionalDouble.of(80));
            live(warmth, 6);
            assertThat(reads(warmth, "fan.speed")).isBetween(1500.0, 2200.0);
            assertThat(reads(warmth, "fan.current")).isBetween(8.0, 25.0);
            whole.running = true;
            live(warmth, 1);
            assertThat(fan.allowed().getAsBoolean()).isFalse();
        }

        @Test
        void theFlapFollowsWhoeverCommands() {
            AirPath air = new AirPath(StandIns.engine("oriel-finch"), 1);
            live(air, 1);
            double own = reads(air, "throttle.actual");
            Part.Outlet flap = air.outlets().get(0);
            flap.take().accept(OptionalDouble.of(70));
            live(air, 1);
            assertThat(reads(air, "throttle.target")).isEqualTo(70);
            assertThat(reads(air, "throttle.actual")).isCloseTo(70, within(1.0));
            flap.take().accept(OptionalDouble.empty());
            live(air, 1);
            assertThat(reads(air, "throttle.actual")).isCloseTo(own, within(1.0));
        }
    }

    @Nested
    class Springs {
        private final AtomicBoolean hears = new AtomicBoolean(true);

        private Part.Doing levelling(AirSprings springs) {
            return springs.doings().values().iterator().next();
        }

        @Test
        void levellingGoesDownAndUpAndTellsHowFarItIs() {
            AirSprings springs = new AirSprings(hears::get);
            whole.running = true;
            live(springs, 2);
            assertThat(levelling(springs).result()).containsExactly(0);
            assertThat(levelling(springs).start()).isZero();
            double least = 999;
            for (int i = 0; i < 120 && levelling(springs).result()[0] != 2; i++) {
                live(springs, 1);
                least = Math.min(least, reads(springs, "height.front-left"));
            }
            assertThat(levelling(springs).result()).containsExactly(2);
            assertThat(least).isLessThan(105);
            for (String corner : List.of("front-left", "front-right", "rear-left", "rear-right")) {
                assertThat(reads(springs, "height." + corner)).isCloseTo(120, within(3.0));
            }
        }

        @Test
        void whoHearsNothingRefusesAndStaysLow() {
            AirSprings springs = new AirSprings(hears::get);
            springs.fail("rear-low", "", 110);
            hears.set(false);
            whole.running = true;
            live(springs, 30);
            assertThat(levelling(springs).start()).isEqualTo(0x22);
            assertThat(reads(springs, "height.rear-left")).isLessThan(100);
            hears.set(true);
            assertThat(levelling(springs).start()).isZero();
            levelling(springs).stop();
            live(springs, 60);
            assertThat(reads(springs, "height.rear-left")).isCloseTo(120, within(3.0));
        }
    }

    @Nested
    class Boards {
        private final String vin = "ZZTPG22D2M1000417";
        private final TrailerBoard board = new TrailerBoard(vin);

        private int[] check() {
            Part.Doing check = board.doings().get(0x0202);
            assertThat(check.start()).isZero();
            return check.result();
        }

        private List<String> codes() {
            List<String> failing = new ArrayList<>();
            board.watch(
                    1,
                    (module, code, failed) -> {
                        if (failed) {
                            failing.add(module + " " + code);
                        }
                    });
            return failing;
        }

        @Test
        void aNewOneKnowsNothingUntilItIsToldAndFindsThePlugThatWasLeftOff() {
            assertThat(check()).containsExactly(0);
            assertThat(codes()).isEmpty();
            board.act("swap-trailer");
            assertThat(check()).containsExactly(2);
            assertThat(codes()).containsExactly("trailer B2A10-55");
            assertThat(memory(board, 0xF190).read().get()).containsOnly(0xFF);
            assertThat(memory(board, 0xF190).write().applyAsInt(vin.chars().toArray())).isZero();
            assertThat(memory(board, 0x0610).write().applyAsInt(new int[] {5})).isZero();
            assertThat(check()).as("lamps are missing").containsExactly(2);
            assertThat(memory(board, 0x0611).write().applyAsInt(new int[] {1})).isZero();
            assertThat(check()).containsExactly(1);
            board.act("plug-trailer");
            assertThat(check()).containsExactly(0);
            assertThat(codes()).isEmpty();
        }

        @Test
        void whatDoesNotFitIsRefusedAndChangesNothing() {
            int[] before = memory(board, 0x0610).read().get();
            assertThat(memory(board, 0x0610).write().applyAsInt(new int[] {0x40})).isEqualTo(0x31);
            assertThat(memory(board, 0x0610).write().applyAsInt(new int[] {1, 2})).isEqualTo(0x31);
            assertThat(memory(board, 0xF190).write().applyAsInt(new int[3])).isEqualTo(0x31);
            assertThat(memory(board, 0x0610).read().get()).isEqualTo(before);
            assertThat(board.doings().get(0xFF00).start()).isZero();
            assertThat(memory(board, 0x0612).read().get()).containsExactly(0xFF);
        }

        @Test
        void trimCodesAreKeptAndNotTakenWhileTheEngineTurns() {
            TrimMemory trims = new TrimMemory(4, 9);
            assertThat(trims.memories()).hasSize(4);
            Part.Memory second = trims.memories().get(1);
            live(trims, 0.1);
            assertThat(second.write().applyAsInt(new int[] {0, 0, 1, 2})).isZero();
            assertThat(second.read().get()).containsExactly(0, 0, 1, 2);
            assertThat(second.write().applyAsInt(new int[] {0xFF, 0, 0, 0})).isEqualTo(0x31);
            assertThat(second.write().applyAsInt(new int[] {1})).isEqualTo(0x31);
            whole.running = true;
            live(trims, 0.1);
            assertThat(second.write().applyAsInt(new int[] {0, 0, 0, 1})).isEqualTo(0x22);
            assertThat(second.read().get()).containsExactly(0, 0, 1, 2);
        }
    }
}
