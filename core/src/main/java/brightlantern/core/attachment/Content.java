package brightlantern.core.attachment;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * What a file holds, told by its first bytes and never by its name: a page called a picture would
 * act in the browser of whoever opens it.
 *
 * @param type media type (RFC 6838) under which it may be handed out
 */
public record Content(FileKind kind, String type) {
    /** So much of a file is enough to tell. */
    public static final int ENOUGH_BYTES = 8192;

    private static final Set<String> STILLS =
            Set.of("heic", "heix", "hevc", "heim", "heis", "mif1", "msf1", "avif");

    /** What acts in a browser begins so. */
    private static final List<String> ACTING =
            List.of("<!doctype", "<html", "<svg", "<?xml", "<script", "<body", "<head");

    /** Endings that promise a picture. */
    private static final Set<String> PICTURES = Set.of("jpg", "jpeg", "png", "gif");

    /**
     * @param name of the file, as it was sent
     * @param beginning its first bytes, {@link #ENOUGH_BYTES} of them where there are so many
     * @throws IllegalArgumentException says what it is and what is taken instead
     */
    public static Content of(String name, byte[] beginning) {
        Content content = of(beginning);
        if (PICTURES.contains(ending(name)) && content.kind() != FileKind.PICTURE) {
            throw new IllegalArgumentException(
                    "its name promises a picture, and what it holds is " + content.kind().words());
        }
        return content;
    }

    private static String ending(String name) {
        return name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    }

    private static Content of(byte[] b) {
        if (b.length == 0) {
            throw new IllegalArgumentException("it is empty");
        }
        if (begins(b, 0xFF, 0xD8, 0xFF)) {
            return new Content(FileKind.PICTURE, "image/jpeg");
        }
        if (begins(b, 0x89, 'P', 'N', 'G', '\r', '\n', 0x1A, '\n')) {
            return new Content(FileKind.PICTURE, "image/png");
        }
        if (begins(b, 'G', 'I', 'F', '8')) {
            return new Content(FileKind.PICTURE, "image/gif");
        }
        if (begins(b, '%', 'P', 'D', 'F', '-')) {
            return new Content(FileKind.PAPER, "application/pdf");
        }
        if (begins(b, 'R', 'I', 'F', 'F')) {
            return riff(ascii(b, 8, 12));
        }
        if (ascii(b, 4, 8).equals("ftyp")) {
            return boxes(ascii(b, 8, 12));
        }
        if (begins(b, 0x1A, 0x45, 0xDF, 0xA3)) {
            return new Content(FileKind.FILM, "video/webm");
        }
        return text(b);
    }

    private static Content riff(String form) {
        if (form.equals("WAVE")) {
            return new Content(FileKind.SOUND, "audio/wav");
        }
        throw new IllegalArgumentException(
                form.equals("WEBP")
                        ? "it is a WebP picture, which cannot be read here; save it as JPEG or PNG"
                        : "nobody here knows what it is");
    }

    /** ISO base media file format (ISO/IEC 14496-12). */
    private static Content boxes(String brand) {
        if (STILLS.contains(brand.trim())) {
            throw new IllegalArgumentException(
                    "it is a HEIC picture, which not every browser shows; let the camera save JPEG, or save it as JPEG or PNG");
        }
        return new Content(FileKind.FILM, "video/mp4");
    }

    private static Content text(byte[] b) {
        String text = decoded(b);
        String beginning = text.strip().toLowerCase(Locale.ROOT);
        if (ACTING.stream().anyMatch(beginning::startsWith)) {
            throw new IllegalArgumentException(
                    "it is a page or a drawing that can carry a script; send a picture of it");
        }
        if (text.chars().anyMatch(c -> c < ' ' && c != '\t' && c != '\n' && c != '\r')) {
            throw notKnown();
        }
        return new Content(FileKind.TEXT, "text/plain");
    }

    private static String decoded(byte[] b) {
        CharsetDecoder decoder =
                StandardCharsets.UTF_8.newDecoder().onMalformedInput(CodingErrorAction.REPORT);
        CharBuffer chars = CharBuffer.allocate(b.length);
        // a character may be cut where the beginning ends
        if (decoder.decode(ByteBuffer.wrap(b), chars, false).isError()) {
            throw notKnown();
        }
        return chars.flip().toString();
    }

    private static IllegalArgumentException notKnown() {
        return new IllegalArgumentException(
                "nobody here knows what it is; a picture (JPEG, PNG, GIF), a film (MP4, WebM), a PDF, a WAV or text is expected");
    }

    private static boolean begins(byte[] b, int... with) {
        if (b.length < with.length) {
            return false;
        }
        for (int i = 0; i < with.length; i++) {
            if ((b[i] & 0xFF) != with[i]) {
                return false;
            }
        }
        return true;
    }

    private static String ascii(byte[] b, int from, int to) {
        return b.length < to
                ? ""
                : new String(Arrays.copyOfRange(b, from, to), StandardCharsets.ISO_8859_1);
    }
}
