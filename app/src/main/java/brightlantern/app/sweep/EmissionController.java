package brightlantern.app.sweep;

import brightlantern.app.job.Sweeps;
import brightlantern.app.page.JobPages;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.emission.EmissionReport;
import brightlantern.core.emission.Readiness;
import brightlantern.core.sweep.Sweep.ModuleResult;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

/** What the newest sweep read of the emission system, apart from the maker's own. */
@Controller
class EmissionController {
    private final JobPages pages;
    private final Sweeps sweeps;

    EmissionController(JobPages pages, Sweeps sweeps) {
        this.pages = pages;
        this.sweeps = sweeps;
    }

    record CodeRow(String module, String code, String name, String status, boolean permanent) {}

    record ResultRow(
            String module,
            String name,
            String test,
            String value,
            String limits,
            String verdict,
            String tone) {}

    record ReadyRow(String module, String lamp, List<Readiness.Monitor> monitors) {}

    @GetMapping("/jobs/{id}/sweep/emission")
    String page(@PathVariable("id") long id, Model model) {
        pages.fill(id, "sweep", model);
        List<ModuleResult> told =
                sweeps.newest(id).map(Sweeps.Kept::sweep).stream()
                        .flatMap(s -> s.modules().stream())
                        .filter(m -> m.emission().isPresent())
                        .toList();
        model.addAttribute("answer", answer(told));
        model.addAttribute(
                "ready",
                told.stream()
                        .filter(m -> report(m).readiness().isPresent())
                        .map(
                                m -> {
                                    Readiness r = report(m).readiness().orElseThrow();
                                    return new ReadyRow(
                                            m.name(),
                                            r.lamp()
                                                    ? "Warning lamp asked for, "
                                                            + r.codes()
                                                            + " confirmed"
                                                    : "Warning lamp off",
                                            r.monitors());
                                })
                        .toList());
        model.addAttribute("codes", told.stream().flatMap(m -> codes(m).stream()).toList());
        model.addAttribute("results", told.stream().flatMap(m -> results(m).stream()).toList());
        model.addAttribute(
                "troubles",
                told.stream()
                        .flatMap(m -> report(m).troubles().stream().map(t -> m.name() + ": " + t))
                        .toList());
        return "sweep/emission";
    }

    private static EmissionReport report(ModuleResult module) {
        return module.emission().orElseThrow();
    }

    private static String answer(List<ModuleResult> told) {
        if (told.isEmpty()) {
            return "No module told of the emission system yet. Sweep all modules.";
        }
        long codes = told.stream().mapToLong(m -> report(m).codes().size()).sum();
        long permanent = told.stream().mapToLong(m -> report(m).permanent().size()).sum();
        long failed = told.stream().mapToLong(m -> report(m).failed().size()).sum();
        long open =
                told.stream()
                        .flatMap(m -> report(m).readiness().stream())
                        .mapToLong(Readiness::open)
                        .sum();
        String monitors =
                open == 0
                        ? "Every monitor has come to a result"
                        : open
                                + (open == 1 ? " monitor has" : " monitors have")
                                + " not come to a result since the last clear; drive on before an inspection";
        return "%s; %s, %s, %s."
                .formatted(
                        monitors,
                        plural(codes, "emission code"),
                        plural(permanent, "permanent code"),
                        plural(failed, "test") + " outside the limits");
    }

    private static String plural(long count, String what) {
        return (count == 0 ? "no" : String.valueOf(count)) + " " + what + (count == 1 ? "" : "s");
    }

    private static List<CodeRow> codes(ModuleResult module) {
        EmissionReport report = report(module);
        List<String> stored = report.codes().stream().map(c -> c.code()).toList();
        List<String> permanent = report.permanent().stream().map(c -> c.code()).toList();
        return Stream.concat(
                        report.codes().stream(),
                        report.permanent().stream().filter(c -> !stored.contains(c.code())))
                .map(
                        c ->
                                new CodeRow(
                                        module.name(),
                                        c.code(),
                                        c.name(),
                                        String.join("; ", new DtcStatus(c.status()).words()),
                                        permanent.contains(c.code())))
                .toList();
    }

    private static List<ResultRow> results(ModuleResult module) {
        return report(module).results().stream()
                .map(
                        r ->
                                new ResultRow(
                                        module.name(),
                                        r.name(),
                                        "%02X-%02X".formatted(r.monitor(), r.test()),
                                        r.ran() ? figure(r.value()) + " " + r.unit() : "–",
                                        r.ran()
                                                ? figure(r.min())
                                                        + " to "
                                                        + figure(r.max())
                                                        + " "
                                                        + r.unit()
                                                : "",
                                        !r.ran() ? "not run yet" : r.passed() ? "holds" : "fails",
                                        !r.ran() ? "soft" : r.passed() ? "holds" : "fails"))
                .toList();
    }

    private static String figure(double value) {
        return String.format(Locale.ROOT, Math.abs(value) >= 100 ? "%.0f" : "%.3g", value);
    }
}
