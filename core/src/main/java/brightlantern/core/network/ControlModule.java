package brightlantern.core.network;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * @param order place on the wire of its bus, from 1, the gateway's end first
 * @param freezeFrame ids of the values that its freeze frames hold, in the wire's order
 * @param missed code that others set when its messages stay away; empty when none does
 * @param watches modules whose messages it would miss
 * @param option fitted only with this option; empty when always fitted
 * @param under the module behind which this sub-module sits; empty for a module of its own
 * @param emission whether it answers for the emission system (ISO 27145)
 */
public record ControlModule(
        String id,
        String name,
        int address,
        String bus,
        int order,
        List<String> freezeFrame,
        String missed,
        List<String> watches,
        String option,
        String under,
        boolean emission) {
    public ControlModule {
        freezeFrame = OrEmpty.list(freezeFrame);
        watches = OrEmpty.list(watches);
        missed = OrEmpty.text(missed);
        option = OrEmpty.text(option);
        under = OrEmpty.text(under);
    }

    /** Lowest identifier of the frames that modules of described vehicles send. */
    private static final int FIRST_FRAME = 0x100;

    /**
     * Identifier (ISO 11898-1, 11 bits) of the frame that it sends most often; its address tells
     * it.
     */
    public int frameId() {
        return FIRST_FRAME + (address & 0xFF);
    }
}
