package brightlantern.core.network;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * @param kbit speed in kbit/s
 * @param dataKbit speed of the data in frames with flexible data rate, kbit/s; 0 where there are
 *     none
 * @param terminators modules that hold the terminating resistors
 * @param connectors connectors and splices in its wire
 * @param frames what each of its modules sends
 */
public record Bus(
        String id,
        String name,
        int kbit,
        int dataKbit,
        List<String> terminators,
        List<WireConnector> connectors,
        ExpectedFrames frames) {
    public Bus {
        terminators = OrEmpty.list(terminators);
        connectors = OrEmpty.list(connectors);
        frames = frames == null ? ExpectedFrames.USUAL : frames;
    }

    public BitRate rate() {
        return new BitRate(kbit, dataKbit);
    }
}
