package brightlantern.wire.uds;

import brightlantern.wire.ByteCursor;
import brightlantern.wire.Bytes;
import brightlantern.wire.CancelledException;
import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.transport.ModuleAddress;
import brightlantern.wire.transport.Transport;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;

/**
 * Talks UDS to one module: one outstanding request, answers matched to the request, 0x78 waited out
 * within P2*, 0x21 asked again. Safe for use by several threads; they take turns.
 */
public final class UdsClient {
    /** So many requests that were given up are remembered; more are never answered. */
    private static final int MOST_OWED = 3;

    private final Transport transport;
    private final ModuleAddress address;
    private final UdsTimings timings;

    private final Turns turns;

    /** What all who ask one module share. */
    private static final class Turns {
        final ReentrantLock lock = new ReentrantLock(true);

        /** Answers to requests that were given up may still come; they are no twin's. */
        int owed;

        /** The request before this one; a second answer to it gives a twin away. */
        Bytes before = Bytes.EMPTY;
    }

    /** A client of one module; all who ask that module should share it. */
    public UdsClient(Transport transport, ModuleAddress address, UdsTimings timings) {
        this(transport, address, timings, new Turns());
    }

    private UdsClient(Transport transport, ModuleAddress address, UdsTimings timings, Turns turns) {
        this.transport = transport;
        this.address = address;
        this.timings = timings;
        this.turns = turns;
    }

    /** The same module, asked with other timings; both take turns. */
    public UdsClient with(UdsTimings other) {
        return new UdsClient(transport, address, other, turns);
    }

    /** Where the module is reached. */
    public ModuleAddress address() {
        return address;
    }

    /**
     * Sends a request and waits for its final answer.
     *
     * @return the positive answer, service byte first
     * @throws NegativeResponseException when the module refuses
     * @throws SilenceException when it does not answer in time
     * @throws WireFormatException when the answer does not belong to the request
     */
    public Bytes request(Bytes request) throws WireException {
        try {
            turns.lock.lockInterruptibly();
        } catch (InterruptedException cancelled) {
            Thread.currentThread().interrupt();
            throw new CancelledException("Cancelled while waiting for the module's turn");
        }
        try {
            for (int attempt = 0; ; attempt++) {
                try {
                    return once(request);
                } catch (SilenceException | CancelledException unanswered) {
                    answerMayStillCome();
                    throw unanswered;
                } catch (NegativeResponseException refused) {
                    if (refused.code() != 0x21 || attempt >= timings.busyRetries()) {
                        throw refused;
                    }
                    pause(timings.busyPause());
                }
            }
        } finally {
            turns.before = request;
            turns.lock.unlock();
        }
    }

    private static void pause(Duration time) throws WireException {
        try {
            TimeUnit.NANOSECONDS.sleep(time.toNanos());
        } catch (InterruptedException cancelled) {
            Thread.currentThread().interrupt();
            throw new CancelledException("Cancelled while the module was busy");
        }
    }

    /** How many bytes after the service an answer repeats of its request (ISO 14229-1). */
    private static int repeated(int service) {
        return switch (service) {
            case 0x10, 0x11, 0x19, 0x3E -> 1;
            case 0x22, 0x2E, 0x2F -> 2;
            case 0x31 -> 3;
            default -> 0;
        };
    }

    private void answerMayStillCome() {
        turns.owed = Math.min(MOST_OWED, turns.owed + 1);
    }

    /**
     * A second answer to the request before this one, while none is owed, gives a twin away.
     *
     * @throws WireFormatException when it is one
     */
    private void refuseTwin(Bytes answer) throws WireFormatException {
        if (turns.before.size() < 3
                || turns.before.at(0) != 0x22
                || answer.size() < 3
                || answer.at(0) != 0x62
                || !answer.slice(1, 2).equals(turns.before.slice(1, 2))) {
            return;
        }
        if (turns.owed > 0) {
            turns.owed--;
            return;
        }
        throw new WireFormatException(
                0,
                "one answer to a request",
                "a second one (more than one module may have the address of "
                        + address.words()
                        + ")");
    }

    private Bytes once(Bytes request) throws WireException {
        for (Bytes late : transport.unasked(address)) {
            refuseTwin(late);
        }
        transport.send(address, request);
        long start = System.nanoTime();
        Duration wait = timings.p2();
        WireFormatException stranger = null;
        while (true) {
            Bytes answer;
            try {
                answer = transport.receive(address, wait);
            } catch (SilenceException silent) {
                if (stranger == null) {
                    throw silent;
                }
                // what came instead of an answer says more than that none came
                answerMayStillCome();
                throw stranger;
            }
            if (answer.at(0) == 0x7F) {
                if (answer.size() != 3) {
                    throw new WireFormatException(
                            Math.min(answer.size(), 3),
                            "a refusal of three bytes",
                            answer.toString());
                }
                if (answer.at(1) != request.at(0)) {
                    // the late refusal of an earlier request that was given up
                    continue;
                }
                if (answer.at(2) != 0x78) {
                    throw new NegativeResponseException(answer.at(1), answer.at(2));
                }
                if (System.nanoTime() - start > timings.pendingLimit().toNanos()) {
                    throw new SilenceException(
                            "No end of the answer of "
                                    + address.words()
                                    + ": it asked for more time for "
                                    + timings.pendingLimit().toSeconds()
                                    + " s and never finished");
                }
                wait = timings.p2Star();
                continue;
            }
            if (answer.at(0) != request.at(0) + 0x40) {
                if (System.nanoTime() - start > timings.pendingLimit().toNanos()) {
                    throw new WireFormatException(
                            0,
                            "an answer 0x%02X".formatted(request.at(0) + 0x40),
                            answer.slice(0, 1).toString());
                }
                continue;
            }
            int repeats = Math.min(repeated(request.at(0)), request.size() - 1);
            Bytes about = request.slice(1, repeats);
            if (answer.size() <= repeats || !answer.slice(1, repeats).equals(about)) {
                refuseTwin(answer);
                // what belongs to nobody's question is passed over; the right answer may follow
                stranger =
                        new WireFormatException(
                                1, "an answer about " + about, answer.from(1).toString());
                if (System.nanoTime() - start > timings.pendingLimit().toNanos()) {
                    throw stranger;
                }
                continue;
            }
            return answer;
        }
    }

    /** Opens a diagnostic session (0x10): 0x01 default, 0x03 extended. */
    public void session(int kind) throws WireException {
        request(Bytes.of(0x10, kind));
    }

    /** Resets the module (0x11): 0x01 hard, 0x03 soft. */
    public void reset(int kind) throws WireException {
        request(Bytes.of(0x11, kind));
    }

    /** Clears diagnostic information (0x14) of a group; 0xFFFFFF is all. */
    public void clear(int group) throws WireException {
        request(Bytes.of(0x14, group >> 16, group >> 8, group));
    }

    /** Tester present (0x3E 00): keeps the session beyond S3. */
    public void testerPresent() throws WireException {
        request(Bytes.of(0x3E, 0x00));
    }

    /** Asks whether the module is there (0x3E 00), and waits for its answer so long at most. */
    public void present(Duration within) throws WireException {
        with(timings.withP2(within)).request(Bytes.of(0x3E, 0x00));
    }

    /** Reads one identifier (0x22). */
    public Bytes read(int did) throws WireException {
        return request(Bytes.of(0x22, did >> 8, did)).from(3);
    }

    /**
     * Reads several identifiers in one message (0x22); their values are of one moment.
     *
     * @param sizes identifier → number of bytes of its value; the order is kept
     * @throws WireFormatException when the module's answer does not have these sizes in this order
     */
    public Map<Integer, Bytes> read(Map<Integer, Integer> sizes) throws WireException {
        Bytes request = Bytes.of(0x22);
        for (int did : sizes.keySet()) {
            request = request.plus(Bytes.of(did >> 8, did));
        }
        ByteCursor in = new ByteCursor(request(request).from(1), 1);
        Map<Integer, Bytes> values = new LinkedHashMap<>();
        for (Map.Entry<Integer, Integer> wanted : sizes.entrySet()) {
            int at = in.offset();
            int did = in.u16("identifier");
            if (did != wanted.getKey()) {
                throw new WireFormatException(
                        at, "identifier %04X".formatted(wanted.getKey()), "%04X".formatted(did));
            }
            values.put(did, in.take(wanted.getValue(), "value of %04X".formatted(did)));
        }
        in.end("answer");
        return values;
    }

    /** Number of codes whose status matches a mask (0x19 01). */
    public int countCodes(int mask) throws WireException {
        return DtcAnswers.count(request(Bytes.of(0x19, 0x01, mask)));
    }

    /** Codes whose status matches a mask (0x19 02). */
    public List<DtcAnswers.Entry> codes(int mask) throws WireException {
        return DtcAnswers.list(request(Bytes.of(0x19, 0x02, mask)));
    }

    /** Permanent codes (0x19 15, ISO 14229-1 reportDTCWithPermanentStatus). */
    public List<DtcAnswers.Entry> permanentCodes() throws WireException {
        return DtcAnswers.list(request(Bytes.of(0x19, 0x15)));
    }

    /** Which codes have freeze frames of which number (0x19 03). */
    public List<DtcAnswers.SnapshotId> snapshotIds() throws WireException {
        return DtcAnswers.snapshotIds(request(Bytes.of(0x19, 0x03)));
    }

    /** Severity of the codes whose severity and status match (0x19 08). */
    public List<DtcAnswers.Severe> severities(int severityMask, int statusMask)
            throws WireException {
        return DtcAnswers.severities(request(Bytes.of(0x19, 0x08, severityMask, statusMask)));
    }

    /** Severity of one code (0x19 09). */
    public List<DtcAnswers.Severe> severity(int dtc) throws WireException {
        return DtcAnswers.severities(request(Bytes.of(0x19, 0x09, dtc >> 16, dtc >> 8, dtc)));
    }

    /**
     * Codes of a functional group whose status matches (0x19 42, ISO 14229-1
     * reportWWHOBDDTCByMaskRecord); group 0x33 is the emission system of ISO 27145.
     */
    public List<DtcAnswers.Severe> groupCodes(int group, int statusMask) throws WireException {
        return DtcAnswers.groupCodes(request(Bytes.of(0x19, 0x42, group, statusMask, 0xFF)), group);
    }

    /** Permanent codes of a functional group (0x19 55, reportWWHOBDDTCWithPermanentStatus). */
    public List<DtcAnswers.Entry> groupPermanent(int group) throws WireException {
        return DtcAnswers.groupPermanent(request(Bytes.of(0x19, 0x55, group)), group);
    }

    /** All codes that the module can set, with their present status (0x19 0A). */
    public List<DtcAnswers.Entry> supportedCodes() throws WireException {
        return DtcAnswers.list(request(Bytes.of(0x19, 0x0A)));
    }

    /**
     * Freeze frames of a code (0x19 04); record 0xFF asks for all.
     *
     * @param sizes identifier → number of bytes of its value
     */
    public List<DtcAnswers.Snapshot> snapshots(int dtc, int record, Map<Integer, Integer> sizes)
            throws WireException {
        return DtcAnswers.snapshots(
                request(Bytes.of(0x19, 0x04, dtc >> 16, dtc >> 8, dtc, record)), dtc, sizes);
    }

    /**
     * Extended data of a code (0x19 06): record number → bytes; record sizes as the description
     * says.
     */
    public Map<Integer, Bytes> extendedData(int dtc, int record, Map<Integer, Integer> sizes)
            throws WireException {
        return DtcAnswers.extended(
                request(Bytes.of(0x19, 0x06, dtc >> 16, dtc >> 8, dtc, record)), dtc, sizes);
    }

    /** Writes one identifier (0x2E). */
    public void write(int did, Bytes value) throws WireException {
        with(timings.patient()).request(Bytes.of(0x2E, did >> 8, did).plus(value));
    }

    /** Takes over an output (0x2F, shortTermAdjustment 0x03) and sets it. */
    public Bytes control(int did, Bytes value) throws WireException {
        return request(Bytes.of(0x2F, did >> 8, did, 0x03).plus(value));
    }

    /** Gives an output back to the module (0x2F, returnControlToECU 0x00). */
    public void giveBack(int did) throws WireException {
        request(Bytes.of(0x2F, did >> 8, did, 0x00));
    }

    /** Routine control (0x31): kind 1 start, 2 stop, 3 results; returns the result bytes. */
    public Bytes routine(int kind, int id, Bytes option) throws WireException {
        return request(Bytes.of(0x31, kind, id >> 8, id).plus(option)).from(4);
    }

    /** Splits a list of identifiers into requests of at most so many. */
    public static List<List<Integer>> packs(List<Integer> dids, int perRequest) {
        List<List<Integer>> packs = new ArrayList<>();
        for (int i = 0; i < dids.size(); i += perRequest) {
            packs.add(List.copyOf(dids.subList(i, Math.min(dids.size(), i + perRequest))));
        }
        return packs;
    }
}
