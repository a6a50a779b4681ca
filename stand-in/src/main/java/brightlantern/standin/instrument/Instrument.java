package brightlantern.standin.instrument;

import brightlantern.wire.scpi.ScpiLine;
import java.nio.charset.StandardCharsets;

/** What an instrument behind SCPI does beside what all of them do. */
public interface Instrument {
    /** Maker, model, serial number and version, with commas between (IEEE 488.2, clause 10.14). */
    String identity();

    /** *RST, and when its client hangs up. */
    void reset();

    /**
     * @param status takes what is wrong with the command
     * @return the answer without the end of the line; nothing for a command, or for what is refused
     */
    byte[] answer(ScpiLine line, StatusModel status);

    /** Text as it goes over the wire. */
    static byte[] text(String text) {
        return text.getBytes(StandardCharsets.ISO_8859_1);
    }
}
