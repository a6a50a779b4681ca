package brightlantern.app.watch;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Takes;
import brightlantern.app.job.Takes.TakeHead;
import brightlantern.app.page.JobPages;
import brightlantern.core.study.trim.TrimDip;
import brightlantern.core.study.trim.TrimSet;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** What the fuel trims of a take say, for its page and for Trace. */
@Component
class TrimFindings {
    private final Takes takes;
    private final Findings findings;

    TrimFindings(Takes takes, Findings findings) {
        this.takes = takes;
        this.findings = findings;
    }

    /**
     * For the page of a take.
     *
     * @param holds whether it speaks for a healthy engine
     */
    record View(
            String title,
            boolean holds,
            String sentence,
            List<TrimStudy.RegimeTrim> regimes,
            List<String> reasons) {}

    /** Hands what a take says to Trace; whether it said anything. */
    boolean judge(JobPages.Context context, long takeId, Take take, String who) {
        TakeHead head = takes.head(context.job().id(), takeId).orElseThrow();
        boolean judged = false;
        for (TrimSet set : context.description().trims()) {
            judged |=
                    head.refuelled() && !set.refuelled().isEmpty()
                            ? judgeRefuelled(context, head, take, set, who)
                            : judgePattern(context, head, take, set, who);
        }
        return judged;
    }

    private boolean judgePattern(
            JobPages.Context context, TakeHead head, Take take, TrimSet set, String who) {
        Optional<TrimStudy.Verdict> verdict = TrimStudy.study(take, set);
        verdict.ifPresent(
                v ->
                        findings.add(
                                context.job().id(),
                                "watch",
                                who,
                                head.name() + ": " + v.sentence(),
                                Optional.of(v.outcome().equals(TrimStudy.NORMAL)),
                                Optional.of(new Evidence.Outcome(set.finding(), v.outcome())),
                                null));
        return verdict.isPresent();
    }

    private boolean judgeRefuelled(
            JobPages.Context context, TakeHead head, Take take, TrimSet set, String who) {
        Optional<Double> after = idle(take, set);
        Optional<Double> before = ordinary(head, set);
        if (after.isEmpty() || before.isEmpty()) {
            return false;
        }
        String outcome = TrimStudy.refuelled(before.get(), after.get());
        findings.add(
                context.job().id(),
                "watch",
                who,
                head.name() + ": " + compared(before.get(), after.get()),
                Optional.of(outcome.equals("as-before")),
                Optional.of(new Evidence.Outcome(set.refuelled(), outcome)),
                null);
        return true;
    }

    private static String compared(double before, double after) {
        return String.format(
                Locale.ROOT,
                "soon after filling up the trims at idle are %+.1f %%, on an ordinary day %+.1f %%: %s.",
                after,
                before,
                TrimStudy.refuelled(before, after).equals("richer")
                        ? "vapour from the tank comes in"
                        : "no vapour from the tank comes in");
    }

    private static Optional<Double> idle(Take take, TrimSet set) {
        return TrimStudy.regimes(take, set).stream()
                .filter(r -> r.id().equals(set.regimes().get(0).id()))
                .map(TrimStudy.RegimeTrim::total)
                .findFirst();
    }

    /** The newest other take of the job that was recorded on an ordinary day. */
    private Optional<Double> ordinary(TakeHead head, TrimSet set) {
        return takes.of(head.jobId()).stream()
                .filter(t -> t.id() != head.id() && !t.refuelled() && !t.setAside())
                .filter(t -> t.ended().isPresent())
                .flatMap(t -> idle(takes.ended(t), set).stream())
                .findFirst();
    }

    List<View> views(JobPages.Context context, TakeHead head, Take take) {
        List<View> views = new ArrayList<>();
        for (TrimSet set : context.description().trims()) {
            if (head.refuelled()) {
                Optional<Double> after = idle(take, set);
                Optional<Double> before = ordinary(head, set);
                if (after.isPresent() && before.isPresent()) {
                    views.add(
                            new View(
                                    set.name() + ", soon after filling up",
                                    TrimStudy.refuelled(before.get(), after.get())
                                            .equals("as-before"),
                                    compared(before.get(), after.get()),
                                    TrimStudy.regimes(take, set),
                                    List.of()));
                }
            } else {
                TrimStudy.study(take, set)
                        .ifPresent(
                                v ->
                                        views.add(
                                                new View(
                                                        set.name(),
                                                        v.outcome().equals(TrimStudy.NORMAL),
                                                        v.sentence(),
                                                        v.regimes(),
                                                        withDips(v.reasons(), take, set))));
            }
        }
        return views;
    }

    private static List<String> withDips(List<String> reasons, Take take, TrimSet set) {
        List<String> all = new ArrayList<>(reasons);
        TrimDip.of(take, set.shortTerm()).forEach(d -> all.add(d.sentence()));
        return all;
    }

    List<String> whyNot(JobPages.Context context, Take take) {
        return context.description().trims().stream()
                .filter(set -> TrimStudy.study(take, set).isEmpty())
                .map(
                        set ->
                                set.name()
                                        + ": "
                                        + TrimStudy.whyNot(
                                                take, set, context.description().signals()))
                .toList();
    }
}
