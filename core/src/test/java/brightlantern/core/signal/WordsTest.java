package brightlantern.core.signal;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Texts of vehicles and files are hostile. */
class WordsTest {
    @ParameterizedTest
    @ValueSource(strings = {"=1+1", "+49", "-2", "@sum", "=HYPERLINK(0)"})
    void aCellThatLooksLikeAFormulaIsMarkedAndReadBackAsMeant(String cell) {
        assertThat(Words.harmless(cell)).isEqualTo("'" + cell);
        assertThat(Words.asMeant(Words.harmless(cell))).isEqualTo(cell);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "4711", "'quoted'", "Bank 1 = left", "ÄÖ"})
    void allElseStaysAsItIs(String cell) {
        assertThat(Words.harmless(cell)).isEqualTo(cell);
        assertThat(Words.asMeant(cell)).isEqualTo(cell);
    }

    @Test
    void whatMovesACursorIsNotPassedOn() {
        assertThat(Words.plain("A\u0000B\u001b[2J\n\u0085C")).isEqualTo("A·B·[2J··C");
        assertThat(Words.harmless("\t=1")).isEqualTo("'·=1");
    }
}
