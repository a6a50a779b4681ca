package brightlantern.core.capture.bus;

import java.util.HexFormat;

/**
 * A frame as it was read off a wire (ISO 11898-1, classical frames).
 *
 * @param seconds at which it began
 * @param extended whether its identifier has 29 bits
 * @param data its bytes; none for a remote frame
 * @param remote whether it asks for a frame
 * @param sound whether its checksum (CRC of 15 bits) is right
 * @param acknowledged whether anybody took it
 * @param from and to: samples from its begin to the end of its checksum
 */
public record CanFrame(
        double seconds,
        int id,
        boolean extended,
        byte[] data,
        boolean remote,
        boolean sound,
        boolean acknowledged,
        int from,
        int to) {
    /** Identifier and bytes in hexadecimal digits. */
    public String words() {
        return String.format(extended ? "%08X" : "%03X", id)
                + " "
                + HexFormat.ofDelimiter(" ").withUpperCase().formatHex(data);
    }
}
