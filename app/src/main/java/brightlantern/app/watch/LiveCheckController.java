package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Value;
import brightlantern.core.study.agreement.Agreement;
import brightlantern.core.study.agreement.AgreementCheck;
import brightlantern.core.study.reaction.ReactionCheck;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.security.Principal;
import java.util.List;
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
        AgreementCheck check =
                AgreementCheck.of(
                        agreement,
                        d.signals(),
                        context.link().read(d, AgreementCheck.needs(agreement)));
        if (check.agrees().isEmpty()) {
            flash.addFlashAttribute("error", check.sentence());
            return WatchController.BACK + id + "/watch";
        }
        findings.add(
                id,
                "watch",
                who.getName(),
                check.sentence(),
                check.agrees(),
                Optional.of(
                        new Evidence.Outcome(
                                agreement.finding(),
                                check.agrees().get() ? agreement.agrees() : agreement.differs())),
                null);
        return WatchController.BACK + id + "/watch";
    }
}
