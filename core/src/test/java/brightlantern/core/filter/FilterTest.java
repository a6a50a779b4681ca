package brightlantern.core.filter;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.Noise;
import brightlantern.core.filter.Filter.State;
import brightlantern.core.take.Columns;
import brightlantern.core.take.Span;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FilterTest {
    private static final VehicleDescription PORTAGE = Vehicles.portage();

    /** Twenty seconds: coolant rises through 70 °C at 10 s; speed steady but for 4 s to 6 s. */
    private static Take take() {
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        columns.put("coolant", Columns.of(20, t -> 60 + t));
        columns.put(
                "engine.speed",
                Columns.of(20, t -> t > 4 && t < 6 ? 1000 + 400 * (t - 4) : t < 5 ? 1000 : 1800));
        columns.put("boost.target", Columns.of(20, t -> 2000));
        columns.put("body.key", Columns.of(20, t -> 2));
        columns.put("boost.actual", Columns.of(20, t -> t < 15 ? Double.NaN : 150));
        return new Take(columns, List.of());
    }

    private static State at(String text, double seconds) throws FilterException {
        double[] times = new double[200];
        for (int i = 0; i < 200; i++) {
            times[i] = i / 10.0;
        }
        return FilterParser.parse(text, PORTAGE.signals())
                .over(take(), times)[(int) Math.round(seconds * 10)];
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "coolant > 70 °C | 9 | FAILS",
                "coolant > 70 °C | 11 | HOLDS",
                "coolant > 340 K | 6 | FAILS",
                "coolant > 340 K | 8 | HOLDS",
                "boost.target = 200 kPa | 1 | HOLDS",
                "boost.target between 1,9 and 2.1 bar | 1 | HOLDS",
                "not coolant > 70 | 9 | HOLDS",
                "key is on | 3 | HOLDS",
                "body.key != off | 3 | HOLDS",
                "\"Coolant temperature\" <= 70 | 3 | HOLDS",
                "coolant rising for 4 s | 12 | HOLDS",
                "coolant rising for 2 s | 12 | FAILS",
                "coolant falling | 12 | FAILS",
                "coolant rising by 4 °C within 5 s | 12 | HOLDS",
                "coolant rising by 4 K within 5 s | 12 | HOLDS",
                "coolant rising by 6 within 5 s | 12 | FAILS",
                "coolant rising by 4 within 5 s | 0.1 | FAILS",
                "coolant falling by 1 °C within 9 s | 12 | FAILS",
                "engine.speed rising by 500 rpm within 2 s | 5.8 | HOLDS",
                "not engine.speed rising by 500 rpm within 2 s | 3 | HOLDS",
                "boost.actual rising by 1 kPa within 2 s | 3 | UNKNOWN",
                "engine.speed steady for 1 s | 3 | HOLDS",
                "engine.speed steady for 1 s | 5 | FAILS",
                "engine.speed steady for 1 s | 0.5 | UNKNOWN",
                "coolant > 70 for 5 s | 12 | FAILS",
                "coolant > 70 for 5 s | 16 | HOLDS",
                "boost.actual > 100 | 3 | UNKNOWN",
                "not boost.actual > 100 | 3 | UNKNOWN",
                "boost.actual > 100 or key is on | 3 | HOLDS",
                "boost.actual > 100 and key is off | 3 | FAILS",
                "(coolant > 70 or coolant < 65) and key is on | 3 | HOLDS",
                "coolant > 70 or coolant < 65 and key is off | 3 | FAILS"
            })
    void conditionsHoldOrFailOrAreNotKnown(String text, double seconds, State expected)
            throws FilterException {
        assertThat(at(text, seconds)).as(text).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "colant > 70 | 0 | a value of this vehicle",
                "coolant > | 9 | expected a number, found the end",
                "coolant > 70 bar | 13 | measured in °C, not in bar",
                "coolant > 70 and | 16 | expected a value, found the end",
                "(coolant > 70 | 13 | expected ')'",
                "coolant 70 | 8 | expected a sign",
                "coolant rising by 0 °C within 5 s | 18 | more than nothing",
                "coolant rising by 5 °C | 22 | expected 'within'",
                "coolant rising by 5 bar within 5 s | 20 | not in bar",
                "coolant > 70 coolant | 13 | measured in °C, not in coolant",
                "key is open | 7 | one of",
                "coolant is on | 11 | is a number",
                "coolant > 70 for 0 s | 17 | more than nothing",
                "coolant > 70 for 3 min | 19 | 's', for seconds",
                "\"coolant > 70 | 0 | not closed",
                "coolant => 70 | 9 | expected a number",
                "coolant ! 70 | 8 | one of <, <=",
                "coolant > 7.0.0.1 | 10 | expected a number"
            })
    void mistakesAreShownWhereTheyStand(String text, int position, String words) {
        assertThatThrownBy(() -> FilterParser.parse(text, PORTAGE.signals()))
                .isInstanceOfSatisfying(
                        FilterException.class,
                        e -> {
                            assertThat(e).hasMessageContaining(words);
                            assertThat(e.position()).isEqualTo(position);
                            assertThat(e.shownIn(text).lines().toList().get(1))
                                    .startsWith(" ".repeat(position) + "^");
                        });
    }

    @Test
    void aNameThatFitsSeveralValuesIsToldWithThem() {
        assertThatThrownBy(() -> FilterParser.parse("supply > 12", PORTAGE.signals()))
                .hasMessageContaining("engine.supply or body.supply");
    }

    @Test
    void endlessNestingIsTurnedDown() {
        assertThatThrownBy(
                        () ->
                                FilterParser.parse(
                                        "(".repeat(5000) + "coolant > 1", PORTAGE.signals()))
                .isInstanceOf(FilterException.class)
                .hasMessageContaining("levels");
        assertThatThrownBy(
                        () ->
                                FilterParser.parse(
                                        "not ".repeat(5000) + "coolant > 1", PORTAGE.signals()))
                .isInstanceOf(FilterException.class);
    }

    @RepeatedTest(2000)
    void noTextDoesMoreThanBeTurnedDown(RepetitionInfo nth) {
        String text =
                Noise.text(
                        new Random(nth.getCurrentRepetition()),
                        "coolant",
                        "engine.speed",
                        ">",
                        "<=",
                        "is",
                        "not",
                        "and",
                        "or",
                        "for",
                        "(",
                        ")",
                        "70",
                        "°C",
                        "s",
                        "\"",
                        " ",
                        "rising",
                        "max");
        try {
            assertThat(FilterParser.parse(text, PORTAGE.signals()).values()).isNotEmpty();
        } catch (FilterException named) {
            assertThat(named.position()).isBetween(0, text.length());
        }
    }

    @Test
    void stretchesOfAFilterAndWhatTheValuesDidInThem() throws FilterException {
        Take take = take();
        Filter warm =
                FilterParser.parse("coolant > 70 °C and engine.speed > 1500", PORTAGE.signals());
        List<Stretch> found = Stretch.find(take, warm, take.columns().get("engine.speed"), 0.5);
        assertThat(found).hasSize(1);
        assertThat(found.get(0).from()).isCloseTo(10.1, within(1e-9));
        assertThat(warm.values()).containsExactlyInAnyOrder("coolant", "engine.speed");
        Span coolant = Span.of(take.columns().get("coolant"), 11, 13);
        assertThat(coolant.least()).isCloseTo(71, within(1e-9));
        assertThat(coolant.most()).isCloseTo(73, within(1e-9));
        assertThat(coolant.mean()).isCloseTo(72, within(0.1));
        assertThat(coolant.samples()).isEqualTo(21);
        assertThat(Span.of(take.columns().get("boost.actual"), 0, 10).samples()).isZero();
    }

    @Test
    void aMeanCountsTimeNotReadingsAndAGapCountsForNothing() {
        double[] t = {0, 0.1, 0.2, 0.3, 1.3, 60};
        double[] y = {10, 10, 10, 20, 20, 1000};
        Span span = Span.of(new Take.Column(t, y), 0, 100);
        assertThat(span.mean()).isCloseTo((0.3 * 10 + 1.0 * 20) / 1.3, within(1e-9));
        assertThat(span.most()).isEqualTo(1000);
    }

    @Test
    void whatIsNoNumberCountsForNothingAndOnlyThePartItselfCounts() {
        double[] t = {0, 1, 2, 3, 4, 5};
        double[] y = {500, 10, Double.NaN, Double.POSITIVE_INFINITY, 30, 500};
        Span span = Span.of(new Take.Column(t, y), 0.5, 4.5);
        assertThat(span.samples()).isEqualTo(2);
        assertThat(span.least()).isEqualTo(10);
        assertThat(span.most()).isEqualTo(30);
        // 10 for a second, 30 for the half second until the part ends
        assertThat(span.mean()).isCloseTo((10 + 15) / 1.5, within(1e-9));
        assertThat(Span.of(new Take.Column(t, y), 1.5, 3.5).mean()).isNaN();
    }
}
