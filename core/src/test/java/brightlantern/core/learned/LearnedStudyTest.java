package brightlantern.core.learned;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.learned.LearnedStudy.Reading;
import brightlantern.core.learned.LearnedStudy.Standing;
import brightlantern.core.signal.Value;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Where learned values stand, and when they will be at their limits. */
class LearnedStudyTest {
    private static final Instant DAY = Instant.parse("2031-03-01T08:00:00Z");
    private static final LearnedValue PUMP =
            new LearnedValue("pump", 10, -20, 50, 0.5, "f", "low", "middle", "high", "why");
    private static final Value VALUE =
            new Value(
                    "pump", "engine", 1, 2, true, 0.1, 0, "Pump", "%", "%", 1, Map.of(), List.of(),
                    List.of());

    private static LearnedStudy.Verdict of(double... figures) {
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < figures.length; i++) {
            readings.add(new Reading(DAY.plus(Duration.ofDays(10L * i)), figures[i]));
        }
        return LearnedStudy.of(PUMP, VALUE, readings);
    }

    @ParameterizedTest
    @CsvSource({
        "10, MIDDLE, middle, 10.0 %: as usual.",
        "29, MIDDLE, middle, 29.0 %: as usual.",
        "30, NEAR, high, 30.0 %: 50 % of the way to its limit of 50.0 %.",
        "-5, NEAR, low, -5.0 %: 50 % of the way to its limit of -20.0 %.",
        "50, AT_LIMIT, high, 50.0 %: at its limit of 50.0 %; the module can make up for no more.",
        "-33, AT_LIMIT, low, -33.0 %: at its limit of -20.0 %; the module can make up for no more."
    })
    void whereAFigureStands(double figure, Standing standing, String outcome, String sentence) {
        LearnedStudy.Verdict verdict = of(figure);
        assertThat(verdict.standing()).isEqualTo(standing);
        assertThat(verdict.outcome()).isEqualTo(outcome);
        assertThat(verdict.sentence()).isEqualTo(sentence);
        assertThat(verdict.moved()).as("nothing was read before").isEmpty();
        assertThat(verdict.holds()).isEqualTo(standing == Standing.MIDDLE);
    }

    @Test
    void howItMovedAndWhenItWillBeAtItsLimit() {
        assertThat(of(10, 12.5).moved()).isEqualTo("Up by 2.5 % since 10 days ago.");
        assertThat(of(10, 10.04).moved()).isEqualTo("The same as 10 days ago.");
        // 2 % in ten days, and 34 % are left to go
        assertThat(of(10, 12, 14, 16).moved())
                .isEqualTo(
                        "Up by 2.0 % since 10 days ago. At this pace it is at its limit in some 170 days.");
        assertThat(of(0, -5, -10).moved())
                .endsWith("At this pace it is at its limit in some 20 days.");
        assertThat(of(10, 16, 9, 15).moved()).as("it goes to and fro").doesNotContain("pace");
        assertThat(of(10, 10.1, 10.2).moved()).as("years away").doesNotContain("pace");
        assertThat(of(50, 55, 60).moved()).as("beyond it already").doesNotContain("pace");
    }

    @Test
    void readingsOfOneDaySayNothingOfAPace() {
        List<Reading> readings = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            readings.add(new Reading(DAY.plus(Duration.ofHours(i)), 10 + i));
        }
        assertThat(LearnedStudy.of(PUMP, VALUE, readings).moved())
                .isEqualTo("Up by 1.0 % since earlier today.");
    }
}
