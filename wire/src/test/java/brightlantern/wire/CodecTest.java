package brightlantern.wire;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.wire.doip.DoipCodec;
import brightlantern.wire.doip.DoipMessage;
import brightlantern.wire.scpi.ScpiLine;
import brightlantern.wire.uds.DtcAnswers;
import brightlantern.wire.uds.NegativeResponseException;
import java.io.ByteArrayInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.assertj.core.api.Assertions;
import org.assertj.core.api.ThrowableAssert;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

class CodecTest {
    @Test
    void framesByHand() throws IOException {
        assertThat(Bytes.of(DoipCodec.encode(new DoipMessage.IdentificationRequest())))
                .isEqualTo(Bytes.hex("02 FD 00 01 00 00 00 00"));
        assertThat(
                        Bytes.of(
                                DoipCodec.encode(
                                        new DoipMessage.Diagnostic(
                                                0x0E80, 0x1010, Bytes.of(0x22, 0xF1, 0x90)))))
                .isEqualTo(Bytes.hex("02 FD 80 01 00 00 00 07 0E 80 10 10 22 F1 90"));
        assertThat(
                        Bytes.of(
                                DoipCodec.encode(
                                        new DoipMessage.RoutingActivationRequest(
                                                0x0E80, 0, Optional.empty()))))
                .isEqualTo(Bytes.hex("02 FD 00 05 00 00 00 07 0E 80 00 00 00 00 00"));
        assertThat(DoipCodec.decode(Bytes.hex("02FD000600000009 0E80 1001 10 00000000").toArray()))
                .isEqualTo(new DoipMessage.RoutingActivationResponse(0x0E80, 0x1001, 0x10));
    }

    /** What a module sends goes into messages that are kept; their length is not the module's. */
    @Test
    void longBytesAreToldShortly() {
        assertThat(Bytes.of(new byte[64])).hasToString("00 ".repeat(63) + "00");
        assertThat(Bytes.of(new byte[60_000]).toString())
                .hasSizeLessThan(250)
                .endsWith("(59936 more bytes)");
    }

    private static Bytes some(Random random, int least, int most) {
        byte[] bytes = new byte[least + random.nextInt(most - least + 1)];
        random.nextBytes(bytes);
        return Bytes.of(bytes);
    }

    /** A message of any kind with any content. */
    private static DoipMessage message(Random random) {
        int address = random.nextInt(0x10000);
        int other = random.nextInt(0x10000);
        int octet = random.nextInt(256);
        Bytes data = some(random, 1, 300);
        StringBuilder vin = new StringBuilder();
        random.ints(17, 0, 36).forEach(i -> vin.append(Character.forDigit(i, 36)));
        return switch (random.nextInt(16)) {
            case 0 -> new DoipMessage.HeaderNack(octet);
            case 1 -> new DoipMessage.IdentificationRequest();
            case 2 -> new DoipMessage.IdentificationRequestByEid(some(random, 6, 6));
            case 3 -> new DoipMessage.IdentificationRequestByVin(vin.toString());
            case 4 ->
                    new DoipMessage.Announcement(
                            vin.toString(),
                            address,
                            some(random, 6, 6),
                            some(random, 6, 6),
                            octet,
                            maybe(random, random.nextInt(256)));
            case 5 ->
                    new DoipMessage.RoutingActivationRequest(
                            address, octet, maybe(random, some(random, 4, 4)));
            case 6 -> new DoipMessage.RoutingActivationResponse(address, other, octet);
            case 7 -> new DoipMessage.AliveCheckRequest();
            case 8 -> new DoipMessage.AliveCheckResponse(address);
            case 9 -> new DoipMessage.EntityStatusRequest();
            case 10 ->
                    new DoipMessage.EntityStatusResponse(
                            octet,
                            random.nextInt(256),
                            random.nextInt(256),
                            maybe(random, random.nextLong() & 0xFFFFFFFFL));
            case 11 -> new DoipMessage.PowerModeRequest();
            case 12 -> new DoipMessage.PowerModeResponse(octet);
            case 13 -> new DoipMessage.Diagnostic(address, other, data);
            case 14 -> new DoipMessage.DiagnosticAck(address, other, octet, data);
            default -> new DoipMessage.DiagnosticNack(address, other, octet, data);
        };
    }

    private static <T> Optional<T> maybe(Random random, T something) {
        return random.nextBoolean() ? Optional.of(something) : Optional.empty();
    }

    @RepeatedTest(1000)
    void decodingUndoesEncoding(RepetitionInfo nth) throws IOException {
        DoipMessage message = message(new Random(nth.getCurrentRepetition()));
        byte[] frame = DoipCodec.encode(message);
        assertThat(DoipCodec.decode(frame)).isEqualTo(message);
        assertThat(DoipCodec.read(new ByteArrayInputStream(frame))).isEqualTo(message);
    }

    @RepeatedTest(1000)
    void aTornFrameNamesTheByte(RepetitionInfo nth) {
        DoipMessage message = message(new Random(nth.getCurrentRepetition()));
        byte[] frame = DoipCodec.encode(message);
        byte[] torn = Arrays.copyOf(frame, frame.length - 1);
        assertThatThrownBy(() -> DoipCodec.decode(torn))
                .isInstanceOf(WireFormatException.class)
                .hasMessageStartingWith("byte ");
        assertThatThrownBy(() -> DoipCodec.read(new ByteArrayInputStream(torn)))
                .isInstanceOf(WireFormatException.class);
    }

    @RepeatedTest(3000)
    void noBytesDoMoreThanAProtocolError(RepetitionInfo nth) {
        byte[] noise = some(new Random(nth.getCurrentRepetition()), 0, 300).toArray();
        try {
            DoipCodec.decode(noise);
        } catch (WireFormatException told) {
            assertThat(told.offset()).isBetween(0, Math.max(8, noise.length));
        }
    }

    /** A right head with hostile insides gets deeper than noise does. */
    @RepeatedTest(3000)
    void noPayloadDoesMoreThanAProtocolError(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        byte[] payload = some(random, 0, 60).toArray();
        int type = TYPES.get(random.nextInt(TYPES.size()));
        byte[] frame = new byte[8 + payload.length];
        frame[0] = 2;
        frame[1] = (byte) 0xFD;
        frame[2] = (byte) (type >> 8);
        frame[3] = (byte) type;
        frame[7] = (byte) payload.length;
        System.arraycopy(payload, 0, frame, 8, payload.length);
        try {
            assertThat(DoipCodec.decode(frame).payloadType()).isEqualTo(type);
        } catch (WireFormatException told) {
            assertThat(told).hasMessageContaining("expected");
        }
    }

    /** Signs that mean something in a line, and some that do not. */
    private static final String SIGNS = "MEASmeas:*?;,()@\"'#12 .\t\u00e9\u0000";

    private static final List<Integer> TYPES =
            List.of(
                    0, 1, 2, 3, 4, 5, 6, 7, 8, 0x4001, 0x4002, 0x4003, 0x4004, 0x8001, 0x8002,
                    0x8003, 0x9999);

    @Test
    void aHugeLengthIsRefusedBeforeMemoryIsTaken() {
        byte[] frame = Bytes.hex("02FD8001 FFFFFFFF").toArray();
        assertThatThrownBy(() -> DoipCodec.read(new ByteArrayInputStream(frame)))
                .hasMessageContaining("at most");
        assertThatThrownBy(() -> DoipCodec.read(new ByteArrayInputStream(new byte[0])))
                .isInstanceOf(EOFException.class);
        assertThatThrownBy(() -> DoipCodec.decode(Bytes.hex("02FE000100000000").toArray()))
                .hasMessageContaining("byte 1")
                .hasMessageContaining("inverse");
    }

    @Test
    void codeAnswersByHand() throws IOException {
        assertThat(DtcAnswers.count(Bytes.hex("5901FF010003"))).isEqualTo(3);
        assertThat(DtcAnswers.list(Bytes.hex("5902FF 029900 2F 902113 28")))
                .containsExactly(
                        new DtcAnswers.Entry(0x029900, 0x2F), new DtcAnswers.Entry(0x902113, 0x28));
        assertThat(
                        DtcAnswers.snapshots(
                                Bytes.hex("5904 029900 2F 01 01 2001 2710"),
                                0x029900,
                                Map.of(0x2001, 2)))
                .singleElement()
                .satisfies(s -> assertThat(s.values().get(0x2001)).isEqualTo(Bytes.hex("2710")));
        assertThatThrownBy(
                        () ->
                                DtcAnswers.snapshots(
                                        Bytes.hex("5904 029900 2F 01 01 2002 27"),
                                        0x029900,
                                        Map.of()))
                .hasMessageContaining("byte 8")
                .hasMessageContaining("2002");
        assertThat(DtcAnswers.extended(Bytes.hex("5906 029900 2F 01 05"), 0x029900, Map.of(1, 1)))
                .containsEntry(1, Bytes.of(5));
    }

    @Test
    void severitiesFrameNumbersAndEmissionCodesByHand() throws IOException {
        assertThat(DtcAnswers.snapshotIds(Bytes.hex("5903 029900 01 029900 02")))
                .containsExactly(
                        new DtcAnswers.SnapshotId(0x029900, 1),
                        new DtcAnswers.SnapshotId(0x029900, 2));
        assertThat(DtcAnswers.severities(Bytes.hex("5908 FF 80 10 029900 2F")))
                .containsExactly(new DtcAnswers.Severe(0x80, 0x029900, 0x2F));
        assertThat(DtcAnswers.groupCodes(Bytes.hex("5942 33 FF E0 04 40 029900 2F"), 0x33))
                .containsExactly(new DtcAnswers.Severe(0x40, 0x029900, 0x2F));
        assertThat(DtcAnswers.groupPermanent(Bytes.hex("5955 33 FF 04 029900 2F"), 0x33))
                .containsExactly(new DtcAnswers.Entry(0x029900, 0x2F));
        assertThatThrownBy(() -> DtcAnswers.groupCodes(Bytes.hex("5942 FE FF E0 04"), 0x33))
                .hasMessageContaining("functional group 33")
                .hasMessageContaining("FE");
    }

    @RepeatedTest(2000)
    void noCodeAnswerDoesMoreThanAProtocolError(RepetitionInfo nth) {
        Bytes bytes = some(new Random(nth.getCurrentRepetition()), 0, 40);
        for (ThrowableAssert.ThrowingCallable read :
                List.<ThrowableAssert.ThrowingCallable>of(
                        () -> DtcAnswers.count(bytes),
                        () -> DtcAnswers.list(bytes),
                        () -> DtcAnswers.snapshots(bytes, 0, Map.of(0, 1)),
                        () -> DtcAnswers.extended(bytes, 0, Map.of(0, 1)),
                        () -> DtcAnswers.snapshotIds(bytes),
                        () -> DtcAnswers.severities(bytes),
                        () -> DtcAnswers.groupCodes(bytes, 0x33),
                        () -> DtcAnswers.groupPermanent(bytes, 0x33))) {
            Throwable thrown = Assertions.catchThrowable(read);
            assertThat(thrown == null || thrown instanceof WireFormatException).isTrue();
        }
    }

    @Test
    void refusalsAreToldInWords() {
        assertThat(new NegativeResponseException(0x2F, 0x83))
                .hasMessageContaining("the engine is running");
        for (int code = 0; code < 256; code++) {
            assertThat(NegativeResponseException.inWords(code)).isNotBlank();
        }
    }

    @Test
    void scpiLinesByHand() throws IOException {
        ScpiLine route = ScpiLine.parse("rout:clos (@X21.1)");
        assertThat(route.is("ROUTe:CLOSe")).isTrue();
        assertThat(route.parameters()).containsExactly("X21.1");
        assertThat(ScpiLine.parse("MEASURE:VOLTAGE:DC?").is("MEASure:VOLTage:DC?")).isTrue();
        assertThat(ScpiLine.parse("MEASU:VOLT:DC?").is("MEASure:VOLTage:DC?")).isFalse();
        assertThat(ScpiLine.parse("DISP:TEXT \"a, b\",2").parameters())
                .containsExactly("a, b", "2");
        assertThatThrownBy(() -> ScpiLine.parse("DISP \"open")).hasMessageContaining("closing");
    }

    @RepeatedTest(2000)
    void noLineDoesMoreThanAProtocolError(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        StringBuilder typed = new StringBuilder();
        random.ints(random.nextInt(30), 0, SIGNS.length())
                .forEach(i -> typed.append(SIGNS.charAt(i)));
        String line = typed.toString();
        try {
            assertThat(ScpiLine.parse(line).header()).isNotEmpty();
        } catch (WireFormatException told) {
            assertThat(told).hasMessageStartingWith("byte ");
        }
    }
}
