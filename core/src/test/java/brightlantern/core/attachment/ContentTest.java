package brightlantern.core.attachment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ContentTest {
    /** Letters of ISO 8859-1 stand for bytes. */
    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.ISO_8859_1);
    }

    @ParameterizedTest
    @CsvSource({
        "a.jpg, ÿØÿà, image/jpeg",
        "a.bin, ÿØÿà, image/jpeg",
        "a.png, '\u0089PNG\r\n\u001a\n', image/png",
        "a.gif, GIF89a, image/gif",
        "a.pdf, %PDF-1.7, application/pdf",
        "a.wav, RIFF....WAVEfmt, audio/wav",
        "a.mp4, ....ftypisom, video/mp4",
        "a.txt, 8 Nm said the sheet, text/plain"
    })
    void isToldByItsBytesWhateverItIsCalled(String name, String beginning, String type) {
        assertThat(Content.of(name, bytes(beginning)).type()).isEqualTo(type);
    }

    @ParameterizedTest
    @CsvSource({
        "a.svg, <svg onload=x>, can carry a script",
        "a.txt, '  <!DOCTYPE html>', can carry a script",
        "a.jpg, just words, its name promises a picture",
        "a.heic, ....ftypheic, HEIC",
        "a.webp, RIFF....WEBP, WebP",
        "a.exe, MZ\u0090\u0000, nobody here knows"
    })
    void whatCouldActOrCannotBeShownIsRefusedWithItsReason(
            String name, String beginning, String reason) {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Content.of(name, bytes(beginning)))
                .withMessageContaining(reason);
    }

    @Test
    void aLetterThatIsCutAtTheEndOfTheBeginningIsNoMistake() {
        byte[] whole = "Öl".repeat(10).getBytes(StandardCharsets.UTF_8);
        byte[] cut = Arrays.copyOf(whole, 4);
        assertThat(Content.of("a.txt", cut).kind()).isEqualTo(FileKind.TEXT);
    }

    @Test
    void aMarkOutsideOfThePictureIsRefused() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new Mark(Mark.Shape.RING, 0.5, 0.5, Double.NaN, 1))
                .withMessageContaining("NaN");
    }
}
