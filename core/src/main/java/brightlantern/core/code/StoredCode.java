package brightlantern.core.code;

import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;

/**
 * One code as a module reported it.
 *
 * @param name plain meaning
 * @param status status byte, 0..255
 * @param frames freeze frames, oldest first
 * @param occurrences how often it was set, -1 when not told
 * @param ageing key cycles without failure, -1 when not told
 */
public record StoredCode(
        String moduleId,
        String moduleName,
        String code,
        String name,
        int status,
        List<Frame> frames,
        int occurrences,
        int ageing) {
    public StoredCode {
        frames = List.copyOf(frames);
    }

    /**
     * A freeze frame: value id → physical value in the value's own unit.
     *
     * @param record record number on the wire
     */
    public record Frame(int record, Map<String, Double> values) {
        public OptionalDouble value(String id) {
            Double found = values.get(id);
            return found == null ? OptionalDouble.empty() : OptionalDouble.of(found);
        }
    }

    public DtcStatus statusByte() {
        return new DtcStatus(status);
    }
}
