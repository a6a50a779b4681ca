package brightlantern.core.suspect;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.Vehicles;
import java.util.Locale;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What customers say, and what of the described complaints they may mean. */
class ComplaintWordsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "velmont-cairn | The wipers do not work, they say | wiper",
                "oriel-heron | right turn signal at the front is dim | turn signal",
                "oriel-finch | it judders when I brake from the motorway | judder",
                "tamarack-portage | Steering wheel shakes above a hundred | shakes",
                "oriel-heron | Heater stays cold in the morning | heat",
                "quillon-ember | Battery is flat after it stood for a weekend | stood",
                "oriel-heron | To be bought: is the mileage true? | mileage",
                "stonebarrow-wl9 | Rattling when started cold | rattles",
                "oriel-heron | The left indicator at the back does not blink | left rear turn signal",
                "velmont-cairn | one headlight is out | beam",
                "oriel-finch | windscreen washer is dead | washer",
                "quillon-ember | vibrates when I brake hard | judder",
                "tamarack-portage | feels sluggish uphill | loses power",
                "oriel-heron | overheating in town | temperature",
                "oriel-finch | flat battery every monday | crank"
            })
    void thatIsMeantStandsAmongTheFirst(String vehicle, String words, String part) {
        assertThat(ComplaintWords.meant(Vehicles.derived(vehicle).symptoms(), words))
                .hasSizeLessThanOrEqualTo(6)
                .anySatisfy(
                        s ->
                                assertThat((s.name() + " " + s.when()).toLowerCase(Locale.ROOT))
                                        .contains(part));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "oriel-heron | Something feels odd lately",
                "quillon-ember | A warning came up; nothing else was noticed.",
                "oriel-finch | A warning; everything else works fine",
                "velmont-cairn | They say that it does not do what it should",
                "oriel-finch | ''"
            })
    void wordsThatTellNothingMeanNothing(String vehicle, String words) {
        assertThat(ComplaintWords.meant(Vehicles.derived(vehicle).symptoms(), words)).isEmpty();
    }
}
