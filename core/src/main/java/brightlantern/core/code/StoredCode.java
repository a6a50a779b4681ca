package brightlantern.core.code;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/**
 * One code as a module reported it.
 *
 * @param name plain meaning
 * @param status status byte, 0..255
 * @param frames freeze frames, oldest first
 * @param occurrences how often it was set, -1 when not told
 * @param ageing key cycles without failure, -1 when not told
 * @param healing key cycles until the lamp goes out; empty when not told
 * @param severity byte of ISO 14229-1 annex D.3, 0 when not told
 * @param trouble what of it could not be read, in words; empty when all could
 */
public record StoredCode(
        String moduleId,
        String moduleName,
        String code,
        String name,
        int status,
        List<Frame> frames,
        int occurrences,
        int ageing,
        Optional<Integer> healing,
        int severity,
        String trouble) {
    public StoredCode {
        frames = List.copyOf(frames);
        // kept by an earlier version
        healing = healing == null ? Optional.empty() : healing;
        trouble = trouble == null ? "" : trouble;
    }

    /** A code of which nothing more is told. */
    public StoredCode(
            String moduleId,
            String moduleName,
            String code,
            String name,
            int status,
            List<Frame> frames,
            int occurrences,
            int ageing) {
        this(
                moduleId,
                moduleName,
                code,
                name,
                status,
                frames,
                occurrences,
                ageing,
                Optional.empty(),
                0,
                "");
    }

    /** How soon the module wants it looked at (ISO 14229-1 annex D.3); empty when not told. */
    public String urgency() {
        return (severity & 0x80) != 0
                ? "stop and look now"
                : (severity & 0x40) != 0
                        ? "look at it at the next halt"
                        : (severity & 0x20) != 0 ? "look at it at the next service" : "";
    }

    /**
     * A freeze frame: value id → physical value in the value's own unit.
     *
     * @param record record number on the wire
     */
    public record Frame(int record, Map<String, Double> values) {
        /** A reading of the frame in the value's own unit; empty when it does not hold it. */
        public OptionalDouble value(String id) {
            Double found = values.get(id);
            return found == null ? OptionalDouble.empty() : OptionalDouble.of(found);
        }
    }

    /** The status byte, to be asked. */
    public DtcStatus statusByte() {
        return new DtcStatus(status);
    }
}
