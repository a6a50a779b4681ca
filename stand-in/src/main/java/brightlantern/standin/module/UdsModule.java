package brightlantern.standin.module;

import brightlantern.wire.Bytes;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Supplier;

/**
 * One simulated control module. A request goes in, replies with their times come out; sockets are
 * somewhere else.
 */
public final class UdsModule {
    /** It asks for more time this often, well within P2* (5 s). */
    private static final int ALL_GROUPS = 0xFFFFFF;

    private static final long PENDING_MILLIS = 2000;

    /** Session falls back after this time without a request, S3 of ISO 14229-2, in nanoseconds. */
    private static final long S3_NANOS = 5_000_000_000L;

    /**
     * @param millis from the request (or from the reply before) to this reply
     */
    public record Reply(long millis, Bytes data) {}

    /** How a module takes requests; anything but {@link #NORMAL} is for trying out bad luck. */
    public enum Behaviour {
        NORMAL,
        SILENT,
        LATE,
        NONSENSE,
        REFUSING,
        BUSY,
        /** Freeze frames that end a byte before they should. */
        SHORT_FRAMES,
        /** Extended data that end within a record. */
        TORN_RECORDS,
        /** A second module with the same address answers everything once more, as somebody else. */
        TWINNED
    }

    /** An output that can be taken over; an empty value gives it back. */
    public record Output(
            Supplier<Double> present, Consumer<OptionalDouble> take, BooleanSupplier allowed) {}

    /** Something that a module keeps and can be told anew; 0, or the code of the refusal. */
    public interface Writing {
        int write(Bytes value);
    }

    /** Something that a module does for a while when asked (0x31). */
    public interface Routine {
        /** Starts it; 0, or the code of the refusal. */
        int start();

        /** Stops it, if it runs. */
        default void stop() {}

        /** How far it is, and what came of it. */
        default Bytes result() {
            return Bytes.EMPTY;
        }
    }

    private final int address;
    private final long answerMillis;
    private final CodeMemory memory;
    private final BooleanSupplier awake;
    private final Map<Integer, Supplier<Bytes>> identifiers = new LinkedHashMap<>();
    private final Map<Integer, Output> outputs = new HashMap<>();
    private final Map<Integer, Writing> writings = new HashMap<>();
    private final Map<Integer, Integer> refusals = new ConcurrentHashMap<>();
    private final Map<Integer, Routine> routines = new HashMap<>();
    private volatile Behaviour behaviour = Behaviour.NORMAL;
    private volatile long routineMillis = 180;
    private int session = 1;
    private long lastRequest = System.nanoTime();
    private int requests;
    private long spentMillis;

    public UdsModule(int address, long answerMillis, CodeMemory memory, BooleanSupplier awake) {
        this.address = address;
        this.answerMillis = answerMillis;
        this.memory = memory;
        this.awake = awake;
    }

    public int address() {
        return address;
    }

    public CodeMemory memory() {
        return memory;
    }

    public UdsModule identifier(int did, Supplier<Bytes> value) {
        identifiers.put(did, value);
        return this;
    }

    public UdsModule output(int did, Output output) {
        outputs.put(did, output);
        return this;
    }

    /** Something that it keeps, read and written under one identifier. */
    public UdsModule memory(int did, Supplier<Bytes> value, Writing writing) {
        writings.put(did, writing);
        return identifier(did, value);
    }

    /** From now on it refuses this service with this code; 0 ends that. */
    public void refuse(int service, int code) {
        refusals.put(service, code);
    }

    /** From now on it does not know this identifier. */
    public synchronized void forget(int did) {
        identifiers.remove(did);
    }

    /** From now on starting a routine takes so long, and it asks for that time again and again. */
    public void routinesTake(long millis) {
        routineMillis = millis;
    }

    public UdsModule routine(int id, Routine routine) {
        routines.put(id, routine);
        return this;
    }

    public void behave(Behaviour how) {
        behaviour = how;
    }

    /**
     * Time that all its replies took together, in ms; the floor for whoever asks them one by one.
     */
    public synchronized long spentMillis() {
        return spentMillis;
    }

    Bytes value(int did) {
        return identifiers.get(did).get();
    }

    /** Gives outputs back when nobody kept the session alive; to be called often. */
    public synchronized void tick() {
        if (session != 1 && System.nanoTime() - lastRequest > S3_NANOS) {
            leaveSession();
        }
    }

    private void leaveSession() {
        session = 1;
        outputs.values().forEach(o -> o.take().accept(OptionalDouble.empty()));
        routines.values().forEach(Routine::stop);
    }

    /** The connection went away: outputs go back at once. */
    public synchronized void disconnected() {
        leaveSession();
    }

    /** Replies to a request; none when the module sleeps, is unplugged or has nothing to say. */
    public synchronized List<Reply> handle(Bytes request) {
        if (!awake.getAsBoolean() || behaviour == Behaviour.SILENT) {
            return List.of();
        }
        lastRequest = System.nanoTime();
        requests++;
        int service = request.at(0);
        switch (behaviour) {
            case NONSENSE -> {
                return List.of(
                        new Reply(answerMillis, Bytes.of(service + 0x40, 0xDE, 0xAD, 0xBE, 0xEF)));
            }
            case REFUSING -> {
                return List.of(new Reply(answerMillis, Bytes.of(0x7F, service, 0x22)));
            }
            case BUSY -> {
                if (requests % 2 == 1) {
                    return List.of(new Reply(2, Bytes.of(0x7F, service, 0x21)));
                }
            }
            default -> {
                // the others answer below
            }
        }
        Bytes answer;
        int refusalCode = refusals.getOrDefault(service, 0);
        if (refusalCode != 0) {
            return List.of(new Reply(answerMillis, Bytes.of(0x7F, service, refusalCode)));
        }
        try {
            answer = answer(service, request);
        } catch (Refusal refusal) {
            answer = Bytes.of(0x7F, service, refusal.code);
        } catch (IndexOutOfBoundsException tooShort) {
            answer = Bytes.of(0x7F, service, 0x13);
        }
        if (answer.size() == 0) {
            return List.of();
        }
        // some 0.3 ms a byte on the bus behind the gateway
        long time = answerMillis + answer.size() * 3L / 10;
        List<Reply> replies = new ArrayList<>();
        boolean slow =
                service == 0x14 || service == 0x31 && request.size() > 1 && request.at(1) == 1;
        if (slow || behaviour == Behaviour.LATE) {
            replies.add(new Reply(answerMillis, Bytes.of(0x7F, service, 0x78)));
            long left = service == 0x31 ? routineMillis : slow ? 180 : 2500;
            for (; left > PENDING_MILLIS; left -= PENDING_MILLIS) {
                replies.add(new Reply(PENDING_MILLIS, Bytes.of(0x7F, service, 0x78)));
            }
            time += left;
        }
        replies.add(new Reply(time, answer));
        if (behaviour == Behaviour.TWINNED) {
            // the twin is of another make: what it knows reads otherwise
            replies.add(
                    new Reply(
                            1,
                            service == 0x22
                                    ? answer.slice(0, answer.size() - 1).plus(Bytes.of('?'))
                                    : answer));
        }
        spentMillis += replies.stream().mapToLong(Reply::millis).sum();
        return replies;
    }

    private Bytes answer(int service, Bytes request) {
        return switch (service) {
            case 0x10 -> {
                int kind = request.at(1) & 0x7F;
                Refusal.unlessSize(request, 2);
                if (kind != 1 && kind != 3) {
                    throw new Refusal(0x12);
                }
                leaveSession();
                session = kind;
                // P2 in ms and P2* in 10 ms, as the standard codes them
                yield unlessSuppressed(request, Bytes.of(0x50, kind, 0x00, 0x32, 0x01, 0xF4));
            }
            case 0x11 -> {
                Refusal.unlessSize(request, 2);
                int kind = request.at(1) & 0x7F;
                // hard, key off and on, soft
                if (kind < 1 || kind > 3) {
                    throw new Refusal(0x12);
                }
                leaveSession();
                yield unlessSuppressed(request, Bytes.of(0x51, kind));
            }
            case 0x14 -> {
                Refusal.unlessSize(request, 4);
                clear(request.at(1) << 16 | request.at(2) << 8 | request.at(3));
                yield Bytes.of(0x54);
            }
            case 0x19 -> new CodeReports(memory, behaviour).answer(request);
            case 0x22 -> read(request);
            case 0x2E -> write(request);
            case 0x2F -> control(request);
            case 0x31 -> routine(request);
            case 0x3E -> {
                Refusal.unlessSize(request, 2);
                if ((request.at(1) & 0x7F) != 0) {
                    throw new Refusal(0x12);
                }
                yield unlessSuppressed(request, Bytes.of(0x7E, 0x00));
            }
            default -> throw new Refusal(0x11);
        };
    }

    /** Bit 7 of a subfunction suppresses the positive answer (ISO 14229-1, clause 8.2.2). */
    private static Bytes unlessSuppressed(Bytes request, Bytes answer) {
        return (request.at(1) & 0x80) != 0 ? Bytes.EMPTY : answer;
    }

    /** All groups, or one code of its own (ISO 14229-1, ClearDiagnosticInformation). */
    private void clear(int group) {
        if (group == ALL_GROUPS) {
            memory.clear();
        } else if (!memory.clear(group)) {
            throw new Refusal(0x31);
        }
    }

    private Bytes read(Bytes request) {
        if (request.size() < 3 || request.size() % 2 == 0) {
            throw new Refusal(0x13);
        }
        Bytes answer = Bytes.of(0x62);
        for (int i = 1; i < request.size(); i += 2) {
            Supplier<Bytes> value = identifiers.get(request.at(i) << 8 | request.at(i + 1));
            if (value == null) {
                throw new Refusal(0x31);
            }
            answer = answer.plus(request.slice(i, 2)).plus(value.get());
        }
        return answer;
    }

    private Bytes write(Bytes request) {
        Writing writing = writings.get(request.at(1) << 8 | request.at(2));
        if (writing == null) {
            throw new Refusal(0x31);
        }
        if (session != 3) {
            throw new Refusal(0x7F);
        }
        int refusal = writing.write(request.from(3));
        if (refusal != 0) {
            throw new Refusal(refusal);
        }
        return Bytes.of(0x6E, request.at(1), request.at(2));
    }

    private Bytes control(Bytes request) {
        Output output = outputs.get(request.at(1) << 8 | request.at(2));
        if (output == null) {
            throw new Refusal(0x31);
        }
        if (session != 3) {
            throw new Refusal(0x7F);
        }
        int kind = request.at(3);
        if (kind == 0x00) {
            Refusal.unlessSize(request, 4);
            output.take().accept(OptionalDouble.empty());
        } else if (kind == 0x03) {
            Refusal.unlessSize(request, 5);
            if (!output.allowed().getAsBoolean()) {
                throw new Refusal(0x83);
            }
            if (request.at(4) > 200) {
                throw new Refusal(0x31);
            }
            output.take().accept(OptionalDouble.of(request.at(4) / 2.0));
        } else {
            throw new Refusal(0x12);
        }
        int present = (int) Math.round(output.present().get() * 2);
        return Bytes.of(0x6F, request.at(1), request.at(2), kind, present);
    }

    private Bytes routine(Bytes request) {
        int kind = request.at(1);
        int id = request.at(2) << 8 | request.at(3);
        if (!routines.containsKey(id)) {
            throw new Refusal(0x31);
        }
        if (session != 3) {
            throw new Refusal(0x7F);
        }
        Routine routine = routines.get(id);
        Bytes result = Bytes.EMPTY;
        switch (kind) {
            case 1 -> {
                int refusal = routine.start();
                if (refusal != 0) {
                    throw new Refusal(refusal);
                }
            }
            case 2 -> routine.stop();
            case 3 -> result = routine.result();
            default -> throw new Refusal(0x12);
        }
        return Bytes.of(0x71, kind, request.at(2), request.at(3)).plus(result);
    }
}
