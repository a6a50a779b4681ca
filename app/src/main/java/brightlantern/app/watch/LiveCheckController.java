package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.RangeVerdict;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.study.agreement.Agreement;
import brightlantern.core.study.reaction.ReactionCheck;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.security.Principal;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Checks that are done while one looks on: what must agree, and what must react. */
@Controller
@RequestMapping("/jobs/{id}/watch")
class LiveCheckController {
    private final JobPages pages;
    private final Findings findings;

    LiveCheckController(JobPages pages, Findings findings) {
        this.pages = pages;
        this.findings = findings;
    }

    /** Looks on while somebody commands something, and judges what moved. */
    @PostMapping("/reaction")
    String reaction(
            @PathVariable("id") long id,
            @RequestParam("command") String command,
            @RequestParam("answers") String answers,
            @RequestParam(name = "seconds", defaultValue = "15") double seconds,
            Principal who,
            RedirectAttributes flash)
            throws InterruptedException {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        if (d.value(command).isEmpty() || d.value(answers).isEmpty() || command.equals(answers)) {
            flash.addFlashAttribute("error", "Reaction check: choose two different values.");
            return WatchController.BACK + id + "/watch";
        }
        double span = Math.max(5, Math.min(60, Double.isFinite(seconds) ? seconds : 15));
        Take seen = new Take(LiveSpan.read(context, Set.of(command, answers), span), List.of());
        ReactionCheck.Verdict verdict =
                ReactionCheck.check(
                        seen,
                        command,
                        answers,
                        d.value(command).map(Value::unit).orElse(""),
                        d.value(answers).map(Value::unit).orElse(""));
        String told =
                d.value(answers).map(Value::name).orElse(answers)
                        + " after "
                        + d.value(command).map(Value::name).orElse(command)
                        + ": "
                        + verdict.sentence();
        if (verdict.outcome().equals("no-step")) {
            flash.addFlashAttribute("error", told);
        } else {
            findings.add(
                    id,
                    "watch",
                    who.getName(),
                    told,
                    Optional.of(verdict.outcome().equals("reacts")),
                    Optional.empty(),
                    verdict,
                    "reaction " + command + " " + answers);
            flash.addFlashAttribute("notice", told);
        }
        return WatchController.BACK + id + "/watch";
    }

    /** Compares two values that must agree now. */
    @PostMapping("/agree")
    String agree(
            @PathVariable("id") long id,
            @RequestParam("agreement") String agreementId,
            Principal who,
            RedirectAttributes flash) {
        JobPages.Context context = pages.context(id);
        VehicleDescription d = context.description();
        Agreement agreement =
                JobPages.found(
                        d.agreements().stream().filter(a -> a.id().equals(agreementId)).findFirst(),
                        "comparison",
                        agreementId);
        Set<String> ids = new LinkedHashSet<>(List.of(agreement.a(), agreement.b()));
        agreement.when().forEach(c -> ids.add(c.value()));
        Map<String, Double> now = context.link().read(d, ids);
        Optional<Condition> shut =
                agreement.when().stream()
                        .filter(c -> !RangeVerdict.holds(c, now.get(c.value())))
                        .findFirst();
        if (shut.isPresent()
                || !now.containsKey(agreement.a())
                || !now.containsKey(agreement.b())) {
            flash.addFlashAttribute(
                    "error",
                    agreement.name()
                            + " was not compared: "
                            + shut.map(s -> "it needs " + s.says() + ". " + s.opens() + ".")
                                    .orElse("a module does not answer."));
            return WatchController.BACK + id + "/watch";
        }
        Value a = d.value(agreement.a()).orElseThrow();
        Value b = d.value(agreement.b()).orElseThrow();
        double left = Units.convert(now.get(a.id()), a.unit(), a.show());
        double right = Units.convert(now.get(b.id()), b.unit(), a.show());
        boolean agrees = Math.abs(left - right) <= agreement.within();
        findings.add(
                id,
                "watch",
                who.getName(),
                String.format(
                        Locale.ROOT,
                        "%s: %s and %s %s, %s (up to %s apart is right).",
                        agreement.name(),
                        Units.told(left),
                        Units.told(right),
                        a.show(),
                        agrees ? "they agree" : "they differ",
                        Units.told(agreement.within())),
                Optional.of(agrees),
                Optional.of(
                        new Evidence.Outcome(
                                agreement.finding(),
                                agrees ? agreement.agrees() : agreement.differs())),
                null);
        return WatchController.BACK + id + "/watch";
    }
}
