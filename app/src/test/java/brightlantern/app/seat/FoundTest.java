package brightlantern.app.seat;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.app.seat.DriversSeats.Choice;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Lists of a seat show what has all words of a search, and say what they leave out. */
class FoundTest {
    private static final List<Choice> MANY =
            IntStream.range(0, 400)
                    .mapToObj(i -> new Choice("C-X" + i + ".1", "Contact of X" + i + ": open"))
                    .toList();

    @Test
    void allWordsCountInNameAndId() {
        assertThat(Found.of(MANY, " contact  x37 OPEN ").shown())
                .extracting(Choice::id)
                .startsWith("C-X37.1", "C-X370.1")
                .hasSize(11);
        assertThat(Found.of(MANY, "C-X37.1").words()).isEqualTo("1");
    }

    @Test
    void theFirstOfManyAreShownAndTheRestIsCounted() {
        Found all = Found.of(MANY, "");
        assertThat(all.shown()).hasSize(150).startsWith(MANY.get(0));
        assertThat(all.words()).isEqualTo("the first 150 of 400");
    }

    @ParameterizedTest
    @ValueSource(strings = {"no such", "<script>", "%", "\\", "[("})
    void whatNothingHasFindsNothing(String words) {
        assertThat(Found.of(MANY, words).shown()).isEmpty();
        assertThat(Found.of(MANY, words).words()).isEqualTo("0");
    }
}
