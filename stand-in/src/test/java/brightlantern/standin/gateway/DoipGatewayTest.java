package brightlantern.standin.gateway;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.standin.module.CodeMemory;
import brightlantern.standin.module.UdsModule;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import brightlantern.wire.doip.DoipCodec;
import brightlantern.wire.doip.DoipConnection;
import brightlantern.wire.doip.DoipDiscovery;
import brightlantern.wire.doip.DoipMessage;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.uds.UdsClient;
import brightlantern.wire.uds.UdsTimings;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The gateway under rough handling, over real sockets. */
class DoipGatewayTest {
    private static final Duration WAIT = Duration.ofSeconds(2);
    private static final InetSocketAddress ADDRESS = new InetSocketAddress("127.0.71.3", 13400);

    private DoipGateway gateway;

    @BeforeEach
    void start() throws IOException {
        List<UdsModule> modules = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            int number = i;
            modules.add(
                    new UdsModule(0x1000 + i, 40, new CodeMemory(List.of()), () -> true)
                            .identifier(0x0100, () -> Bytes.of(number)));
        }
        gateway =
                new DoipGateway(
                        InetAddress.getByName("127.0.71.3"),
                        0x1000,
                        "ZZTPG22D2M1000417",
                        () -> 1,
                        modules);
    }

    @AfterEach
    void stop() {
        gateway.close();
    }

    private static DoipMessage send(Socket socket, DoipMessage message) throws IOException {
        socket.getOutputStream().write(DoipCodec.encode(message));
        return DoipCodec.read(socket.getInputStream());
    }

    private static Socket raw() throws IOException {
        Socket socket = new Socket(ADDRESS.getAddress(), ADDRESS.getPort());
        socket.setSoTimeout(3000);
        return socket;
    }

    @Test
    void diagnosisNeedsActivation() throws IOException {
        try (Socket socket = raw()) {
            DoipMessage answer =
                    send(socket, new DoipMessage.Diagnostic(0x0E80, 0x1001, Bytes.of(0x3E, 0)));
            assertThat(answer)
                    .isInstanceOfSatisfying(
                            DoipMessage.DiagnosticNack.class,
                            n -> assertThat(n.inWords()).contains("tester's address"));
        }
    }

    @Test
    void unknownActivationTypesAndASecondAddressOnOneSocketAreRefused() throws IOException {
        try (Socket socket = raw()) {
            assertThat(code(socket, 0x0E80, 0xE5)).isEqualTo(0x06);
            assertThat(socket.getInputStream().read()).as("refused is closed").isEqualTo(-1);
        }
        try (Socket socket = raw()) {
            assertThat(code(socket, 0x0E80, 0x00)).isEqualTo(0x10);
            assertThat(code(socket, 0x0E81, 0x00)).isEqualTo(0x02);
            assertThat(socket.getInputStream().read()).as("refused is closed").isEqualTo(-1);
        }
        try (Socket socket = raw()) {
            assertThat(code(socket, 0x1001, 0x00)).as("no tester's address").isEqualTo(0x00);
            assertThat(socket.getInputStream().read()).isEqualTo(-1);
        }
    }

    /** ISO 13400-2:2012, table 14 and clause 7.1: both are refused, and the connection goes on. */
    @Test
    void anUnknownTypeAndTooLongAMessageAreRefusedAndPassedOver() throws IOException {
        try (Socket socket = raw()) {
            assertThat(code(socket, 0x0E80, 0x00)).isEqualTo(0x10);
            assertThat(send(socket, new DoipMessage.Unknown(0x9999, Bytes.of(1, 2, 3))))
                    .isEqualTo(new DoipMessage.HeaderNack(0x01));
            int length = DoipCodec.MAX_PAYLOAD + 1;
            byte[] head = Bytes.hex("02FD8001 00010001").toArray();
            socket.getOutputStream().write(head);
            socket.getOutputStream().write(new byte[length]);
            assertThat(DoipCodec.read(socket.getInputStream()))
                    .isEqualTo(new DoipMessage.HeaderNack(0x02));
            assertThat(code(socket, 0x0E80, 0x00)).isEqualTo(0x10);
        }
    }

    @Test
    void whoNeverActivatesIsHungUpOn() throws IOException {
        try (Socket socket = raw()) {
            assertThat(socket.getInputStream().read()).isEqualTo(-1);
        }
    }

    private static int code(Socket socket, int source, int type) throws IOException {
        DoipMessage answer =
                send(
                        socket,
                        new DoipMessage.RoutingActivationRequest(source, type, Optional.empty()));
        return ((DoipMessage.RoutingActivationResponse) answer).code();
    }

    @Test
    void noMoreTestersThanThereIsRoomFor() throws Exception {
        List<DoipConnection> testers = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            testers.add(DoipConnection.open(ADDRESS, 0x0E80 + i, WAIT));
        }
        assertThatThrownBy(() -> DoipConnection.open(ADDRESS, 0x0E90, WAIT))
                .isInstanceOf(WireException.class)
                .hasMessageContaining("all tester sockets");
        testers.forEach(DoipConnection::close);
    }

    @Test
    void noiseEndsThatConnectionWithANackAndLeavesTheOthers() throws Exception {
        try (DoipConnection good = DoipConnection.open(ADDRESS, 0x0E80, WAIT);
                Socket bad = raw()) {
            bad.getOutputStream().write("GET / HTTP/1.1\r\n\r\n".getBytes());
            InputStream in = bad.getInputStream();
            assertThat(DoipCodec.read(in)).isEqualTo(new DoipMessage.HeaderNack(0x00));
            assertThat(in.read()).isEqualTo(-1);
            assertThat(
                            new UdsClient(good, new LogicalAddress(0x1003), UdsTimings.STANDARD)
                                    .read(0x0100))
                    .isEqualTo(Bytes.of(3));
        }
    }

    @Test
    void manyModulesAreAskedAtOnceOverOneConnection() throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(8);
        try (DoipConnection connection = DoipConnection.open(ADDRESS, 0x0E80, WAIT)) {
            List<Future<Integer>> answers = new ArrayList<>();
            for (int i = 0; i < 8; i++) {
                UdsClient client =
                        new UdsClient(
                                connection, new LogicalAddress(0x1000 + i), UdsTimings.STANDARD);
                answers.add(pool.submit(() -> client.read(0x0100).at(0)));
            }
            for (int i = 0; i < 8; i++) {
                assertThat(answers.get(i).get()).isEqualTo(i);
            }
        } finally {
            pool.shutdownNow();
        }
    }

    @Test
    void oneModuleSharedByManyThreadsTakesTurns() throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(6);
        try (DoipConnection connection = DoipConnection.open(ADDRESS, 0x0E80, WAIT)) {
            UdsClient client =
                    new UdsClient(connection, new LogicalAddress(0x1005), UdsTimings.STANDARD);
            List<Future<Bytes>> answers = new ArrayList<>();
            for (int i = 0; i < 12; i++) {
                answers.add(pool.submit(() -> client.read(0x0100)));
            }
            for (Future<Bytes> answer : answers) {
                assertThat(answer.get()).isEqualTo(Bytes.of(5));
            }
        } finally {
            pool.shutdownNow();
        }
    }

    @Test
    void aCancelledWaitEndsAtOnceAndTheModuleAnswersTheNextOne() throws Exception {
        try (DoipConnection connection = DoipConnection.open(ADDRESS, 0x0E80, WAIT)) {
            UdsClient client =
                    new UdsClient(connection, new LogicalAddress(0x1002), UdsTimings.STANDARD);
            Thread asker =
                    new Thread(
                            () ->
                                    assertThatThrownBy(() -> client.read(0x0100))
                                            .hasMessageContaining("Cancelled"));
            asker.start();
            asker.interrupt();
            asker.join(1000);
            assertThat(asker.isAlive()).isFalse();
            assertThat(client.read(0x0100)).isEqualTo(Bytes.of(2));
        }
    }

    @Test
    void aliveCheckIsAnsweredByBothSides() throws IOException {
        try (Socket socket = raw()) {
            assertThat(send(socket, new DoipMessage.AliveCheckRequest()))
                    .isEqualTo(new DoipMessage.AliveCheckResponse(0x1000));
            assertThat(code(socket, 0x0E80, 0)).isEqualTo(0x10);
            try (DoipConnection second = DoipConnection.open(ADDRESS, 0x0E80, WAIT)) {
                assertThat(DoipCodec.read(socket.getInputStream()))
                        .isEqualTo(new DoipMessage.AliveCheckRequest());
                assertThat(second.isOpen()).isTrue();
                assertThat(second.entityAddress()).isEqualTo(0x1000);
            }
        }
    }

    @Test
    void aConnectionThatTheGatewayForgotIsGivenUp() throws Exception {
        InetSocketAddress mute = new InetSocketAddress("127.0.71.4", 13400);
        try (ServerSocket server = new ServerSocket()) {
            server.bind(mute);
            Thread gatewayThatForgets =
                    new Thread(
                            () -> {
                                try (Socket tester = server.accept()) {
                                    DoipCodec.read(tester.getInputStream());
                                    tester.getOutputStream()
                                            .write(
                                                    DoipCodec.encode(
                                                            new DoipMessage
                                                                    .RoutingActivationResponse(
                                                                    0x0E80, 0x1000, 0x10)));
                                    tester.getInputStream().readAllBytes();
                                } catch (IOException ended) {
                                    // the tester gave up, as it should
                                }
                            });
            gatewayThatForgets.start();
            DoipConnection connection = DoipConnection.open(mute, 0x0E80, WAIT);
            for (int i = 0; i < 2; i++) {
                assertThatThrownBy(
                                () ->
                                        connection.send(
                                                new LogicalAddress(0x1001), Bytes.of(0x3E, 0x00)))
                        .hasMessageContaining("acknowledgement for module 1001");
                assertThat(connection.isOpen()).isTrue();
            }
            assertThatThrownBy(
                            () -> connection.send(new LogicalAddress(0x1001), Bytes.of(0x3E, 0x00)))
                    .isInstanceOf(WireException.class);
            assertThat(connection.isOpen()).isFalse();
            gatewayThatForgets.join(5000);
            assertThat(gatewayThatForgets.isAlive()).isFalse();
        }
    }

    /** As a program in real use listens; a stand-in on the same machine must not be in its way. */
    @Test
    void itIsHeardByWhoeverListensOnAllAddresses() throws Exception {
        BlockingQueue<DoipDiscovery.Found> heard = new LinkedBlockingQueue<>();
        try (DoipDiscovery.Listener all =
                new DoipDiscovery.Listener(
                        new InetSocketAddress("0.0.0.0", DoipDiscovery.PORT), heard::add)) {
            gateway.close();
            start();
            gateway.announceTo(new InetSocketAddress("127.0.71.99", DoipDiscovery.PORT));
            DoipDiscovery.Found found = heard.poll(20, TimeUnit.SECONDS);
            assertThat(found).isNotNull();
            assertThat(found.announcement().vin()).isEqualTo("ZZTPG22D2M1000417");
        }
    }
}
