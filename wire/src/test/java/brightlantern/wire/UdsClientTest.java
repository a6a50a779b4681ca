package brightlantern.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.wire.doip.DoipConnection;
import brightlantern.wire.doip.DoipMessage;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.uds.DtcAnswers;
import brightlantern.wire.uds.NegativeResponseException;
import brightlantern.wire.uds.UdsClient;
import brightlantern.wire.uds.UdsTimings;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The client over a real socket, against a gateway that sends what a test wrote down. */
class UdsClientTest {
    private static final Duration WAIT = Duration.ofSeconds(2);
    private static final UdsTimings QUICK =
            new UdsTimings(
                    Duration.ofMillis(700),
                    Duration.ofMillis(1500),
                    Duration.ofMillis(5000),
                    Duration.ofMillis(2000),
                    3,
                    Duration.ofMillis(5));

    private ScriptedGateway gateway;
    private DoipConnection connection;
    private UdsClient client;

    @BeforeEach
    void open() throws Exception {
        gateway = new ScriptedGateway();
        connection = DoipConnection.open(gateway.address(), ScriptedGateway.TESTER, WAIT);
        client = new UdsClient(connection, new LogicalAddress(ScriptedGateway.MODULE), QUICK);
    }

    @AfterEach
    void close() throws Exception {
        connection.close();
        gateway.close();
    }

    @Test
    void anAnswerComesBackWhole() throws Exception {
        gateway.on("22F190", w -> w.answer(0x62, 0xF1, 0x90, 'Z', 'Z'));
        assertThat(client.read(0xF190).asText()).isEqualTo("ZZ");
        assertThat(connection.entityAddress()).isEqualTo(0x1001);
        assertThat(gateway.requests()).containsExactly(Bytes.hex("22F190"));
    }

    @Test
    void severalIdentifiersAreOfOneMomentAndKeepTheirOrder() throws Exception {
        gateway.on("2220012002", w -> w.answer(0x62, 0x20, 0x01, 7, 0x20, 0x02, 1, 2));
        Map<Integer, Integer> sizes = new LinkedHashMap<>();
        sizes.put(0x2001, 1);
        sizes.put(0x2002, 2);
        assertThat(client.read(sizes))
                .containsEntry(0x2001, Bytes.of(7))
                .containsEntry(0x2002, Bytes.of(1, 2));
    }

    @ParameterizedTest
    @CsvSource({
        "62 20 01 07 20 02 01, value of 2002",
        "62 20 01 07, identifier",
        "62 20 01 07 20 03 01 02, identifier 2002",
        "62 20 01 07 20 02 01 02 09, the end of the answer",
    })
    void whatDoesNotFitNamesItsPlace(String answer, String told) {
        byte[] bytes = Bytes.hex(answer).toArray();
        int[] values = new int[bytes.length];
        for (int i = 0; i < bytes.length; i++) {
            values[i] = bytes[i] & 0xFF;
        }
        gateway.on("2220012002", w -> w.answer(values));
        Map<Integer, Integer> sizes = new LinkedHashMap<>();
        sizes.put(0x2001, 1);
        sizes.put(0x2002, 2);
        assertThatThrownBy(() -> client.read(sizes))
                .isInstanceOf(WireFormatException.class)
                .hasMessageContaining(told);
    }

    @Test
    void aChainOfPendingIsBorneToItsLimitAndNoLonger() throws Exception {
        gateway.on(
                "31010203",
                w -> {
                    for (int i = 0; i < 4; i++) {
                        w.answer(0x7F, 0x31, 0x78);
                        w.pause(120);
                    }
                    w.answer(0x71, 0x01, 0x02, 0x03, 9);
                });
        assertThat(client.routine(1, 0x0203, Bytes.EMPTY)).isEqualTo(Bytes.of(9));
        gateway.on(
                "22F190",
                w -> {
                    for (int i = 0; i < 25; i++) {
                        w.answer(0x7F, 0x22, 0x78);
                        w.pause(110);
                    }
                });
        assertThatThrownBy(() -> client.read(0xF190))
                .isInstanceOf(SilenceException.class)
                .hasMessageContaining("asked for more time");
    }

    @Test
    void aBusyModuleIsAskedAgainSoManyTimes() throws Exception {
        ScriptedGateway.Step busy = w -> w.answer(0x7F, 0x22, 0x21);
        gateway.on("22F190", busy, busy, w -> w.answer(0x62, 0xF1, 0x90, 1));
        assertThat(client.read(0xF190)).isEqualTo(Bytes.of(1));
        assertThat(gateway.requests()).hasSize(3);
        gateway.on("22F191", busy);
        assertThatThrownBy(() -> client.read(0xF191))
                .isInstanceOfSatisfying(
                        NegativeResponseException.class,
                        e -> {
                            assertThat(e.code()).isEqualTo(0x21);
                            assertThat(e.service()).isEqualTo(0x22);
                        });
    }

    @ParameterizedTest
    @ValueSource(ints = {0x10, 0x13, 0x22, 0x31, 0x33, 0x72, 0x7F, 0x93, 0xFF})
    void aRefusalIsOne(int code) {
        gateway.on("2E F1 90 01", w -> w.answer(0x7F, 0x2E, code));
        assertThatThrownBy(() -> client.write(0xF190, Bytes.of(1)))
                .isInstanceOfSatisfying(
                        NegativeResponseException.class, e -> assertThat(e.code()).isEqualTo(code))
                .hasMessageContaining("0x2E")
                .hasMessageContaining(NegativeResponseException.inWords(code));
    }

    @Test
    void silenceIsToldAndTheNextAnswerIsNotMixedUp() throws Exception {
        gateway.on(
                "22F190",
                w -> {
                    // too late for the one who asked
                    w.pause(1000);
                    w.answer(0x62, 0xF1, 0x90, 1);
                });
        assertThatThrownBy(() -> client.read(0xF190)).isInstanceOf(SilenceException.class);
        gateway.on("22F191", w -> w.answer(0x62, 0xF1, 0x91, 2));
        assertThat(client.read(0xF191)).isEqualTo(Bytes.of(2));
    }

    @Test
    void aLateRefusalOfAnotherServiceIsPassedOver() throws Exception {
        gateway.on(
                "22F190",
                w -> {
                    w.answer(0x7F, 0x31, 0x22);
                    w.answer(0x62, 0xF1, 0x90, 3);
                });
        assertThat(client.read(0xF190)).isEqualTo(Bytes.of(3));
    }

    @Test
    void theLateAnswerToAStartIsNotTakenForTheOneToAStop() throws Exception {
        gateway.on(
                "31020602",
                w -> {
                    w.answer(0x71, 0x01, 0x06, 0x02);
                    w.answer(0x71, 0x02, 0x06, 0x02, 7);
                });
        assertThat(client.routine(2, 0x0602, Bytes.EMPTY)).isEqualTo(Bytes.of(7));
    }

    @Test
    void anAnswerAboutSomethingElseIsToldWhenNoOtherComes() {
        gateway.on("22F190", w -> w.answer(0x62, 0xF1, 0x99, 3));
        assertThatThrownBy(() -> client.read(0xF190))
                .isInstanceOf(WireFormatException.class)
                .hasMessageContaining("an answer about F1 90");
        gateway.on("22F191", w -> w.answer(0x7F, 0x22));
        assertThatThrownBy(() -> client.read(0xF191)).hasMessageContaining("three bytes");
    }

    @Test
    void aCutLineTellsWhoeverWaitsAtOnce() {
        gateway.on("22F190", ScriptedGateway.Wire::cut);
        assertThatThrownBy(() -> client.read(0xF190))
                .isInstanceOf(WireException.class)
                .hasMessageContaining("lost");
        assertThat(connection.isOpen()).isFalse();
        assertThatThrownBy(() -> client.read(0xF191)).hasMessageContaining("lost");
    }

    @Test
    void aTornFrameEndsTheConnectionWithItsPlace() {
        gateway.on(
                "22F190",
                w -> {
                    w.raw((byte) 2, (byte) 0xFD, (byte) 0x80, (byte) 1, (byte) 0, (byte) 0);
                    w.cut();
                });
        assertThatThrownBy(() -> client.read(0xF190)).isInstanceOf(WireException.class);
        assertThat(connection.isOpen()).isFalse();
    }

    @Test
    void aFrameThatClaimsToBeHugeTakesNoMemory() {
        gateway.on(
                "22F190",
                w ->
                        w.raw(
                                (byte) 2,
                                (byte) 0xFD,
                                (byte) 0x80,
                                (byte) 1,
                                (byte) 0x7F,
                                (byte) 0xFF,
                                (byte) 0xFF,
                                (byte) 0xFF));
        assertThatThrownBy(() -> client.read(0xF190)).isInstanceOf(WireException.class);
    }

    @Test
    void anAliveCheckInBetweenIsAnsweredAndDisturbsNothing() throws Exception {
        gateway.on(
                "22F190",
                w -> {
                    w.send(new DoipMessage.AliveCheckRequest());
                    w.answer(0x62, 0xF1, 0x90, 5);
                });
        assertThat(client.read(0xF190)).isEqualTo(Bytes.of(5));
    }

    @ParameterizedTest
    @ValueSource(ints = {0x02, 0x03, 0x04, 0x05, 0x06, 0x07, 0x08})
    void whatTheGatewayTurnsDownIsToldInWords(int code) {
        gateway.nacks(code);
        assertThatThrownBy(() -> client.read(0xF190))
                .isInstanceOf(WireException.class)
                .hasMessageContaining("Module 1010");
    }

    @ParameterizedTest
    @ValueSource(ints = {0x00, 0x01, 0x02, 0x03, 0x04, 0x05, 0x06})
    void aRefusedActivationSaysWhy(int code) throws Exception {
        try (ScriptedGateway refusing = new ScriptedGateway().activates(code)) {
            assertThatThrownBy(
                            () ->
                                    DoipConnection.open(
                                            refusing.address(), ScriptedGateway.TESTER, WAIT))
                    .isInstanceOf(WireException.class)
                    .hasMessageContaining("refused routing activation");
        }
    }

    @Test
    void nobodyThereAndNobodyAnsweringAreToldApart() throws Exception {
        try (ScriptedGateway mute = new ScriptedGateway().activates(-1)) {
            assertThatThrownBy(
                            () ->
                                    DoipConnection.open(
                                            mute.address(),
                                            ScriptedGateway.TESTER,
                                            Duration.ofMillis(200)))
                    .hasMessageContaining("routing activation");
        }
        ScriptedGateway gone = new ScriptedGateway();
        gone.close();
        assertThatThrownBy(() -> DoipConnection.open(gone.address(), ScriptedGateway.TESTER, WAIT))
                .hasMessageContaining("No DoIP gateway answers at 127.0.0.1");
    }

    /** Of another module. */
    private static final DoipMessage.Diagnostic ANOTHER =
            new DoipMessage.Diagnostic(
                    ScriptedGateway.MODULE + 1, ScriptedGateway.TESTER, Bytes.of(0x7E));

    @Test
    void aSecondAnswerGivesATwinAwayHoweverEarlyItComes() throws Exception {
        gateway.on(
                        "22F190",
                        w -> {
                            w.answer(0x62, 0xF1, 0x90, 1);
                            w.answer(0x62, 0xF1, 0x90, 2);
                            w.send(ANOTHER);
                        })
                .on("22F191", w -> w.answer(0x62, 0xF1, 0x91, 3));
        assertThat(client.read(0xF190)).isEqualTo(Bytes.of(1));
        // what came before this one is there before the next question
        connection.receive(new LogicalAddress(ANOTHER.source()), WAIT);
        assertThatThrownBy(() -> client.read(0xF191))
                .hasMessageContaining("more than one module may have the address");
        assertThat(client.read(0xF191)).isEqualTo(Bytes.of(3));
    }

    @Test
    void aLateAnswerIsNoTwins() throws Exception {
        gateway.on(
                        "22F190",
                        w -> {
                            w.pause(QUICK.p2().toMillis() + 150);
                            w.answer(0x62, 0xF1, 0x90, 1);
                        },
                        w -> {
                            w.answer(0x62, 0xF1, 0x90, 1);
                            w.send(ANOTHER);
                        })
                .on("22F191", w -> w.answer(0x62, 0xF1, 0x91, 3));
        assertThatThrownBy(() -> client.read(0xF190)).isInstanceOf(SilenceException.class);
        // the late one is taken for this one's, and this one's own is one too many
        assertThat(client.read(0xF190)).isEqualTo(Bytes.of(1));
        connection.receive(new LogicalAddress(ANOTHER.source()), WAIT);
        assertThat(client.read(0xF191)).isEqualTo(Bytes.of(3));
    }

    @Test
    void someoneWhoIsTurnedAwayWhileWaitingGoesAtOnce() throws Exception {
        gateway.on("22F190", w -> w.pause(10_000));
        UdsClient patient =
                new UdsClient(
                        connection,
                        new LogicalAddress(ScriptedGateway.MODULE),
                        QUICK.withP2(Duration.ofSeconds(20)));
        Throwable[] met = new Throwable[1];
        Thread waiting =
                new Thread(
                        () -> {
                            try {
                                patient.read(0xF190);
                            } catch (WireException cancelled) {
                                met[0] = cancelled;
                            }
                        });
        waiting.start();
        while (gateway.requests().isEmpty()) {
            Thread.onSpinWait();
        }
        waiting.interrupt();
        waiting.join(5_000);
        assertThat(met[0]).isInstanceOf(CancelledException.class);
        assertThat(connection.isOpen()).isTrue();
    }

    @Test
    void outputsRoutinesAndSessionsAreCodedAsTheStandardSays() throws Exception {
        gateway.on("1003", w -> w.answer(0x50, 0x03, 0, 50, 1, 244))
                .on("3E00", w -> w.answer(0x7E, 0))
                .on("2F300103C8", w -> w.answer(0x6F, 0x30, 0x01, 0x03, 0xC8))
                .on("2F300100", w -> w.answer(0x6F, 0x30, 0x01, 0x00, 0))
                .on("3102FF00", w -> w.answer(0x71, 2, 0xFF, 0))
                .on("3103FF00", w -> w.answer(0x71, 3, 0xFF))
                .on("1101", w -> w.answer(0x51, 1))
                .on("14FFFFFF", w -> w.answer(0x54));
        client.session(3);
        client.testerPresent();
        assertThat(client.control(0x3001, Bytes.of(200)).at(4)).isEqualTo(200);
        client.giveBack(0x3001);
        assertThat(client.routine(2, 0xFF00, Bytes.EMPTY)).isEqualTo(Bytes.EMPTY);
        assertThatThrownBy(() -> client.routine(3, 0xFF00, Bytes.EMPTY))
                .hasMessageContaining("an answer about 03 FF 00");
        client.reset(1);
        client.clear(0xFFFFFF);
        assertThat(gateway.requests()).hasSize(8);
    }

    @Test
    void codesAreReadWithTheirFramesAndCounters() throws Exception {
        gateway.on("1902FF", w -> w.answer(0x59, 2, 0xFF, 0, 0x29, 0x90, 0x2F))
                .on("1901FF", w -> w.answer(0x59, 1, 0xFF, 1, 0, 1))
                .on("190A", w -> w.answer(0x59, 0x0A, 0xFF, 0, 0x29, 0x90, 0x2F, 0, 0x30, 0x10, 0))
                .on("1915", w -> w.answer(0x59, 0x15, 0xFF))
                .on("1903", w -> w.answer(0x59, 3, 0, 0x29, 0x90, 1))
                .on("19040029 90FF", w -> w.answer(0x59, 4, 0, 0x29, 0x90, 0x2F, 1, 1, 0x20, 1, 8))
                .on("19060029 90FF", w -> w.answer(0x59, 6, 0, 0x29, 0x90, 0x2F, 1, 4, 2, 0));
        DtcAnswers.Entry entry = new DtcAnswers.Entry(0x002990, 0x2F);
        assertThat(client.codes(0xFF)).containsExactly(entry);
        assertThat(client.countCodes(0xFF)).isEqualTo(1);
        assertThat(client.supportedCodes()).hasSize(2);
        assertThat(client.permanentCodes()).isEmpty();
        assertThat(client.snapshotIds()).containsExactly(new DtcAnswers.SnapshotId(0x002990, 1));
        assertThat(client.snapshots(0x002990, 0xFF, Map.of(0x2001, 1)).get(0).values())
                .containsEntry(0x2001, Bytes.of(8));
        assertThatThrownBy(() -> client.snapshots(0x002990, 0xFF, Map.of()))
                .hasMessageContaining("identifier of known size");
        assertThat(client.extendedData(0x002990, 0xFF, Map.of(1, 1, 2, 1)))
                .containsEntry(1, Bytes.of(4));
    }

    @Test
    void aGatewayThatForgotTheConnectionIsGivenUp() {
        gateway.goesDeaf();
        for (int i = 0; i < 3 && connection.isOpen(); i++) {
            assertThatThrownBy(() -> client.read(0xF190)).isInstanceOf(WireException.class);
        }
        assertThat(connection.isOpen()).isFalse();
    }

    @Test
    void identifiersArePackedIntoRequests() {
        assertThat(UdsClient.packs(List.of(1, 2, 3, 4, 5), 2))
                .containsExactly(List.of(1, 2), List.of(3, 4), List.of(5));
        assertThat(UdsClient.packs(List.of(), 2)).isEmpty();
    }
}
