package brightlantern.app.sweep;

import brightlantern.app.page.JobPages;
import brightlantern.core.code.FrameComparison;
import brightlantern.core.network.NetworkModel.Element;
import brightlantern.core.signal.Words;
import brightlantern.core.sweep.CodeWeigher;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** What a sweep comes to, in words and rows. */
final class SweepWords {
    /** Nobody reads more at once; the rest is a click away. */
    static final int MOST_ROWS = 40;

    private SweepWords() {}

    record CodeRow(
            CodeWeigher.Weighed weighed, List<String> status, List<FrameComparison.Row> frames) {}

    /** Modules that store the VIN of another vehicle. */
    static List<ModuleResult> foreign(JobPages.Context context, Sweep sweep) {
        return sweep.modules().stream()
                .filter(m -> !m.identity().getOrDefault("VIN", "").isEmpty())
                .filter(m -> !m.identity().get("VIN").equals(context.job().vin()))
                .toList();
    }

    static BusMap map(
            JobPages.Context context,
            Optional<Sweep> sweep,
            Set<String> asking,
            Optional<Element> suspected) {
        return BusMap.of(
                context.description(),
                m -> mark(sweep.flatMap(s -> s.module(m.id())), asking.contains(m.id())),
                suspected);
    }

    private static BusMap.Mark mark(Optional<ModuleResult> result, boolean asking) {
        if (asking) {
            return new BusMap.Mark("asking", 0, "being asked now");
        }
        int codes = result.map(r -> r.codes().size()).orElse(0);
        return switch (result.map(ModuleResult::answer).orElse(Answer.NOT_ASKED)) {
            case NOT_ASKED -> new BusMap.Mark("waiting", 0, "not asked yet");
            case ANSWERED ->
                    codes == 0
                            ? new BusMap.Mark("answered", 0, "answered, no codes")
                            : new BusMap.Mark(
                                    "codes",
                                    codes,
                                    "answered, " + codes + (codes == 1 ? " code" : " codes"));
            case SILENT -> new BusMap.Mark("silent", 0, "silent");
            case FAULTY -> new BusMap.Mark("faulty", 0, "answered wrongly");
            case NOT_FITTED -> new BusMap.Mark("absent", 0, "not fitted, says the gateway");
        };
    }

    static List<CodeRow> rows(JobPages.Context context, List<CodeWeigher.Weighed> weighed) {
        return weighed.stream()
                .map(
                        w ->
                                new CodeRow(
                                        w,
                                        w.code().statusByte().words(),
                                        FrameComparison.rows(
                                                w.code(), context.description().signals())))
                .toList();
    }

    /** The page's answer in a sentence. */
    static String answer(
            Optional<Sweep> sweep,
            List<CodeWeigher.Weighed> codes,
            boolean running,
            Optional<String> brokenWire) {
        if (sweep.isEmpty()) {
            return "No sweep yet. Sweep all modules to see who answers and which codes they hold.";
        }
        long asked = sweep.get().modules().size() - sweep.get().count(Answer.NOT_ASKED);
        if (running) {
            return "Sweeping: " + asked + " of " + sweep.get().modules().size() + " modules done.";
        }
        List<String> parts = new ArrayList<>();
        boolean whole = sweep.get().whole();
        if (!whole) {
            // nothing reassuring is said of what was not asked
            parts.add(
                    "The sweep is not whole: %d of %s asked. What follows is of those alone."
                            .formatted(asked, Words.count(sweep.get().modules().size(), "module")));
        }
        long knockOn = codes.stream().filter(c -> c.knockOn()).count();
        if (brokenWire.isPresent()) {
            parts.add("Look at this first: " + brokenWire.get() + ".");
        }
        codes.stream()
                .filter(c -> c.lead())
                .filter(c -> c.role() == CodeWeigher.Role.LEAD)
                .findFirst()
                .ifPresentOrElse(
                        c ->
                                parts.add(
                                        "Chase "
                                                + c.code().code()
                                                + ", "
                                                + lower(c.code().name())
                                                + " ("
                                                + c.code().moduleName()
                                                + ")."),
                        () ->
                                parts.add(
                                        brokenWire.isPresent()
                                                ? ""
                                                : codes.isEmpty()
                                                        ? whole
                                                                ? "No module holds a code."
                                                                : "None of them holds a code."
                                                        : "No code here matters for the complaint."));
        if (knockOn > 0) {
            parts.add(knockOn + (knockOn == 1 ? " code is" : " codes are") + " its knock-on.");
        }
        long aside = codes.stream().filter(c -> c.aside()).count();
        if (aside > 0) {
            parts.add(aside + (aside == 1 ? " code" : " codes") + " need not be chased.");
        }
        long silent = sweep.get().count(Answer.SILENT);
        long faulty = sweep.get().count(Answer.FAULTY);
        if (silent > 0) {
            parts.add(silent + (silent == 1 ? " module is silent." : " modules are silent."));
        }
        if (faulty > 0) {
            parts.add(
                    faulty
                            + (faulty == 1
                                    ? " module could not be read."
                                    : " modules could not be read."));
        }
        return String.join(" ", parts).replaceAll(" +", " ").trim();
    }

    private static String lower(String text) {
        return text.substring(0, 1).toLowerCase(Locale.ROOT) + text.substring(1);
    }
}
