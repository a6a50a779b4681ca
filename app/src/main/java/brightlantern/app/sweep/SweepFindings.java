package brightlantern.app.sweep;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Job;
import brightlantern.app.learned.LearnedDesk;
import brightlantern.app.page.JobPages;
import brightlantern.core.code.Code;
import brightlantern.core.code.DtcStatus;
import brightlantern.core.code.StoredCode;
import brightlantern.core.network.ControlModule;
import brightlantern.core.reason.Reasoners;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.sweep.CodeWeigher;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What a sweep found, told to the story of its job and to Trace. */
@Component
class SweepFindings {
    private final Findings findings;
    private final NetworkFindings network;
    private final LearnedDesk learned;

    SweepFindings(Findings findings, NetworkFindings network, LearnedDesk learned) {
        this.findings = findings;
        this.network = network;
        this.learned = learned;
    }

    /**
     * @param cleared whether codes were cleared in this job before
     */
    void tell(JobPages.Context context, String who, Sweep sweep, boolean cleared) {
        Job job = context.job();
        long silent = sweep.count(Answer.SILENT) + sweep.count(Answer.FAULTY);
        String text =
                "Sweep %s: %d of %d modules answered, %s."
                        .formatted(
                                sweep.whole() ? "done" : "stopped",
                                sweep.count(Answer.ANSWERED),
                                sweep.modules().size() - sweep.count(Answer.NOT_FITTED),
                                Words.count(sweep.codes().size(), "code"));
        findings.add(
                job.id(),
                "sweep",
                who,
                text,
                sweep.whole()
                        ? Optional.of(silent == 0 && sweep.codes().isEmpty())
                        : Optional.empty(),
                Optional.empty(),
                null);
        if (sweep.whole() && context.keyOff()) {
            findings.note(
                    job.id(),
                    "sweep",
                    who,
                    "Swept with the key off: who is silent may sleep, so nothing of it is weighed.");
        } else if (sweep.whole()) {
            codeEvidence(context, who, sweep, cleared);
            network.heard(context, who, sweep);
            learned.read(context, who);
        }
    }

    /** Says of each code that the suspects speak of whether it is there. */
    private void codeEvidence(JobPages.Context context, String who, Sweep sweep, boolean cleared) {
        VehicleDescription description = context.description();
        Set<String> stored =
                sweep.codes().stream().map(StoredCode::code).collect(Collectors.toSet());
        // of the hundreds that circuits can set only those that are there are told
        Set<String> spoken =
                description.suspects().stream()
                        .flatMap(
                                s ->
                                        s.codes().keySet().stream()
                                                .filter(
                                                        c ->
                                                                !Reasoners.isDerived(s)
                                                                        || stored.contains(c)))
                        .collect(Collectors.toSet());
        spoken.addAll(
                Reasoners.askedAfter(description, Set.copyOf(context.job().symptoms()), stored));
        if (network.suspected(context, sweep).isEmpty()) {
            // a lead code that nobody described speaks for something not on the list; who misses
            // whom is weighed with what was heard of the network
            Set<String> misses =
                    description.modules().stream()
                            .map(ControlModule::missed)
                            .collect(Collectors.toSet());
            CodeWeigher.weigh(sweep.codes(), description, context.job().symptoms()).stream()
                    .filter(CodeWeigher.Weighed::lead)
                    .filter(w -> !misses.contains(w.code().code()))
                    .forEach(w -> spoken.add(w.code().code()));
        }
        List<String> untold = new ArrayList<>();
        for (String code : spoken) {
            String module =
                    description.codes().stream()
                            .filter(c -> c.code().equals(code))
                            .map(Code::module)
                            .findFirst()
                            .orElse("");
            boolean answered =
                    sweep.module(module).map(m -> m.answer() == Answer.ANSWERED).orElse(false);
            if (!answered) {
                continue;
            }
            Optional<StoredCode> found =
                    sweep.codes().stream()
                            .filter(
                                    c ->
                                            c.code().equals(code)
                                                    && c.statusByte().standing()
                                                            != DtcStatus.Standing.QUIET)
                            .findFirst();
            boolean notRun =
                    cleared
                            && sweep.module(module)
                                    .flatMap(ModuleResult::notRun)
                                    .map(n -> n.contains(code))
                                    .orElse(true);
            if (found.isEmpty() && notRun) {
                // it was cleared, and nothing has looked for it since
                untold.add(code);
                continue;
            }
            String name = description.code(module, code).map(Code::name).orElse("");
            findings.add(
                    context.job().id(),
                    "sweep",
                    who,
                    code
                            + " "
                            + name
                            + ": "
                            + found.map(c -> c.statusByte().standing().words())
                                    .orElse("not stored"),
                    Optional.of(found.isEmpty()),
                    new Evidence.CodeSeen(code, found.isPresent()));
        }
        if (!untold.isEmpty()) {
            findings.note(
                    context.job().id(),
                    "sweep",
                    who,
                    "Cleared, and not tested since: "
                            + String.join(", ", untold)
                            + ". That they are not stored tells nothing yet.");
        }
    }
}
