package brightlantern.wire.doip;

import brightlantern.wire.Bytes;
import java.util.Optional;

/**
 * One DoIP message of ISO 13400-2:2012, table 12 (payload types). Addresses are 16-bit logical
 * addresses.
 */
public sealed interface DoipMessage {
    /** Payload type, 0x0000..0xFFFF. */
    int payloadType();

    /**
     * Generic header negative acknowledge; code by table 14 (1 = unknown payload type, 2 = message
     * too large, 4 = invalid length).
     */
    record HeaderNack(int code) implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x0000;
        }
    }

    /**
     * A message of a type that the standard does not know: a tester discards it, an entity refuses
     * it with code 1 (table 14).
     */
    record Unknown(int payloadType, Bytes payload) implements DoipMessage {}

    record IdentificationRequest() implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x0001;
        }
    }

    /** Identification request that only the entity with this six-byte EID answers. */
    record IdentificationRequestByEid(Bytes eid) implements DoipMessage {
        public IdentificationRequestByEid {
            Checks.size("EID", eid, 6);
        }

        @Override
        public int payloadType() {
            return 0x0002;
        }
    }

    /** Identification request that only the vehicle with this VIN answers. */
    record IdentificationRequestByVin(String vin) implements DoipMessage {
        public IdentificationRequestByVin {
            Checks.vin(vin);
        }

        @Override
        public int payloadType() {
            return 0x0003;
        }
    }

    /**
     * Announcement and identification response (table 19).
     *
     * @param furtherAction 0x00 none, 0x10 routing activation to secure central security
     */
    record Announcement(
            String vin,
            int logicalAddress,
            Bytes eid,
            Bytes gid,
            int furtherAction,
            Optional<Integer> sync)
            implements DoipMessage {
        public Announcement {
            Checks.vin(vin);
            Checks.size("EID", eid, 6);
            Checks.size("GID", gid, 6);
        }

        @Override
        public int payloadType() {
            return 0x0004;
        }
    }

    /**
     * Routing activation; type 0x00 is the default, 0x01 the one for emission-related diagnosis
     * (table 24).
     */
    record RoutingActivationRequest(int sourceAddress, int activationType, Optional<Bytes> oem)
            implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x0005;
        }
    }

    /** Answer to a routing activation; code 0x10 is success (table 25). */
    record RoutingActivationResponse(int testerAddress, int entityAddress, int code)
            implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x0006;
        }

        /** Whether routing is active now. */
        public boolean successful() {
            return code == 0x10;
        }

        /** What the code says, in words. */
        public String inWords() {
            return switch (code) {
                case 0x00 -> "the tester address is not known to the vehicle";
                case 0x01 -> "all tester sockets of the vehicle are taken";
                case 0x02 -> "this socket is already active under another tester address";
                case 0x03 -> "this tester address is active on another socket";
                case 0x04 -> "the vehicle wants authentication first";
                case 0x05 -> "the vehicle rejected the confirmation";
                case 0x06 -> "the vehicle does not know this activation type";
                case 0x10 -> "activated";
                case 0x11 -> "will be activated after confirmation on the vehicle";
                default -> "reserved code 0x%02X".formatted(code);
            };
        }
    }

    record AliveCheckRequest() implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x0007;
        }
    }

    record AliveCheckResponse(int sourceAddress) implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x0008;
        }
    }

    record EntityStatusRequest() implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x4001;
        }
    }

    /**
     * @param nodeType 0 gateway, 1 node
     * @param maxSockets how many testers may be connected at once
     * @param maxDataSize largest message in bytes, when told
     */
    record EntityStatusResponse(
            int nodeType, int maxSockets, int openSockets, Optional<Long> maxDataSize)
            implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x4002;
        }
    }

    record PowerModeRequest() implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x4003;
        }
    }

    /**
     * @param mode 0 not ready, 1 ready, 2 not supported (table 8)
     */
    record PowerModeResponse(int mode) implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x4004;
        }
    }

    /** A diagnostic (UDS) message on its way between tester and module. */
    record Diagnostic(int source, int target, Bytes data) implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x8001;
        }
    }

    /** The gateway took the message; code is 0. */
    record DiagnosticAck(int source, int target, int code, Bytes previous) implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x8002;
        }
    }

    /** The gateway could not deliver the message. */
    record DiagnosticNack(int source, int target, int code, Bytes previous) implements DoipMessage {
        @Override
        public int payloadType() {
            return 0x8003;
        }

        /** What the code says, in words (table 29). */
        public String inWords() {
            return switch (code) {
                case 0x02 -> "the gateway does not know the tester's address";
                case 0x03 -> "the gateway knows no module at this address";
                case 0x04 -> "the message is too long for the gateway";
                case 0x05 -> "the gateway is out of memory";
                case 0x06 -> "the module cannot be reached on its bus";
                case 0x07 -> "the gateway does not know the network";
                case 0x08 -> "the transport protocol failed";
                default -> "reserved code 0x%02X".formatted(code);
            };
        }
    }
}
