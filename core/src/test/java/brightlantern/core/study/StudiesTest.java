package brightlantern.core.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.filter.FilterParser;
import brightlantern.core.filter.Stretch;
import brightlantern.core.study.map.Axis;
import brightlantern.core.study.map.MapCsv;
import brightlantern.core.study.map.OperatingMap;
import brightlantern.core.study.overlay.Overlay;
import brightlantern.core.study.reaction.ReactionCheck;
import brightlantern.core.study.scatter.Scatter;
import brightlantern.core.study.steps.SteppedExperiment;
import brightlantern.core.take.Columns;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.Vehicles;
import java.io.StringReader;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Studies on takes, by worked examples. */
class StudiesTest {
    private static double[] d(double... values) {
        return values;
    }

    @Nested
    class Maps {
        private final Axis x = new Axis("x", d(0, 10, 20));
        private final Axis y = new Axis("y", d(0, 10));

        private OperatingMap map(double... z) {
            // in and out of the left cell three times, two samples each; the right one between
            double[] xs = d(1, 2, 15, 3, 4, 15, 5, 6);
            return OperatingMap.of(
                    "z", x, y, List.of(new OperatingMap.Drive(xs, d(5, 5, 5, 5, 5, 5, 5, 5), z)));
        }

        @Test
        void aCellTellsMeanSpreadAndHowSureItIs() {
            OperatingMap map = map(10, 12, 50, 14, 16, 60, 18, 20);
            OperatingMap.Cell left = map.cell(0, 0);
            assertThat(left.samples()).isEqualTo(6);
            assertThat(left.visits()).isEqualTo(3);
            assertThat(left.mean()).isEqualTo(15);
            assertThat(left.atX()).isEqualTo(3.5);
            assertThat(left.spread()).isCloseTo(Math.sqrt(35 / 3.0), within(1e-9));
            // visits average 11, 15, 19: standard error 4/√3, t(0.975; 2) = 4.3027
            assertThat(left.within()).isCloseTo(4.3027 * 4 / Math.sqrt(3), within(1e-3));
            assertThat(left.thin()).isFalse();
            assertThat(map.cell(1, 0).thin()).isTrue();
            assertThat(map.path()).hasSize(5);
        }

        @Test
        void whatLiesOutsideOrIsNoNumberCountsNowhere() {
            OperatingMap map =
                    OperatingMap.of(
                            "z",
                            x,
                            y,
                            List.of(
                                    new OperatingMap.Drive(
                                            d(-1, 20, 5, Double.NaN, 5),
                                            d(5, 5, 10, 5, 5),
                                            d(1, 2, 3, 4, Double.POSITIVE_INFINITY))));
            assertThat(map.samples()).isZero();
            assertThat(map.cell(0, 0).mean()).isNaN();
        }

        @Test
        void twoMapsSubtractAndOnlyRealDifferencesCount() {
            OperatingMap before = map(10, 12, 50, 14, 16, 60, 18, 20);
            OperatingMap after = map(40, 42, 50, 44, 46, 61, 48, 50);
            OperatingMap.Difference left = after.minus(before, 0, 0).orElseThrow();
            assertThat(left.by()).isEqualTo(30);
            assertThat(left.significant()).isTrue();
            assertThat(after.minus(before, 1, 0).orElseThrow().significant()).isFalse();
            OperatingMap other = OperatingMap.of("z", new Axis("x", d(0, 5)), y, List.of());
            assertThatThrownBy(() -> after.minus(other, 0, 0))
                    .hasMessageContaining("breakpoints differ");
        }

        @Test
        void aMapLeavesAndComesBackAsCsv() {
            OperatingMap map = map(10, 12, 50, 14, 16, 60, 18, 20);
            StringWriter out = new StringWriter();
            MapCsv.write(map, out);
            OperatingMap back = MapCsv.read(new StringReader(out.toString()));
            assertThat(back.x()).isEqualTo(map.x());
            assertThat(back.cell(0, 0).mean()).isEqualTo(15);
            assertThat(back.cell(1, 0).visits()).isEqualTo(2);
            assertThat(back.minus(map, 0, 0).orElseThrow().by()).isZero();
            assertThatThrownBy(() -> MapCsv.read(new StringReader("a,b\n1,2\n")))
                    .hasMessageContaining("Line 1");
            String broken = out.toString().replaceFirst("15\\.0", "oops");
            assertThatThrownBy(() -> MapCsv.read(new StringReader(broken)))
                    .hasMessageContaining("mean: expected a number, found 'oops'");
        }

        @Test
        void aKeptMapDoesNotDifferFromItself() {
            // every visit alike: no scatter behind which a rounded number could hide
            double third = 100.0 / 3;
            OperatingMap map = map(third, third, 50, third, third, 60, third, third);
            StringWriter out = new StringWriter();
            MapCsv.write(map, out);
            OperatingMap.Difference same =
                    map.minus(MapCsv.read(new StringReader(out.toString())), 0, 0).orElseThrow();
            assertThat(same.by()).isZero();
            assertThat(same.significant()).isFalse();
            double near = third + 1e-12;
            OperatingMap summedElse = map(near, near, 50, near, near, 60, near, near);
            assertThat(map.minus(summedElse, 0, 0).orElseThrow().significant()).isFalse();
            OperatingMap other = map(34, 34, 50, 34, 34, 60, 34, 34);
            assertThat(other.minus(map, 0, 0).orElseThrow().significant()).isTrue();
        }

        @Test
        void breakpointsAreTypedOrLaidOverTheData() {
            assertThat(Axis.typed("x", "0, 5; 10").edges()).containsExactly(0, 5, 10);
            assertThatThrownBy(() -> Axis.typed("x", "0 five 10"))
                    .hasMessageContaining("Breakpoint 2: expected a number, found 'five'");
            assertThatThrownBy(() -> Axis.typed("x", "0 10 5"))
                    .hasMessageContaining("Breakpoint 3");
            assertThatThrownBy(() -> Axis.over("x", d(Double.NaN), 5))
                    .hasMessageContaining("No number");
            Axis over = Axis.over("x", d(812, 3950, Double.NaN), 8);
            assertThat(over.edges()[0]).isLessThanOrEqualTo(812);
            assertThat(over.cell(3950)).isEqualTo(over.cells() - 1);
        }

        /** In 95 of 100 cases the true mean lies within what the cell says of itself. */
        @Test
        void theConfidenceIsWhatItSays() {
            Random random = new Random(4);
            int right = 0;
            int tried = 400;
            for (int i = 0; i < tried; i++) {
                List<OperatingMap.Drive> drives = new ArrayList<>();
                for (int visit = 0; visit < 6; visit++) {
                    double common = random.nextGaussian();
                    double[] z = new double[20];
                    Arrays.setAll(z, k -> 7 + common + 0.1 * random.nextGaussian());
                    double[] at = new double[20];
                    Arrays.fill(at, 5);
                    drives.add(new OperatingMap.Drive(at, at, z));
                }
                OperatingMap.Cell cell = OperatingMap.of("z", x, y, drives).cell(0, 0);
                right += Math.abs(cell.mean() - 7) <= cell.within() ? 1 : 0;
            }
            assertThat(right / (double) tried).isBetween(0.92, 0.98);
        }
    }

    @Nested
    class Scatters {
        private final Take take =
                new Take(
                        Map.of(
                                "engine.load", Columns.of(20, t -> 5 * t),
                                "engine.speed", Columns.of(20, t -> 800 + 100 * t),
                                "coolant", Columns.of(10, t -> 60 + t)),
                        List.of());

        @Test
        void theLineIsTheOneThatIsThere() throws Exception {
            Scatter scatter =
                    Scatter.of(
                            List.of(take),
                            "engine.load",
                            "engine.speed",
                            "coolant",
                            Optional.empty());
            assertThat(scatter.all()).isEqualTo(200);
            assertThat(scatter.line().orElseThrow().slope()).isCloseTo(20, within(1e-6));
            assertThat(scatter.line().orElseThrow().share()).isCloseTo(1, within(1e-9));
            // the third value ends at 10 s: what is older than a second is not taken for present
            assertThat(scatter.points().get(120).colour()).isNaN();
            Scatter some =
                    Scatter.of(
                            List.of(take),
                            "engine.load",
                            "engine.speed",
                            "",
                            Optional.of(
                                    FilterParser.parse(
                                            "engine.load > 50 %", Vehicles.portage().signals())));
            assertThat(some.all()).isLessThan(100);
            assertThat(some.points()).allSatisfy(p -> assertThat(p.x()).isGreaterThan(50));
        }

        @Test
        void manyTakesAreOneCloud() {
            Take steeper =
                    new Take(
                            Map.of(
                                    "engine.load", Columns.of(20, t -> 5 * t),
                                    "engine.speed", Columns.of(20, t -> 800 + 200 * t)),
                            List.of());
            Scatter both =
                    Scatter.of(
                            List.of(take, steeper),
                            "engine.load",
                            "engine.speed",
                            "",
                            Optional.empty());
            assertThat(both.all()).isEqualTo(400);
            // as many samples of each: the line runs in the middle of 20 and 40
            assertThat(both.line().orElseThrow().slope()).isCloseTo(30, within(1e-6));
            assertThat(both.line().orElseThrow().share()).isBetween(0.5, 0.99);
        }

        @Test
        void whatTheTakeLacksIsNamed() {
            assertThatThrownBy(
                            () ->
                                    Scatter.of(
                                            List.of(take),
                                            "gear",
                                            "engine.speed",
                                            "",
                                            Optional.empty()))
                    .hasMessageContaining("does not hold 'gear'");
        }
    }

    @Nested
    class Steps {
        @Test
        void aLineThroughSettledReadingsTellsSlopeAndWhereItLeavesItsBand() {
            List<SteppedExperiment.Reading> readings = new ArrayList<>();
            double[] noise = d(0.1, -0.1, 0.05, -0.05);
            for (int i = 0; i < 4; i++) {
                readings.add(
                        new SteppedExperiment.Reading(10 * i, 2 * 10 * i + 5 + noise[i], 0.1, 20));
            }
            SteppedExperiment experiment = SteppedExperiment.of(readings);
            SteppedExperiment.Fit fit = experiment.fit().orElseThrow();
            assertThat(fit.slope()).isCloseTo(2, within(0.01));
            assertThat(fit.intercept()).isCloseTo(5, within(0.1));
            assertThat(fit.crosses(45)).isCloseTo(20, within(0.1));
            assertThat(experiment.sentence(Double.NaN, 45, "%", "rpm"))
                    .contains(" rpm for each % of the input", "rises above 45 rpm at an input of ");
        }

        @Test
        void whatStillMovesIsNotTaken() {
            SteppedExperiment.Settling settling = new SteppedExperiment.Settling(4, 0.5);
            Take.Column moving = Columns.of(10, t -> 3 * t);
            assertThat(SteppedExperiment.read(moving, 9, 1, settling).reading()).isEmpty();
            assertThat(SteppedExperiment.read(moving, 9, 1, settling).why())
                    .startsWith("Still moving: +6");
            Take.Column still = Columns.of(10, t -> 7);
            assertThat(
                            SteppedExperiment.read(still, 9, 1, settling)
                                    .reading()
                                    .orElseThrow()
                                    .answer())
                    .isEqualTo(7);
            assertThat(SteppedExperiment.read(still, 60, 1, settling).why())
                    .contains("wait until there are more");
        }

        @Test
        void fewOrLikeReadingsSayWhatIsMissing() {
            assertThat(SteppedExperiment.of(List.of()).sentence(0, 1, "", ""))
                    .contains("Two readings");
            SteppedExperiment.Reading one = new SteppedExperiment.Reading(5, 1, 0, 9);
            assertThat(SteppedExperiment.of(List.of(one, one)).sentence(0, 1, "", ""))
                    .contains("set another one");
            assertThatThrownBy(() -> new SteppedExperiment.Settling(0, 1))
                    .hasMessageContaining("above zero");
        }
    }

    @Nested
    class Overlays {
        private Take pull(double startsAt, double boost) {
            return new Take(
                    Map.of(
                            "speed", Columns.of(30, t -> 1000 + 100 * Math.max(0, t - startsAt)),
                            "boost",
                                    Columns.of(30, t -> boost + (t > startsAt ? t - startsAt : 0))),
                    List.of());
        }

        @ParameterizedTest
        @CsvSource({"'', 0.5", "speed, 50"})
        void theSameStretchIsComparedWhereverItBegan(String along, double bin) {
            Overlay overlay =
                    Overlay.of(
                                    pull(3, 100),
                                    new Stretch(3, 13),
                                    pull(8, 92),
                                    new Stretch(8, 18),
                                    "boost",
                                    along,
                                    bin)
                            .orElseThrow();
            assertThat(overlay.meanDifference()).isCloseTo(-8, within(0.2));
            assertThat(overlay.bins()).hasSizeGreaterThan(15);
        }

        @Test
        void nothingInCommonIsSaid() {
            assertThat(
                            Overlay.of(
                                    pull(3, 100),
                                    new Stretch(3, 5),
                                    pull(8, 92),
                                    new Stretch(28, 29),
                                    "boost",
                                    "speed",
                                    10))
                    .isEmpty();
        }
    }

    @Nested
    class Reactions {
        private Take take(DoubleUnaryOperator answer) {
            Random random = new Random(1);
            return new Take(
                    Map.of(
                            "command", Columns.of(60, t -> t % 20 > 10 ? 80 : 20),
                            "answer",
                                    Columns.of(
                                            60,
                                            t ->
                                                    answer.applyAsDouble(t)
                                                            + 0.05 * random.nextGaussian())),
                    List.of());
        }

        @Test
        void delayDirectionAndSizeAreFound() {
            ReactionCheck.Verdict same =
                    ReactionCheck.check(
                            take(t -> (t - 0.6) % 20 > 10 ? 30 : 10), "command", "answer");
            assertThat(same.outcome()).isEqualTo("reacts");
            assertThat(same.delay()).isCloseTo(0.6, within(0.25));
            assertThat(same.gain()).isCloseTo(20 / 60.0, within(0.02));
            assertThat(same.sentence()).contains("the same way");
            ReactionCheck.Verdict other =
                    ReactionCheck.check(take(t -> t % 20 > 10 ? -5 : 5), "command", "answer");
            assertThat(other.gain()).isNegative();
            assertThat(other.sentence()).contains("the other way");
        }

        @Test
        void whatAControlLoopDoesIsNoStep() {
            // wanders by its whole range within seconds, and the answer follows at once
            DoubleUnaryOperator loop = t -> 50 + 10 * Math.sin(0.9 * t) + 6 * Math.sin(2.3 * t);
            Take wandering =
                    new Take(
                            Map.of(
                                    "command", Columns.of(60, loop),
                                    "answer", Columns.of(60, t -> loop.applyAsDouble(t - 0.3))),
                            List.of());
            assertThat(ReactionCheck.check(wandering, "command", "answer").outcome())
                    .isEqualTo("no-step");
        }

        @Test
        void whatDoesNotMoveOrIsNotAskedToIsToldApart() {
            assertThat(ReactionCheck.check(take(t -> 7), "command", "answer").outcome())
                    .isEqualTo("none");
            Take level =
                    new Take(
                            Map.of(
                                    "command",
                                    Columns.of(60, t -> 50),
                                    "answer",
                                    Columns.of(60, t -> t)),
                            List.of());
            assertThat(ReactionCheck.check(level, "command", "answer").outcome())
                    .isEqualTo("no-step");
            assertThat(
                            ReactionCheck.check(
                                            take(t -> t > 25 ? t % 20 > 10 ? 30 : 10 : 10),
                                            "command",
                                            "answer")
                                    .outcome())
                    .isEqualTo("unsteady");
        }
    }
}
