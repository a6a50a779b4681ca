package brightlantern.app.job;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is kept has an end, and says so. */
class CutTest {
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 399, 400, 401, 440, 60_000, 10_000_000})
    void nothingIsLongerThanItsColumnAndNothingShortIsTouched(int length) {
        String kept = Cut.to(400, "x".repeat(length));
        assertThat(kept.length()).isLessThanOrEqualTo(400);
        if (length <= 400) {
            assertThat(kept).hasSize(length).doesNotContain("left out");
        } else {
            assertThat(kept).endsWith("(" + (length - kept.indexOf(' ')) + " characters left out)");
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1})
    void noLetterIsCutInTwo(int before) {
        String kept = Cut.to(100, "x".repeat(before) + "😀".repeat(200));
        assertThat(kept.codePoints().filter(c -> c >= 0xD800 && c <= 0xDFFF)).isEmpty();
    }
}
