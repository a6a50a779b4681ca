package brightlantern.core.configuration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a module is told, there and back. */
class ItemTest {
    /** Six characters out of 31. */
    private static final int CODES = 887_503_681;

    private static final String LETTERS = "23456789ABCDEFGHJKLMNPQRSTUVWXY";
    private static final Item TRIM = item(Item.Kind.TRIM, 4, Map.of());
    private static final Item FITTED =
            item(Item.Kind.OPTIONS, 1, Map.of(0, "tow bar", 2, "socket", 4, "camera"));
    private static final Item LAMPS = item(Item.Kind.CHOICE, 1, Map.of(0, "none", 1, "bulbs"));
    private static final Item LIMIT =
            new Item("i", "Limit", 1, Item.Kind.NUMBER, 1, Map.of(), 0.5, "A", 5, 30);
    private static final Item VIN = item(Item.Kind.VIN, 17, Map.of());

    private static Item item(Item.Kind kind, int bytes, Map<Integer, String> words) {
        return new Item("i", "The item", 1, kind, bytes, words, 1, "", 0, 0);
    }

    private static String code(int number) {
        StringBuilder six = new StringBuilder();
        int rest = number;
        for (int i = 0; i < 6; i++) {
            six.insert(0, LETTERS.charAt(rest % 31));
            rest /= 31;
        }
        return six.toString() + TrimCode.check(six.toString());
    }

    @RepeatedTest(300)
    void aTrimCodeComesBackAsItWasTyped(RepetitionInfo nth) {
        int number = new Random(nth.getCurrentRepetition()).nextInt(CODES);
        assertThat(TRIM.coded(code(number))).isEqualTo("%08X".formatted(number));
        assertThat(TRIM.told(TRIM.coded(code(number)))).isEqualTo(code(number));
    }

    @RepeatedTest(300)
    void oneWrongCharacterIsFound(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        StringBuilder wrong = new StringBuilder(code(random.nextInt(CODES)));
        int place = random.nextInt(7);
        int letter = LETTERS.indexOf(wrong.charAt(place));
        wrong.setCharAt(place, LETTERS.charAt((letter + 1 + random.nextInt(30)) % 31));
        assertThatThrownBy(() -> TRIM.coded(wrong.toString())).hasMessageContaining("check");
    }

    @RepeatedTest(300)
    void twoThatChangedPlacesAreFound(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        String right = code(random.nextInt(CODES));
        StringBuilder wrong = new StringBuilder(right);
        int a = random.nextInt(6);
        int b = random.nextInt(6);
        char first = wrong.charAt(a);
        wrong.setCharAt(a, wrong.charAt(b));
        wrong.setCharAt(b, first);
        if (wrong.toString().equals(right)) {
            return;
        }
        assertThatThrownBy(() -> TRIM.coded(wrong.toString())).hasMessageContaining("check");
    }

    @Test
    void theCheckIsTheSumOfPlaceTimesValue() {
        // by hand: A is 8 of 31, so 1·8 + 2·0 + 3·0 + 4·0 + 5·0 + 6·1 = 14, which is G
        assertThat(TrimCode.check("A22223")).isEqualTo('G');
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "A22223|expected 6 characters and a check character, found 6",
                "A2222O3|found 'O' at place 6",
                "|expected 6 characters and a check character, found 0"
            })
    void whatIsWrongWithATrimCodeIsSaid(String typed, String words) {
        assertThatThrownBy(() -> TRIM.coded(typed == null ? "" : typed))
                .hasMessageStartingWith("The item: ")
                .hasMessageContaining(words);
    }

    @Test
    void optionsAreBitsAndWhatIsNotDescribedIsTold() {
        assertThat(FITTED.coded("tow bar, camera")).isEqualTo("11");
        assertThat(FITTED.told("11")).isEqualTo("tow bar, camera");
        assertThat(FITTED.told("00")).isEqualTo("nothing");
        assertThat(FITTED.told("03")).isEqualTo("tow bar, bit 1, which is not described");
        assertThatThrownBy(() -> FITTED.coded("winch"))
                .hasMessageContaining("expected one of tow bar, socket, camera, found 'winch'");
    }

    @Test
    void choicesNumbersAndVinsHaveTheirLimits() {
        assertThat(LAMPS.coded("bulbs")).isEqualTo("01");
        assertThat(LAMPS.told("07")).isEqualTo("7, which is not described");
        assertThat(LIMIT.coded("12,5")).isEqualTo("19");
        assertThat(LIMIT.told("19")).isEqualTo("12.50 A");
        for (String bad : List.of("31", "NaN", "five", "")) {
            assertThatThrownBy(() -> LIMIT.coded(bad))
                    .hasMessageContaining("expected a number from 5 to 30 A, found '" + bad + "'");
        }
        assertThat(LIMIT.told("FF")).isEqualTo("not set");
        assertThat(LIMIT.told("0102")).contains("2 bytes, expected 1");
        assertThat(VIN.told(VIN.coded("zztpg22d2m1000417"))).isEqualTo("ZZTPG22D2M1000417");
        assertThatThrownBy(() -> VIN.coded("ZZTPG22D3M1000417"))
                .hasMessageContaining("check digit");
    }

    @Test
    void bytesThatDoNotFitAreKnown() {
        assertThat(TRIM.fits("0000ABCD")).isTrue();
        assertThat(TRIM.fits("FFFFFFFF")).as("what was blank may be written back").isTrue();
        for (String bad : List.of("", "0000ABC", "0000abcd", "0000ABCDEF", "ZZZZZZZZ")) {
            assertThat(TRIM.fits(bad)).as(bad).isFalse();
        }
    }

    @Test
    void aNewModuleGetsVinAndOptionsAndTheRestIsForAPerson() {
        assertThat(VIN.built("ZZTPG22D2M1000417", List.of()).map(VIN::told))
                .contains("ZZTPG22D2M1000417");
        assertThat(FITTED.built("", List.of("tow bar", "winch"))).contains("01");
        assertThat(LAMPS.built("", List.of())).isEmpty();
        assertThat(TRIM.built("", List.of())).isEmpty();
    }
}
