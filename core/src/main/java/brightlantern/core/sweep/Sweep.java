package brightlantern.core.sweep;

import brightlantern.core.code.StoredCode;
import brightlantern.core.emission.EmissionReport;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * One pass over the modules of a vehicle, whole or stopped halfway.
 *
 * @param finished empty while modules remain to be asked
 */
public record Sweep(Instant started, Optional<Instant> finished, List<ModuleResult> modules) {
    public Sweep {
        modules = List.copyOf(modules);
    }

    /** How a module took the asking. */
    public enum Answer {
        NOT_ASKED,
        ANSWERED,
        SILENT,
        FAULTY,
        NOT_FITTED
    }

    /**
     * @param trouble what went wrong, in words; empty when nothing did
     * @param identity name of the item → text, such as part number and software
     * @param millis how long the module took altogether
     * @param emission what it tells of the emission system, if that is its duty
     * @param notRun codes whose test has not run since the last clear; empty when it was not asked
     *     or does not tell
     */
    public record ModuleResult(
            String moduleId,
            String name,
            String bus,
            Answer answer,
            String trouble,
            Map<String, String> identity,
            List<StoredCode> codes,
            long millis,
            Optional<EmissionReport> emission,
            Optional<Set<String>> notRun) {
        public ModuleResult {
            codes = List.copyOf(codes);
            // kept by an earlier version
            emission = emission == null ? Optional.empty() : emission;
            notRun = notRun == null ? Optional.empty() : notRun;
        }

        /** A module without emission duties. */
        public ModuleResult(
                String moduleId,
                String name,
                String bus,
                Answer answer,
                String trouble,
                Map<String, String> identity,
                List<StoredCode> codes,
                long millis) {
            this(
                    moduleId,
                    name,
                    bus,
                    answer,
                    trouble,
                    identity,
                    codes,
                    millis,
                    Optional.empty(),
                    Optional.empty());
        }

        /** A module that was not asked. */
        public static ModuleResult notAsked(String moduleId, String name, String bus) {
            return new ModuleResult(
                    moduleId, name, bus, Answer.NOT_ASKED, "", Map.of(), List.of(), 0);
        }
    }

    /** The codes of all modules. */
    public List<StoredCode> codes() {
        return modules.stream().flatMap(m -> m.codes().stream()).toList();
    }

    /** How many modules stand so. */
    public long count(Answer answer) {
        return modules.stream().filter(m -> m.answer() == answer).count();
    }

    /** True when every module was asked. */
    public boolean whole() {
        return count(Answer.NOT_ASKED) == 0;
    }

    /** What a module answered, if it is part of the sweep. */
    public Optional<ModuleResult> module(String id) {
        return modules.stream().filter(m -> m.moduleId().equals(id)).findFirst();
    }
}
