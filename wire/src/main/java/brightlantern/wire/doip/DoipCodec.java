package brightlantern.wire.doip;

import brightlantern.wire.ByteCursor;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireFormatException;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * Bytes to {@link DoipMessage} and back: the generic header of ISO 13400-2:2012, clause 7.1.2
 * (version, its inverse, payload type, payload length; big-endian), and the payloads.
 */
public final class DoipCodec {
    /** Protocol version of ISO 13400-2:2012. */
    public static final int VERSION = 0x02;

    public static final int HEADER_SIZE = 8;

    /**
     * Longest payload that is accepted, in bytes; UDS over ISO 15765-2 knows 4095, this leaves
     * ample room.
     */
    public static final int MAX_PAYLOAD = 65_536;

    private DoipCodec() {}

    /** The whole frame, header first. */
    public static byte[] encode(DoipMessage message) {
        byte[] payload = payload(message);
        ByteBuffer frame = ByteBuffer.allocate(HEADER_SIZE + payload.length);
        frame.put((byte) VERSION).put((byte) ~VERSION).putShort((short) message.payloadType());
        return frame.putInt(payload.length).put(payload).array();
    }

    /**
     * Reads one whole frame.
     *
     * @throws WireFormatException names the first byte that does not fit
     */
    public static DoipMessage decode(byte[] frame) throws WireFormatException {
        if (frame.length < HEADER_SIZE) {
            throw new WireFormatException(
                    frame.length, "a header of 8 bytes", "a frame of " + frame.length + " byte(s)");
        }
        Header header = header(frame);
        if (header.length != frame.length - HEADER_SIZE) {
            throw new WireFormatException(
                    4,
                    "a payload length of " + (frame.length - HEADER_SIZE),
                    String.valueOf(header.length));
        }
        return payload(header.type, Bytes.of(frame).from(HEADER_SIZE));
    }

    /**
     * Reads one message from a stream, waiting for all of it.
     *
     * @throws EOFException when the stream ends between two messages
     * @throws WireFormatException when the bytes are not DoIP, or the stream ends inside a message
     */
    public static DoipMessage read(InputStream stream) throws IOException {
        DataInputStream in = new DataInputStream(stream);
        byte[] head = new byte[HEADER_SIZE];
        int first = in.read();
        if (first < 0) {
            throw new EOFException("the other side closed the connection");
        }
        head[0] = (byte) first;
        try {
            in.readFully(head, 1, HEADER_SIZE - 1);
            Header header = header(head);
            byte[] payload = new byte[header.length];
            in.readFully(payload);
            return payload(header.type, Bytes.of(payload));
        } catch (EOFException torn) {
            throw new WireFormatException(
                    HEADER_SIZE, "the rest of the message", "the end of the connection");
        }
    }

    private record Header(int type, int length) {}

    private static Header header(byte[] head) throws WireFormatException {
        ByteCursor cursor = new ByteCursor(Bytes.of(head).slice(0, HEADER_SIZE), 0);
        int version = cursor.u8("version");
        int inverse = cursor.u8("inverse version");
        // 0xFF is the version that an identification request may bear when the entity's version is
        // not yet known
        if (version != 0xFF && (version < 1 || version > 4)) {
            throw new WireFormatException(
                    0, "protocol version 01..04 or FF", "%02X".formatted(version));
        }
        if ((version ^ 0xFF) != inverse) {
            throw new WireFormatException(
                    1, "inverse version %02X".formatted(version ^ 0xFF), "%02X".formatted(inverse));
        }
        int type = cursor.u16("payload type");
        long length = cursor.u32("payload length");
        if (length > MAX_PAYLOAD) {
            throw new MessageTooLongException(length);
        }
        return new Header(type, (int) length);
    }

    private static byte[] payload(DoipMessage message) {
        ByteBuffer out = ByteBuffer.allocate(64 + size(message));
        if (message instanceof DoipMessage.HeaderNack m) {
            out.put((byte) m.code());
        } else if (message instanceof DoipMessage.IdentificationRequestByEid m) {
            out.put(m.eid().toArray());
        } else if (message instanceof DoipMessage.IdentificationRequestByVin m) {
            out.put(m.vin().getBytes(StandardCharsets.US_ASCII));
        } else if (message instanceof DoipMessage.Announcement m) {
            out.put(m.vin().getBytes(StandardCharsets.US_ASCII))
                    .putShort((short) m.logicalAddress());
            out.put(m.eid().toArray()).put(m.gid().toArray()).put((byte) m.furtherAction());
            m.sync().ifPresent(sync -> out.put(sync.byteValue()));
        } else if (message instanceof DoipMessage.RoutingActivationRequest m) {
            out.putShort((short) m.sourceAddress()).put((byte) m.activationType()).putInt(0);
            m.oem().ifPresent(oem -> out.put(oem.toArray()));
        } else if (message instanceof DoipMessage.RoutingActivationResponse m) {
            out.putShort((short) m.testerAddress()).putShort((short) m.entityAddress());
            out.put((byte) m.code()).putInt(0);
        } else if (message instanceof DoipMessage.AliveCheckResponse m) {
            out.putShort((short) m.sourceAddress());
        } else if (message instanceof DoipMessage.EntityStatusResponse m) {
            out.put((byte) m.nodeType()).put((byte) m.maxSockets()).put((byte) m.openSockets());
            m.maxDataSize().ifPresent(size -> out.putInt(size.intValue()));
        } else if (message instanceof DoipMessage.PowerModeResponse m) {
            out.put((byte) m.mode());
        } else if (message instanceof DoipMessage.Diagnostic m) {
            out.putShort((short) m.source()).putShort((short) m.target()).put(m.data().toArray());
        } else if (message instanceof DoipMessage.DiagnosticAck m) {
            out.putShort((short) m.source()).putShort((short) m.target());
            out.put((byte) m.code()).put(m.previous().toArray());
        } else if (message instanceof DoipMessage.DiagnosticNack m) {
            out.putShort((short) m.source()).putShort((short) m.target());
            out.put((byte) m.code()).put(m.previous().toArray());
        }
        if (message instanceof DoipMessage.Unknown m) {
            out.put(m.payload().toArray());
        }
        byte[] bytes = new byte[out.position()];
        out.flip().get(bytes);
        return bytes;
    }

    private static int size(DoipMessage message) {
        if (message instanceof DoipMessage.Diagnostic m) {
            return m.data().size();
        }
        if (message instanceof DoipMessage.DiagnosticAck m) {
            return m.previous().size();
        }
        if (message instanceof DoipMessage.Unknown m) {
            return m.payload().size();
        }
        return message instanceof DoipMessage.DiagnosticNack m ? m.previous().size() : 0;
    }

    private static DoipMessage payload(int type, Bytes payload) throws WireFormatException {
        ByteCursor in = new ByteCursor(payload, HEADER_SIZE);
        DoipMessage message =
                switch (type) {
                    case 0x0000 -> new DoipMessage.HeaderNack(in.u8("code"));
                    case 0x0001 -> new DoipMessage.IdentificationRequest();
                    case 0x0002 -> new DoipMessage.IdentificationRequestByEid(in.take(6, "EID"));
                    case 0x0003 -> new DoipMessage.IdentificationRequestByVin(vin(in));
                    case 0x0004 -> announcement(in);
                    case 0x0005 -> activation(in);
                    case 0x0006 -> {
                        var answer =
                                new DoipMessage.RoutingActivationResponse(
                                        in.u16("tester address"),
                                        in.u16("entity address"),
                                        in.u8("code"));
                        in.take(4, "reserved bytes");
                        if (in.left() == 4) {
                            in.take(4, "bytes of the maker");
                        }
                        yield answer;
                    }
                    case 0x0007 -> new DoipMessage.AliveCheckRequest();
                    case 0x0008 -> new DoipMessage.AliveCheckResponse(in.u16("source address"));
                    case 0x4001 -> new DoipMessage.EntityStatusRequest();
                    case 0x4002 ->
                            new DoipMessage.EntityStatusResponse(
                                    in.u8("node type"),
                                    in.u8("socket limit"),
                                    in.u8("open sockets"),
                                    in.left() > 0
                                            ? Optional.of(in.u32("largest message"))
                                            : Optional.empty());
                    case 0x4003 -> new DoipMessage.PowerModeRequest();
                    case 0x4004 -> new DoipMessage.PowerModeResponse(in.u8("power mode"));
                    case 0x8001 -> diagnostic(in);
                    case 0x8002 ->
                            new DoipMessage.DiagnosticAck(
                                    in.u16("source"), in.u16("target"), in.u8("code"), in.rest());
                    case 0x8003 ->
                            new DoipMessage.DiagnosticNack(
                                    in.u16("source"), in.u16("target"), in.u8("code"), in.rest());
                    default -> new DoipMessage.Unknown(type, in.rest());
                };
        in.end("DoIP message %04X".formatted(type));
        return message;
    }

    private static DoipMessage diagnostic(ByteCursor in) throws WireFormatException {
        int source = in.u16("source");
        int target = in.u16("target");
        if (in.left() == 0) {
            throw new WireFormatException(in.offset(), "at least one byte of user data", "the end");
        }
        return new DoipMessage.Diagnostic(source, target, in.rest());
    }

    private static DoipMessage announcement(ByteCursor in) throws WireFormatException {
        return new DoipMessage.Announcement(
                vin(in),
                in.u16("logical address"),
                in.take(6, "EID"),
                in.take(6, "GID"),
                in.u8("further action"),
                in.left() > 0 ? Optional.of(in.u8("sync status")) : Optional.empty());
    }

    private static DoipMessage activation(ByteCursor in) throws WireFormatException {
        int source = in.u16("source address");
        int kind = in.u8("activation type");
        in.take(4, "reserved bytes");
        return new DoipMessage.RoutingActivationRequest(
                source,
                kind,
                in.left() > 0 ? Optional.of(in.take(4, "bytes of the maker")) : Optional.empty());
    }

    private static String vin(ByteCursor in) throws WireFormatException {
        return new String(in.take(17, "VIN").toArray(), StandardCharsets.ISO_8859_1);
    }
}
