package brightlantern.core.take.csv;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** Which kind of file a log is, and how its letters are written. */
final class LogKind {

    private LogKind() {}

    /** Files that are no text at all are called by their name. */
    static void otherKind(byte[] bytes) {
        if (begins(bytes, 0x50, 0x4B, 0x03, 0x04)) {
            throw new IllegalArgumentException(
                    "This is a workbook (.xlsx) or another packed file; save the sheet as CSV and bring that in");
        }
        if (begins(bytes, 0xD0, 0xCF, 0x11, 0xE0)) {
            throw new IllegalArgumentException(
                    "This is a workbook of the old kind (.xls); save the sheet as CSV and bring that in");
        }
        if (begins(bytes, 0x1F, 0x8B)) {
            throw new IllegalArgumentException(
                    "This is a packed file (.gz); unpack it and bring in what is inside");
        }
        if (begins(bytes, 0x25, 0x50, 0x44, 0x46)) {
            throw new IllegalArgumentException(
                    "This is a PDF; export the log as CSV and bring that in");
        }
    }

    private static boolean begins(byte[] bytes, int... with) {
        for (int i = 0; i < with.length; i++) {
            if (i >= bytes.length || (bytes[i] & 0xFF) != with[i]) {
                return false;
            }
        }
        return true;
    }

    /** UTF-16 without a mark shows by a zero in every other byte, as most letters are Latin. */
    private static Optional<Charset> wide(byte[] bytes) {
        int looked = Math.min(bytes.length, 4000) / 2;
        int even = 0;
        int odd = 0;
        for (int i = 0; i < looked; i++) {
            even += bytes[2 * i] == 0 ? 1 : 0;
            odd += bytes[2 * i + 1] == 0 ? 1 : 0;
        }
        if (odd > looked / 2 && even == 0) {
            return Optional.of(StandardCharsets.UTF_16LE);
        }
        return even > looked / 2 && odd == 0
                ? Optional.of(StandardCharsets.UTF_16BE)
                : Optional.empty();
    }

    static Charset charset(byte[] bytes) {
        if (bytes.length >= 2 && (bytes[0] & 0xFF) == 0xFF && (bytes[1] & 0xFF) == 0xFE) {
            return StandardCharsets.UTF_16LE;
        }
        if (bytes.length >= 2 && (bytes[0] & 0xFF) == 0xFE && (bytes[1] & 0xFF) == 0xFF) {
            return StandardCharsets.UTF_16BE;
        }
        Optional<Charset> wide = wide(bytes);
        if (wide.isPresent()) {
            return wide.get();
        }
        // the last character of the beginning may be cut in two
        int end = bytes.length;
        while (end > 0 && bytes.length - end < 4 && (bytes[end - 1] & 0x80) != 0) {
            end--;
        }
        try {
            StandardCharsets.UTF_8
                    .newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes, 0, end));
            return StandardCharsets.UTF_8;
        } catch (CharacterCodingException notUtf8) {
            return Charset.forName("windows-1252");
        }
    }
}
