package brightlantern.app.exercise;

import brightlantern.app.page.UnitChoices;
import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.signal.Units;
import org.springframework.stereotype.Component;

/** What a person answers to a run, and whether he may. */
@Component
class RunAnswers {
    private final ProcedureRuns runs;
    private final KeptRuns kept;
    private final UnitChoices units;

    RunAnswers(ProcedureRuns runs, KeptRuns kept, UnitChoices units) {
        this.runs = runs;
        this.kept = kept;
        this.units = units;
    }

    /**
     * Who looks on at a run that commands may stop it, as anybody may who sees danger; whatever
     * moves it on is for whoever began it, until it was broken off.
     */
    static void ownsOrStops(LiveRun its, String what, String me) {
        ProcedureRun run = its.run();
        boolean broken = run.status() == ProcedureRun.Status.BROKEN_OFF && what.equals("resume");
        if (run.procedure().commands()
                && !its.who().equals(me)
                && !what.equals("stop")
                && !broken) {
            throw new IllegalStateException(
                    its.who()
                            + " began this and moves it on. You may look on, stop it, or ask for the command.");
        }
    }

    void typed(LiveRun its, String step, String text) {
        ProcedureRun run = its.run();
        if (!run.at().equals(step) || !(run.step().act() instanceof Act.Ask ask)) {
            return;
        }
        Act.Figure figure = ask.figure().orElseThrow();
        double number;
        try {
            number = Double.parseDouble(text.trim().replace(',', '.'));
        } catch (NumberFormatException nonsense) {
            number = Double.NaN;
        }
        String typed = units.unit(figure.unit());
        double kept = Units.convert(number, typed, figure.unit());
        if (!ProcedureRun.fits(figure, kept)) {
            throw new IllegalStateException(
                    "%s: expected a number from %s to %s %s, found '%s'."
                            .formatted(
                                    figure.name(),
                                    plain(Units.convert(figure.least(), figure.unit(), typed)),
                                    plain(Units.convert(figure.most(), figure.unit(), typed)),
                                    typed,
                                    text));
        }
        runs.told(its, new Event.Typed(step, kept));
    }

    private static String plain(double number) {
        return number == Math.rint(number) ? String.valueOf((long) number) : Units.told(number);
    }
}
