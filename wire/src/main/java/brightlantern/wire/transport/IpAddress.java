package brightlantern.wire.transport;

import java.net.InetSocketAddress;

/**
 * A host on the network; the port is the protocol's own.
 *
 * @param text host name, IPv4 or IPv6 address
 */
public record IpAddress(String text) implements VehicleAddress {
    /**
     * @throws IllegalArgumentException names the text and what was expected
     */
    static IpAddress parse(String text) {
        String host = text.trim();
        if (!host.matches("[A-Za-z0-9.:-]+")) {
            throw new IllegalArgumentException(
                    "Address '"
                            + host
                            + "': expected a host name or IP address; the port is always that of"
                            + " the protocol.");
        }
        return new IpAddress(host);
    }

    /** The socket of a port there; unresolved when nobody knows the name. */
    public InetSocketAddress socket(int port) {
        return new InetSocketAddress(text, port);
    }
}
