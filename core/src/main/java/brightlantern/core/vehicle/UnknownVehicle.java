package brightlantern.core.vehicle;

import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.HeadValues;
import java.util.ArrayList;
import java.util.List;

/**
 * What can be said of a vehicle without description: the modules that were found by asking the
 * addresses that ISO 13400-2 (table of logical addresses) leaves to vehicle makers.
 */
public final class UnknownVehicle {
    public static final String ID = "unknown";

    private static final String BUS = "network";

    /** A range of logical addresses, both ends in it. */
    public record Range(int from, int to) {
        /** How many addresses it holds. */
        public int size() {
            return to - from + 1;
        }
    }

    /** Makers' own addresses, ISO 13400-2; the larger range is in common use and asked first. */
    public static final List<Range> ADDRESSES =
            List.of(new Range(0x1000, 0x7FFF), new Range(0x0001, 0x0DFF));

    /** Addresses that ISO 13400-2 reserves: no module can stand there. */
    public static final Range RESERVED = new Range(0x8000, 0xE3FF);

    private UnknownVehicle() {}

    /**
     * @param addresses modules that answered, in the order in which they are shown
     */
    public static VehicleDescription describe(List<Integer> addresses) {
        List<ControlModule> modules = new ArrayList<>();
        for (int address : addresses) {
            modules.add(
                    new ControlModule(
                            "module-%04X".formatted(address),
                            "Module at address 0x%04X".formatted(address),
                            address,
                            BUS,
                            modules.size() + 1,
                            List.of(),
                            "",
                            List.of(),
                            "",
                            "",
                            true));
        }
        return VehicleDescription.ofNetwork(
                ID,
                "Vehicle without description",
                "not described",
                "",
                List.of(new Bus(BUS, "By address", 0, 0, List.of(), List.of(), null)),
                modules,
                List.of(),
                new HeadValues("", "", Double.POSITIVE_INFINITY, "", "", ""));
    }
}
