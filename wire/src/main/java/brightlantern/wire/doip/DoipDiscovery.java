package brightlantern.wire.doip;

import brightlantern.wire.WireFormatException;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.SocketTimeoutException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * Finds vehicles over UDP, ISO 13400-2:2012 clause 7.4: by asking, and by listening to
 * announcements.
 */
public final class DoipDiscovery {
    /** UDP and TCP port of DoIP, registered with IANA. */
    public static final int PORT = 13400;

    /** A vehicle that made itself known. */
    public record Found(InetAddress address, DoipMessage.Announcement announcement) {}

    private DoipDiscovery() {}

    /**
     * Sends a request to each address and gathers what comes back within the time.
     *
     * @param wait how long to wait for answers altogether; the standard's A_DoIP_Ctrl is 2 s
     */
    public static List<Found> ask(
            List<InetSocketAddress> targets, DoipMessage request, Duration wait)
            throws IOException {
        List<Found> found = new ArrayList<>();
        try (DatagramSocket socket = new DatagramSocket()) {
            byte[] frame = DoipCodec.encode(request);
            for (InetSocketAddress target : targets) {
                try {
                    socket.send(new DatagramPacket(frame, frame.length, target));
                } catch (IOException unreachable) {
                    // one address that cannot be reached must not hide the others
                    continue;
                }
            }
            long end = System.nanoTime() + wait.toNanos();
            while (found.size() < targets.size()) {
                int left = (int) ((end - System.nanoTime()) / 1_000_000);
                if (left <= 0) {
                    break;
                }
                socket.setSoTimeout(left);
                receive(socket).ifPresent(found::add);
            }
        }
        return found;
    }

    /**
     * Asks one entity something that it answers over UDP: entity status (0x4001) or power mode
     * (0x4003).
     *
     * @return empty when nothing that can be read comes back in time
     */
    public static Optional<DoipMessage> exchange(
            InetSocketAddress target, DoipMessage request, Duration wait) throws IOException {
        try (DatagramSocket socket = new DatagramSocket()) {
            byte[] frame = DoipCodec.encode(request);
            socket.send(new DatagramPacket(frame, frame.length, target));
            socket.setSoTimeout((int) wait.toMillis());
            DatagramPacket answer = new DatagramPacket(new byte[2048], 2048);
            socket.receive(answer);
            return Optional.of(
                    DoipCodec.decode(Arrays.copyOf(answer.getData(), answer.getLength())));
        } catch (SocketTimeoutException | WireFormatException nothing) {
            return Optional.empty();
        }
    }

    private static Optional<Found> receive(DatagramSocket socket) throws IOException {
        byte[] room = new byte[2048];
        DatagramPacket packet = new DatagramPacket(room, room.length);
        try {
            socket.receive(packet);
            byte[] frame = Arrays.copyOf(room, packet.getLength());
            if (DoipCodec.decode(frame) instanceof DoipMessage.Announcement heard) {
                return Optional.of(new Found(packet.getAddress(), heard));
            }
        } catch (SocketTimeoutException | WireFormatException quiet) {
            // strangers' datagrams are not ours to complain about
            return Optional.empty();
        }
        return Optional.empty();
    }

    /** Listens to announcements until closed. */
    public static final class Listener implements AutoCloseable {
        private final DatagramSocket socket;

        /**
         * @throws IOException when the port is taken
         */
        public Listener(InetSocketAddress bind, Consumer<Found> heard) throws IOException {
            socket = new DatagramSocket(null);
            socket.setReuseAddress(true);
            socket.bind(bind);
            Thread thread = new Thread(() -> listen(heard), "doip-announcements");
            thread.setDaemon(true);
            thread.start();
        }

        private void listen(Consumer<Found> heard) {
            while (!socket.isClosed()) {
                try {
                    receive(socket).ifPresent(heard);
                } catch (IOException closed) {
                    if (!socket.isClosed()) {
                        socket.close();
                    }
                }
            }
        }

        @Override
        public void close() {
            socket.close();
        }
    }
}
