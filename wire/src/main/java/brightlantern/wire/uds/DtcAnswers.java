package brightlantern.wire.uds;

import brightlantern.wire.ByteCursor;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireFormatException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Answers of service 0x19 (ISO 14229-1:2013, clause 11.3) read into records. DTCs are 24-bit
 * numbers.
 */
public final class DtcAnswers {
    /** One code with its status byte (annex D.2). */
    public record Entry(int dtc, int status) {}

    /** One freeze frame: its record number and identifier → value. */
    public record Snapshot(int record, Map<Integer, Bytes> values) {}

    /**
     * One code with its severity.
     *
     * @param severity the byte of annex D.3: bits 7 to 5 check at once, check at next halt,
     *     maintenance only; 0 when the module has none
     */
    public record Severe(int severity, int dtc, int status) {}

    /** That a code has a freeze frame of this number. */
    public record SnapshotId(int dtc, int record) {}

    private DtcAnswers() {}

    /** Reads 59 01: the number of codes, 0..65535. */
    public static int count(Bytes answer) throws WireFormatException {
        ByteCursor in = start(answer, 0x01);
        in.u8("availability mask");
        in.u8("format");
        int count = in.u16("count");
        in.end("answer");
        return count;
    }

    /** Reads 59 02, 59 0A and 59 15. */
    public static List<Entry> list(Bytes answer) throws WireFormatException {
        ByteCursor in = new ByteCursor(answer, 0);
        in.u8("service");
        in.u8("kind");
        in.u8("availability mask");
        List<Entry> entries = new ArrayList<>();
        while (in.left() > 0) {
            entries.add(new Entry(in.u24("code"), in.u8("status")));
        }
        return List.copyOf(entries);
    }

    /** Reads 59 03: which code has which freeze frames. */
    public static List<SnapshotId> snapshotIds(Bytes answer) throws WireFormatException {
        ByteCursor in = start(answer, 0x03);
        List<SnapshotId> ids = new ArrayList<>();
        while (in.left() > 0) {
            ids.add(new SnapshotId(in.u24("code"), in.u8("record number")));
        }
        return List.copyOf(ids);
    }

    /** Reads 59 08 and 59 09: codes with severity and functional unit. */
    public static List<Severe> severities(Bytes answer) throws WireFormatException {
        ByteCursor in = new ByteCursor(answer, 0);
        in.u8("service");
        in.u8("kind");
        in.u8("availability mask");
        List<Severe> codes = new ArrayList<>();
        while (in.left() > 0) {
            int severity = in.u8("severity");
            in.u8("functional unit");
            codes.add(new Severe(severity, in.u24("code"), in.u8("status")));
        }
        return List.copyOf(codes);
    }

    /** Reads 59 42: codes of a functional group, such as 0x33, the emission system. */
    public static List<Severe> groupCodes(Bytes answer, int group) throws WireFormatException {
        ByteCursor in = groupHead(answer, 0x42, group);
        in.u8("severity availability mask");
        in.u8("format");
        List<Severe> codes = new ArrayList<>();
        while (in.left() > 0) {
            codes.add(new Severe(in.u8("severity"), in.u24("code"), in.u8("status")));
        }
        return List.copyOf(codes);
    }

    /** Reads 59 55: permanent codes of a functional group. */
    public static List<Entry> groupPermanent(Bytes answer, int group) throws WireFormatException {
        ByteCursor in = groupHead(answer, 0x55, group);
        in.u8("format");
        List<Entry> codes = new ArrayList<>();
        while (in.left() > 0) {
            codes.add(new Entry(in.u24("code"), in.u8("status")));
        }
        return List.copyOf(codes);
    }

    private static ByteCursor groupHead(Bytes answer, int kind, int group)
            throws WireFormatException {
        ByteCursor in = start(answer, kind);
        int at = in.offset();
        int told = in.u8("functional group");
        if (told != group) {
            throw new WireFormatException(
                    at, "functional group %02X".formatted(group), "%02X".formatted(told));
        }
        in.u8("status availability mask");
        return in;
    }

    /** Reads 59 04; the sizes of the values are not on the wire and come from the caller. */
    public static List<Snapshot> snapshots(Bytes answer, int dtc, Map<Integer, Integer> sizes)
            throws WireFormatException {
        ByteCursor in = codeHead(answer, 0x04, dtc);
        List<Snapshot> snapshots = new ArrayList<>();
        while (in.left() > 0) {
            int record = in.u8("record number");
            int count = in.u8("number of identifiers");
            Map<Integer, Bytes> values = new LinkedHashMap<>();
            for (int i = 0; i < count; i++) {
                int at = in.offset();
                int did = in.u16("identifier");
                Integer size = sizes.get(did);
                if (size == null) {
                    throw new WireFormatException(
                            at, "an identifier of known size", "%04X".formatted(did));
                }
                values.put(did, in.take(size, "value of %04X".formatted(did)));
            }
            snapshots.add(new Snapshot(record, values));
        }
        return List.copyOf(snapshots);
    }

    /** Reads 59 06. */
    public static Map<Integer, Bytes> extended(Bytes answer, int dtc, Map<Integer, Integer> sizes)
            throws WireFormatException {
        ByteCursor in = codeHead(answer, 0x06, dtc);
        Map<Integer, Bytes> records = new LinkedHashMap<>();
        while (in.left() > 0) {
            int at = in.offset();
            int record = in.u8("record number");
            Integer size = sizes.get(record);
            if (size == null) {
                throw new WireFormatException(
                        at, "a record of known size", "%02X".formatted(record));
            }
            records.put(record, in.take(size, "record %02X".formatted(record)));
        }
        return records;
    }

    private static ByteCursor codeHead(Bytes answer, int kind, int dtc) throws WireFormatException {
        ByteCursor in = start(answer, kind);
        int at = in.offset();
        int told = in.u24("code");
        if (told != dtc) {
            throw new WireFormatException(at, "code %06X".formatted(dtc), "%06X".formatted(told));
        }
        in.u8("status");
        return in;
    }

    private static ByteCursor start(Bytes answer, int kind) throws WireFormatException {
        ByteCursor in = new ByteCursor(answer, 0);
        in.u8("service");
        int told = in.u8("kind");
        if (told != kind) {
            throw new WireFormatException(1, "kind %02X".formatted(kind), "%02X".formatted(told));
        }
        return in;
    }
}
