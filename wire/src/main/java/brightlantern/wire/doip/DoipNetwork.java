package brightlantern.wire.doip;

import brightlantern.wire.WireException;
import brightlantern.wire.transport.IpAddress;
import brightlantern.wire.transport.Transport;
import brightlantern.wire.transport.VehicleAddress;
import brightlantern.wire.transport.VehicleNetwork;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/** Vehicles reached over diagnostics on the Internet protocol (ISO 13400-2). */
public final class DoipNetwork implements VehicleNetwork {
    /** Characters of ISO 3779; one that was never written is all 0x00 or 0xFF. */
    private static final String VIN = "[A-HJ-NPR-Z0-9]{17}";

    private static final int READY = 1;

    private final int testerAddress;

    /**
     * @param testerAddress logical address of the tester, 0x0E00..0x0EFF for external ones
     */
    public DoipNetwork(int testerAddress) {
        this.testerAddress = testerAddress;
    }

    private static InetSocketAddress socket(VehicleAddress address) {
        return ((IpAddress) address).socket(DoipDiscovery.PORT);
    }

    @Override
    public boolean canReach(VehicleAddress address) {
        return !socket(address).isUnresolved();
    }

    @Override
    public boolean isAmong(VehicleAddress address, Collection<String> texts) {
        InetSocketAddress there = socket(address);
        return !there.isUnresolved() && texts.contains(there.getAddress().getHostAddress());
    }

    @Override
    public String place(VehicleAddress address) {
        InetSocketAddress there = socket(address);
        return there.isUnresolved() ? address.text() : there.getAddress().getHostAddress();
    }

    @Override
    public Optional<String> vin(VehicleAddress address, Duration wait) throws IOException {
        return DoipDiscovery.exchange(
                        socket(address), new DoipMessage.IdentificationRequest(), wait)
                .filter(DoipMessage.Announcement.class::isInstance)
                .map(m -> ((DoipMessage.Announcement) m).vin())
                .filter(v -> v.matches(VIN));
    }

    @Override
    public Transport open(VehicleAddress address, Duration wait) throws WireException {
        return DoipConnection.open(socket(address), testerAddress, wait);
    }

    @Override
    public List<Heard> ask(Collection<VehicleAddress> addresses, Duration wait) throws IOException {
        return DoipDiscovery.ask(
                        addresses.stream().map(DoipNetwork::socket).toList(),
                        new DoipMessage.IdentificationRequest(),
                        wait)
                .stream()
                .map(DoipNetwork::heard)
                .toList();
    }

    private static Heard heard(DoipDiscovery.Found found) {
        return new Heard(
                new IpAddress(found.address().getHostAddress()), found.announcement().vin());
    }

    @Override
    public AutoCloseable listen(String bind, Consumer<Heard> heard) throws IOException {
        return new DoipDiscovery.Listener(
                new InetSocketAddress(bind, DoipDiscovery.PORT), f -> heard.accept(heard(f)));
    }

    @Override
    public Optional<Boolean> ready(VehicleAddress address, Duration wait) throws IOException {
        return DoipDiscovery.exchange(socket(address), new DoipMessage.PowerModeRequest(), wait)
                .filter(DoipMessage.PowerModeResponse.class::isInstance)
                .map(m -> ((DoipMessage.PowerModeResponse) m).mode() == READY);
    }
}
