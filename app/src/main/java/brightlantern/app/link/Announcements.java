package brightlantern.app.link;

import brightlantern.wire.transport.VehicleNetwork.Heard;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Vehicles that announced themselves. Whatever is on the network may say anything: so many are
 * remembered, and whoever was heard longest ago makes room.
 */
final class Announcements {
    /** No workshop has more vehicles at once. */
    static final int MOST = 256;

    private final Map<String, Heard> heard = new LinkedHashMap<>();

    synchronized void hear(Heard vehicle) {
        String address = vehicle.address().text();
        heard.remove(address);
        heard.put(address, vehicle);
        if (heard.size() > MOST) {
            heard.remove(heard.keySet().iterator().next());
        }
    }

    /** The one that was heard longest ago first. */
    synchronized List<Heard> all() {
        return List.copyOf(heard.values());
    }
}
