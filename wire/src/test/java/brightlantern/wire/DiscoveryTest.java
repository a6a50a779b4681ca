package brightlantern.wire;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.wire.doip.DoipCodec;
import brightlantern.wire.doip.DoipDiscovery;
import brightlantern.wire.doip.DoipMessage;
import java.io.IOException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Vehicles found over real datagrams, among strangers and liars. */
class DiscoveryTest {
    private static final Duration WAIT = Duration.ofMillis(700);
    private static final String VIN = "ZZTPG22D2M1000417";

    private final List<DatagramSocket> sockets = new ArrayList<>();

    private static byte[] announcement() {
        return DoipCodec.encode(
                new DoipMessage.Announcement(
                        VIN,
                        0x1001,
                        Bytes.of(1, 2, 3, 4, 5, 6),
                        Bytes.of(6, 5, 4, 3, 2, 1),
                        0,
                        Optional.of(0)));
    }

    /** Somebody on a port who answers each datagram with these. */
    private InetSocketAddress somebody(byte[]... answers) throws IOException {
        DatagramSocket socket = new DatagramSocket(0, InetAddress.getByName("127.0.0.1"));
        sockets.add(socket);
        Thread thread =
                new Thread(
                        () -> {
                            try {
                                DatagramPacket asked = new DatagramPacket(new byte[512], 512);
                                while (true) {
                                    socket.receive(asked);
                                    for (byte[] answer : answers) {
                                        socket.send(
                                                new DatagramPacket(
                                                        answer,
                                                        answer.length,
                                                        asked.getSocketAddress()));
                                    }
                                }
                            } catch (IOException closed) {
                                // the test is over
                            }
                        });
        thread.setDaemon(true);
        thread.start();
        return (InetSocketAddress) socket.getLocalSocketAddress();
    }

    @AfterEach
    void close() {
        sockets.forEach(DatagramSocket::close);
    }

    private static List<DoipDiscovery.Found> asked(InetSocketAddress... targets)
            throws IOException {
        return DoipDiscovery.ask(List.of(targets), new DoipMessage.IdentificationRequest(), WAIT);
    }

    @Test
    void whoAnswersIsFoundAndWhoIsSilentHidesNobody() throws Exception {
        List<DoipDiscovery.Found> found = asked(somebody(), somebody(announcement()));
        assertThat(found).hasSize(1);
        assertThat(found.get(0).announcement().vin()).isEqualTo(VIN);
        assertThat(found.get(0).address().getHostAddress()).isEqualTo("127.0.0.1");
    }

    @Test
    void noiseAndHalfFramesAreNotOursToComplainAbout() throws Exception {
        byte[] half = Arrays.copyOf(announcement(), 14);
        byte[] lie = announcement();
        lie[7] = 0x7F;
        List<DoipDiscovery.Found> found =
                asked(
                        somebody("hello".getBytes()),
                        somebody(half),
                        somebody(lie),
                        somebody(new byte[0], announcement()));
        assertThat(found).extracting(f -> f.announcement().vin()).containsExactly(VIN);
    }

    @Test
    void nobodyIsNobodyWithinTheTime() throws Exception {
        long before = System.nanoTime();
        assertThat(asked(somebody())).isEmpty();
        assertThat(asked()).isEmpty();
        assertThat(System.nanoTime() - before).isLessThan(5_000_000_000L);
    }

    @Test
    void powerModeAndStatusAreAskedOfOne() throws Exception {
        byte[] mode = DoipCodec.encode(new DoipMessage.PowerModeResponse(1));
        assertThat(DoipDiscovery.exchange(somebody(mode), new DoipMessage.PowerModeRequest(), WAIT))
                .contains(new DoipMessage.PowerModeResponse(1));
        assertThat(
                        DoipDiscovery.exchange(
                                somebody("?".getBytes()), new DoipMessage.PowerModeRequest(), WAIT))
                .isEmpty();
        assertThat(DoipDiscovery.exchange(somebody(), new DoipMessage.PowerModeRequest(), WAIT))
                .isEmpty();
    }

    @Test
    void announcementsAreHeardUntilNobodyListens() throws Exception {
        int port;
        try (DatagramSocket free = new DatagramSocket(0)) {
            port = free.getLocalPort();
        }
        InetSocketAddress here = new InetSocketAddress("127.0.0.1", port);
        List<String> heard = new CopyOnWriteArrayList<>();
        CountDownLatch once = new CountDownLatch(1);
        try (DoipDiscovery.Listener listener =
                        new DoipDiscovery.Listener(
                                here,
                                f -> {
                                    heard.add(f.announcement().vin());
                                    once.countDown();
                                });
                DatagramSocket vehicle = new DatagramSocket()) {
            vehicle.send(new DatagramPacket(new byte[] {1, 2, 3}, 3, here));
            vehicle.send(new DatagramPacket(announcement(), announcement().length, here));
            assertThat(once.await(5, TimeUnit.SECONDS)).isTrue();
        }
        assertThat(heard).containsExactly(VIN);
    }
}
