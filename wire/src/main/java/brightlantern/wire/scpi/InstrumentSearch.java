package brightlantern.wire.scpi;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.Inet4Address;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.time.Duration;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.jmdns.JmDNS;
import javax.jmdns.ServiceInfo;

/**
 * Finds instruments that announce themselves by multicast DNS (RFC 6762, RFC 6763) as speaking SCPI
 * on a plain socket.
 */
public final class InstrumentSearch {
    /** The type of service that they announce. */
    public static final String TYPE = "_scpi-raw._tcp.local.";

    /** Under this name the announcement tells what it is. */
    public static final String MODEL = "Model";

    private InstrumentSearch() {}

    /**
     * An instrument that announced itself.
     *
     * @param name as it calls itself
     * @param model empty where it does not say
     */
    public record Found(String name, String model, InetSocketAddress at) {
        /** Host and port, as they are entered. */
        public String address() {
            return at.getAddress().getHostAddress() + ":" + at.getPort();
        }
    }

    /** All that answer within a time, on every network of this machine, by their names. */
    public static List<Found> search(Duration wait) {
        return addresses().parallelStream()
                .flatMap(a -> on(a, wait))
                .distinct()
                .sorted(Comparator.comparing(Found::name))
                .toList();
    }

    private static List<InetAddress> addresses() {
        try {
            return NetworkInterface.networkInterfaces()
                    .filter(InstrumentSearch::isUp)
                    .flatMap(NetworkInterface::inetAddresses)
                    .filter(Inet4Address.class::isInstance)
                    .toList();
        } catch (SocketException none) {
            return List.of();
        }
    }

    private static boolean isUp(NetworkInterface its) {
        try {
            return its.isUp();
        } catch (SocketException gone) {
            return false;
        }
    }

    private static Stream<Found> on(InetAddress network, Duration wait) {
        JmDNS asker;
        try {
            asker = JmDNS.create(network, "bright-lantern");
        } catch (IOException mute) {
            // nothing can be asked in this network
            return Stream.empty();
        }
        try {
            return Arrays.stream(asker.list(TYPE, wait.toMillis()))
                    .flatMap(InstrumentSearch::found);
        } finally {
            // it takes its time, and nobody needs to wait for it
            inBackground("instrument-search-ends", asker::close);
        }
    }

    private static Stream<Found> found(ServiceInfo info) {
        String model = info.getPropertyString(MODEL);
        return Arrays.stream(info.getInet4Addresses())
                .map(
                        a ->
                                new Found(
                                        info.getName(),
                                        model == null ? "" : model,
                                        new InetSocketAddress(a, info.getPort())));
    }

    /** Something that may fail at the network. */
    private interface Ending {
        void run() throws IOException;
    }

    private static void inBackground(String name, Ending what) {
        Thread thread =
                new Thread(
                        () -> {
                            try {
                                what.run();
                            } catch (IOException gone) {
                                throw new UncheckedIOException(gone);
                            }
                        },
                        name);
        thread.setDaemon(true);
        thread.start();
    }

    /** Announces instruments on one network until it is closed. */
    public static final class Announcer implements AutoCloseable {
        private final JmDNS voice;

        /**
         * @throws IOException when the network cannot be used
         */
        public Announcer(InetAddress network, String host) throws IOException {
            voice = JmDNS.create(network, host);
        }

        /**
         * @throws IOException when it cannot be announced
         */
        public void announce(String name, String model, int port) throws IOException {
            voice.registerService(ServiceInfo.create(TYPE, name, port, 0, 0, Map.of(MODEL, model)));
        }

        @Override
        public void close() {
            inBackground("announcing-ends", voice::close);
        }
    }
}
