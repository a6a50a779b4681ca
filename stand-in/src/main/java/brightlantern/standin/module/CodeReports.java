package brightlantern.standin.module;

import brightlantern.standin.module.CodeMemory.Entry;
import brightlantern.standin.module.UdsModule.Behaviour;
import brightlantern.wire.Bytes;
import java.util.List;

/**
 * What a module tells of its codes (ReadDTCInformation, 0x19 of ISO 14229-1), one way for each kind
 * of report.
 */
record CodeReports(CodeMemory memory, Behaviour behaviour) {
    /** Functional group of the emission system, ISO 27145-3. */
    private static final int EMISSION_GROUP = 0x33;

    /**
     * @throws Refusal when the kind of report is not known, or the request is not of its size
     */
    Bytes answer(Bytes request) {
        int kind = request.at(1);
        Refusal.unlessSize(request, size(kind));
        return switch (kind) {
            case 0x01 -> count(request.at(2));
            case 0x02 -> list(kind, memory.matching(request.at(2)));
            case 0x03 -> frames();
            case 0x04 -> frame(entry(request), request.at(5));
            case 0x06 -> extended(entry(request), request.at(5));
            case 0x08 -> bySeverity(request.at(2), request.at(3));
            case 0x09 -> severities(kind, List.of(entry(request)));
            case 0x0A -> list(kind, memory.all());
            case 0x15 -> list(kind, memory.permanent());
            case 0x42 -> emission(request);
            default -> permanentEmission(request);
        };
    }

    private static int size(int kind) {
        return switch (kind) {
            case 0x03, 0x0A, 0x15 -> 2;
            case 0x01, 0x02, 0x55 -> 3;
            case 0x08 -> 4;
            case 0x09, 0x42 -> 5;
            case 0x04, 0x06 -> 6;
            default -> throw new Refusal(0x12);
        };
    }

    private Bytes count(int mask) {
        int count = memory.matching(mask).size();
        return Bytes.of(0x59, 0x01, 0xFF, 0x01, count >> 8, count);
    }

    private Bytes frames() {
        Bytes answer = Bytes.of(0x59, 0x03);
        for (Entry e : memory.matching(0xFF)) {
            answer = e.first.isPresent() ? answer.plus(code(e)).plus(Bytes.of(1)) : answer;
            answer = e.last.isPresent() ? answer.plus(code(e)).plus(Bytes.of(2)) : answer;
        }
        return answer;
    }

    private Bytes frame(Entry e, int record) {
        Bytes answer = head(0x04, e);
        if (e.first.isPresent() && (record == 0xFF || record == 0x01)) {
            Bytes first = e.first.get();
            answer =
                    answer.plus(Bytes.of(0x01))
                            .plus(
                                    behaviour == Behaviour.SHORT_FRAMES
                                            ? first.slice(0, first.size() - 1)
                                            : first);
        }
        if (e.last.isPresent() && (record == 0xFF || record == 0x02)) {
            answer = answer.plus(Bytes.of(0x02)).plus(e.last.get());
        }
        return answer;
    }

    private Bytes extended(Entry e, int record) {
        Bytes answer = head(0x06, e);
        if (record == 0xFF || record == 0x01) {
            answer = answer.plus(Bytes.of(0x01, e.occurrences));
        }
        if (record == 0xFF || record == 0x02) {
            answer = answer.plus(Bytes.of(0x02, e.ageing));
        }
        if (behaviour == Behaviour.TORN_RECORDS) {
            return answer.slice(0, answer.size() - 1);
        }
        if (record == 0xFF || record == 0x03) {
            answer = answer.plus(Bytes.of(0x03, e.healing));
        }
        return answer;
    }

    private Bytes bySeverity(int severities, int mask) {
        return severities(
                0x08,
                memory.matching(mask).stream()
                        .filter(e -> (e.kind.severity() & severities) != 0)
                        .toList());
    }

    private Bytes emission(Bytes request) {
        emissionGroup(request);
        Bytes answer = Bytes.of(0x59, 0x42, EMISSION_GROUP, 0xFF, 0xE0, 0x04);
        for (Entry e : memory.matching(request.at(3))) {
            if (e.kind.emission()) {
                answer =
                        answer.plus(Bytes.of(e.kind.severity()))
                                .plus(code(e))
                                .plus(Bytes.of(e.status));
            }
        }
        return answer;
    }

    private Bytes permanentEmission(Bytes request) {
        emissionGroup(request);
        Bytes answer = Bytes.of(0x59, 0x55, EMISSION_GROUP, 0xFF, 0x04);
        for (Entry e : memory.permanent()) {
            answer = answer.plus(code(e)).plus(Bytes.of(e.status));
        }
        return answer;
    }

    private Entry entry(Bytes request) {
        int dtc = request.at(2) << 16 | request.at(3) << 8 | request.at(4);
        return memory.entry(dtc).orElseThrow(() -> new Refusal(0x31));
    }

    private static void emissionGroup(Bytes request) {
        if (request.at(2) != EMISSION_GROUP) {
            throw new Refusal(0x31);
        }
    }

    private static Bytes code(Entry e) {
        return Bytes.of(e.dtc >> 16, e.dtc >> 8, e.dtc);
    }

    private static Bytes severities(int kind, List<Entry> entries) {
        Bytes answer = Bytes.of(0x59, kind, 0xFF);
        for (Entry e : entries) {
            answer =
                    answer.plus(Bytes.of(e.kind.severity(), 0x00))
                            .plus(code(e))
                            .plus(Bytes.of(e.status));
        }
        return answer;
    }

    private static Bytes head(int kind, Entry e) {
        return Bytes.of(0x59, kind).plus(code(e)).plus(Bytes.of(e.status));
    }

    private static Bytes list(int kind, List<Entry> entries) {
        Bytes answer = Bytes.of(0x59, kind, 0xFF);
        for (Entry e : entries) {
            answer = answer.plus(code(e)).plus(Bytes.of(e.status));
        }
        return answer;
    }
}
