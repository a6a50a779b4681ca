package brightlantern.core.capture.bus;

import java.util.HexFormat;
import java.util.Optional;

/**
 * A frame as it was read off a wire (ISO 11898-1).
 *
 * @param seconds at which it began
 * @param extended whether its identifier has 29 bits
 * @param data its bytes; none for a remote frame
 * @param remote whether it asks for a frame
 * @param fd how it is sent, of a frame with flexible data rate; empty for a classical one
 * @param sound whether its checksum is right
 * @param acknowledged whether anybody took it
 * @param from and to: samples from its begin to the end of its checksum
 */
public record CanFrame(
        double seconds,
        int id,
        boolean extended,
        byte[] data,
        boolean remote,
        Optional<Fd> fd,
        boolean sound,
        boolean acknowledged,
        int from,
        int to) {
    /**
     * A frame with flexible data rate.
     *
     * @param faster whether its data came at the faster rate
     * @param passive whether its sender may no longer break frames off (error passive)
     */
    public record Fd(boolean faster, boolean passive) {}

    /** Identifier and bytes in hexadecimal digits. */
    public String words() {
        return String.format(extended ? "%08X" : "%03X", id)
                + " "
                + HexFormat.ofDelimiter(" ").withUpperCase().formatHex(data);
    }
}
