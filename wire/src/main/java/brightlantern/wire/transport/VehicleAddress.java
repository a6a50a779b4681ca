package brightlantern.wire.transport;

/** Where a vehicle is reached; each network knows its own kind. */
public sealed interface VehicleAddress permits IpAddress {
    /** As it is kept and shown; {@link #parse} gives the same back. */
    String text();

    /**
     * Reads an address of any kind.
     *
     * @throws IllegalArgumentException names the text and what was expected
     */
    static VehicleAddress parse(String text) {
        return IpAddress.parse(text);
    }

    /** One that was kept, whatever it is; nobody may answer there. */
    static VehicleAddress kept(String text) {
        return new IpAddress(text);
    }
}
