package brightlantern.core.network;

import brightlantern.core.description.OrEmpty;

/**
 * A connector or splice in the wire of a bus.
 *
 * @param after the module that it follows, seen from the gateway
 * @param minutes to get at it
 * @param common how often it is the culprit, relative to others
 */
public record WireConnector(
        String id, String name, String after, String place, double minutes, double common) {
    public WireConnector {
        common = OrEmpty.factor(common);
    }
}
