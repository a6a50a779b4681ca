package brightlantern.wire;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;

/** An immutable run of bytes with value equality; indexes count from 0. */
public final class Bytes {
    public static final Bytes EMPTY = new Bytes(new byte[0]);

    /** So many bytes are told; none that says what went wrong is longer. */
    private static final int TOLD = 64;

    private static final HexFormat SPACED = HexFormat.ofDelimiter(" ").withUpperCase();

    private final byte[] content;

    private Bytes(byte[] content) {
        this.content = content;
    }

    /** Copies the given array. */
    public static Bytes of(byte[] content) {
        return content.length == 0 ? EMPTY : new Bytes(content.clone());
    }

    /** Makes bytes of the low eight bits of each given number. */
    public static Bytes of(int... values) {
        byte[] content = new byte[values.length];
        for (int i = 0; i < values.length; i++) {
            content[i] = (byte) values[i];
        }
        return new Bytes(content);
    }

    /** Latin-1 text as bytes. */
    public static Bytes text(String text) {
        return of(text.getBytes(StandardCharsets.ISO_8859_1));
    }

    /**
     * Reads pairs of hex digits, with or without blanks between them.
     *
     * @throws IllegalArgumentException when the text is not hex
     */
    public static Bytes hex(String text) {
        return new Bytes(HexFormat.of().parseHex(text.replace(" ", "")));
    }

    /** How many. */
    public int size() {
        return content.length;
    }

    /** The byte at an index as 0..255. */
    public int at(int index) {
        return content[index] & 0xFF;
    }

    /** The bytes from an index to the end. */
    public Bytes from(int start) {
        return slice(start, content.length - start);
    }

    /**
     * @param from place of the first, from 0
     * @param count how many
     */
    public Bytes slice(int start, int length) {
        return new Bytes(Arrays.copyOfRange(content, start, start + length));
    }

    /** These and the others after them. */
    public Bytes plus(Bytes other) {
        byte[] sum = Arrays.copyOf(content, content.length + other.content.length);
        System.arraycopy(other.content, 0, sum, content.length, other.content.length);
        return new Bytes(sum);
    }

    /** A copy that may be changed. */
    public byte[] toArray() {
        return content.clone();
    }

    /** Latin-1 text of these bytes, padding zeros and blanks at the end removed. */
    public String asText() {
        int end = content.length;
        while (end > 0 && (content[end - 1] == 0 || content[end - 1] == ' ')) {
            end--;
        }
        return new String(content, 0, end, StandardCharsets.ISO_8859_1);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Bytes bytes && Arrays.equals(content, bytes.content);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(content);
    }

    /**
     * Upper-case hex, a blank between bytes; of a long one its beginning, and how many more there
     * are, because it goes into messages that are kept.
     */
    @Override
    public String toString() {
        return content.length <= TOLD
                ? SPACED.formatHex(content)
                : SPACED.formatHex(content, 0, TOLD)
                        + " … (%d more bytes)".formatted(content.length - TOLD);
    }
}
