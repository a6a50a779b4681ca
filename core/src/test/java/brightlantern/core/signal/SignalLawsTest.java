package brightlantern.core.signal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.Noise;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Laws of scaling and units, over every value of every vehicle that ships. */
class SignalLawsTest {
    private static final int DRAWS = 12;

    @ParameterizedTest
    @MethodSource("brightlantern.core.vehicle.Vehicles#all")
    void bytesBecomeAReadingAndTheSameBytesAgain(String vehicle) {
        Random random = new Random(17);
        for (Value v : Vehicles.named(vehicle).values()) {
            for (int i = 0; i < DRAWS; i++) {
                byte[] raw = new byte[v.bytes()];
                random.nextBytes(raw);
                double physical = Scaling.physical(v, raw);
                assertThat(physical).as(v.id()).isFinite();
                assertThat(Scaling.raw(v, physical)).as(v.id()).isEqualTo(raw);
                // half a step more or less is the same reading
                double near =
                        physical + 0.4 * Math.abs(v.scale()) * (random.nextBoolean() ? 1 : -1);
                if (!v.isState()) {
                    assertThat(Scaling.physical(v, Scaling.raw(v, near)))
                            .as(v.id())
                            .isCloseTo(physical, within(1.01 * Math.abs(v.scale())));
                }
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"tamarack-portage", "quillon-ember", "stonebarrow-wl9"})
    void aReadingIsTheSameInEveryUnitThatItMayBeShownIn(String vehicle) {
        Random random = new Random(19);
        VehicleDescription d = Vehicles.named(vehicle);
        for (Map.Entry<String, List<String>> quantity : Units.choices().entrySet()) {
            for (String unit : quantity.getValue()) {
                VehicleDescription own = d.shownIn(Map.of(quantity.getKey(), unit));
                for (Value v : own.values()) {
                    if (v.isState()
                            || !Units.quantity(v.unit()).equals(Optional.of(quantity.getKey()))) {
                        continue;
                    }
                    assertThat(v.show()).as(v.id()).isEqualTo(unit);
                    double reading = 200 * random.nextDouble() - 50;
                    double there = Scaling.shown(v, reading);
                    assertThat(Units.convert(there, unit, v.unit()))
                            .as("%s in %s", v.id(), unit)
                            .isCloseTo(reading, within(1e-6 * (1 + Math.abs(reading))));
                    assertThat(Scaling.show(v, reading)).as(v.id()).isNotBlank();
                }
            }
        }
    }

    @Test
    void convertingThereAndBackIsNothingAndDifferencesForgetTheZero() {
        Random random = new Random(23);
        for (Map.Entry<String, List<String>> quantity : Units.choices().entrySet()) {
            for (String from : quantity.getValue()) {
                for (String to : quantity.getValue()) {
                    double a = 100 * random.nextDouble();
                    double b = 100 * random.nextDouble();
                    double there = Units.convert(a, from, to);
                    assertThat(Units.convert(there, to, from))
                            .as("%s and %s", from, to)
                            .isCloseTo(a, within(1e-9 * (1 + Math.abs(a) + Math.abs(there))));
                    double difference = Units.convert(b, from, to) - there;
                    assertThat(Units.convertDifference(b - a, from, to))
                            .as("a difference of %s in %s", from, to)
                            .isCloseTo(difference, within(1e-6 * (1 + Math.abs(difference))));
                }
            }
        }
    }

    @ParameterizedTest
    @CsvSource({
        "100, kPa, bar, 1",
        "1, bar, hPa, 1000",
        "1, MPa, kPa, 1000",
        "0, °C, K, 273.15",
        "100, °C, °F, 212",
        "3.6, km/h, m/s, 1",
    })
    void unitsAsTheTextbookHasThem(double value, String from, String to, double expected) {
        assertThat(Units.convert(value, from, to)).isCloseTo(expected, within(1e-9));
    }

    @Test
    void whatDoesNotGoTogetherIsRefused() {
        assertThatThrownBy(() -> Units.convert(1, "bar", "°C"))
                .isInstanceOf(IllegalArgumentException.class);
        assertThat(Units.isKnown("furlong")).isFalse();
        assertThat(Units.quantity("furlong")).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "coolant above 60 °C | coolant above 140 °F",
                "It rises by less than 120 °C in 10 s; wait. | It rises by less than 216 °F in 10 s; wait.",
                "often 3.5 to 5.5 bar, once warm | often 51 to 80 psi, once warm",
                "stays within 15 kPa for 2.5 s | stays within 2.2 psi for 2.5 s",
                "P0171-00 at a steady 80 km/h | P0171-00 at a steady 50 mph",
                "down to -40 °C, 12.4 V and 2 hPa/s | down to -40 °F, 12.4 V and 2 hPa/s",
                "Set back by about 53,000 km (52,100 to 54,000 km). | Set back by about 32,933 mi (32,373 to 33,554 mi).",
                "W31 m, step 4 and 7 barrels | W31 m, step 4 and 7 barrels",
            })
    void aSentenceIsToldInTheUnitsThatSomebodyChose(String text, String expected) {
        Map<String, String> chosen =
                Map.of(
                        "temperature",
                        "°F",
                        "pressure",
                        "psi",
                        "speed",
                        "mph",
                        "time",
                        "ms",
                        "distance",
                        "mi");
        assertThat(Units.inText(text, chosen)).isEqualTo(expected);
        assertThat(Units.inText(text, Map.of())).isEqualTo(text);
        assertThat(Units.inText(Units.inText(text, chosen), chosen)).isEqualTo(expected);
    }

    @RepeatedTest(1000)
    void noSentenceIsTooStrange(RepetitionInfo nth) {
        String text =
                Noise.text(
                        new Random(nth.getCurrentRepetition()),
                        "68",
                        "-0",
                        "1e9",
                        "°C",
                        "°",
                        "kPa",
                        "km/h",
                        "by",
                        "within",
                        "–",
                        ",",
                        ".",
                        " ");
        assertThat(Units.inText(text, Map.of("temperature", "K", "mass", "mg"))).isNotNull();
    }
}
