package brightlantern.core.sweep;

import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.StoredCode;
import brightlantern.core.signal.Words;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What changed between two sweeps of one vehicle. */
public final class SweepComparison {
    private SweepComparison() {}

    public enum Change {
        NEW("new"),
        CAME_BACK("came back"),
        GONE("gone"),
        CHANGED("changed"),
        UNCHANGED("unchanged"),
        UNKNOWN("module did not answer this time");

        private final String words;

        Change(String words) {
            this.words = words;
        }

        /** As people read it. */
        public String words() {
            return words;
        }
    }

    public record CodeChange(StoredCode code, Change change, String detail) {}

    public record ModuleChange(String module, String what, String before, String after) {}

    public record Result(List<CodeChange> codes, List<ModuleChange> modules) {
        /** How many codes changed so. */
        public long count(Change change) {
            return codes.stream().filter(c -> c.change() == change).count();
        }
    }

    /** What became of the codes of an earlier sweep. */
    public static Result compare(Sweep before, Sweep after) {
        Map<String, StoredCode> old = index(before);
        Map<String, StoredCode> now = index(after);
        List<CodeChange> codes = new ArrayList<>();
        now.forEach(
                (key, code) -> {
                    StoredCode earlier = old.get(key);
                    if (earlier == null) {
                        codes.add(new CodeChange(code, Change.NEW, ""));
                        return;
                    }
                    DtcStatus.Standing was = earlier.statusByte().standing();
                    DtcStatus.Standing is = code.statusByte().standing();
                    if (was == is && earlier.occurrences() == code.occurrences()) {
                        codes.add(new CodeChange(code, Change.UNCHANGED, ""));
                    } else if (is.compareTo(was) < 0) {
                        codes.add(new CodeChange(code, Change.CAME_BACK, "was: " + was.words()));
                    } else {
                        codes.add(
                                new CodeChange(
                                        code,
                                        Change.CHANGED,
                                        "was: "
                                                + was.words()
                                                + ", "
                                                + Words.count(earlier.occurrences(), "time")
                                                + "; now "
                                                + code.occurrences()));
                    }
                });
        old.forEach(
                (key, code) -> {
                    if (!now.containsKey(key)) {
                        boolean asked =
                                after.module(code.moduleId())
                                        .map(m -> m.answer() == Sweep.Answer.ANSWERED)
                                        .orElse(false);
                        // a silent module's codes are not gone, only out of sight
                        codes.add(new CodeChange(code, asked ? Change.GONE : Change.UNKNOWN, ""));
                    }
                });
        codes.sort(Comparator.comparing(CodeChange::change));
        return new Result(codes, modules(before, after));
    }

    private static Map<String, StoredCode> index(Sweep sweep) {
        Map<String, StoredCode> index = new LinkedHashMap<>();
        for (StoredCode code : sweep.codes()) {
            if (code.statusByte().standing() != DtcStatus.Standing.QUIET) {
                index.put(code.moduleId() + "/" + code.code(), code);
            }
        }
        return index;
    }

    private static List<ModuleChange> modules(Sweep before, Sweep after) {
        List<ModuleChange> changes = new ArrayList<>();
        for (Sweep.ModuleResult now : after.modules()) {
            before.module(now.moduleId())
                    .ifPresent(
                            was -> {
                                if (was.answer() != now.answer()) {
                                    changes.add(
                                            new ModuleChange(
                                                    now.name(),
                                                    "answer",
                                                    words(was.answer()),
                                                    words(now.answer())));
                                }
                                now.identity()
                                        .forEach(
                                                (item, text) -> {
                                                    String earlier = was.identity().get(item);
                                                    if (earlier != null && !earlier.equals(text)) {
                                                        changes.add(
                                                                new ModuleChange(
                                                                        now.name(),
                                                                        item,
                                                                        earlier,
                                                                        text));
                                                    }
                                                });
                            });
        }
        return changes;
    }

    static String words(Sweep.Answer answer) {
        return switch (answer) {
            case NOT_ASKED -> "not asked";
            case ANSWERED -> "answered";
            case SILENT -> "silent";
            case FAULTY -> "answered wrongly";
            case NOT_FITTED -> "not fitted";
        };
    }
}
