package brightlantern.app.exercise;

import brightlantern.app.page.JobPages;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.take.Stay;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** A run whose job is open here. */
final class LiveRun {
    final long id;
    final JobPages.Context context;
    volatile String who;
    private final long start = System.nanoTime();
    private final Map<String, List<double[]>> samples = new LinkedHashMap<>();
    private final List<Stay> stays = new ArrayList<>();
    private ProcedureRun run;
    private int events;
    private double entered;
    private final PageSilence silence = new PageSilence(System.nanoTime());
    private volatile String stopBecause = "";
    private volatile boolean working;
    private volatile String unwritten = "";
    volatile List<GateState> gates = List.of();

    /** How what is waited for stands now, in words; empty while nothing is. */
    private volatile String present = "";

    /** Values of the last measurement. */
    Set<String> followed = Set.of();

    LiveRun(long id, JobPages.Context context, String who, ProcedureRun run, int events) {
        this.id = id;
        this.context = context;
        this.who = who;
        this.run = run;
        this.events = events;
    }

    /** Whoever began it, or went on with it. */
    String who() {
        return who;
    }

    /** The page is there. */
    void ping() {
        silence.heard(System.nanoTime());
    }

    /** How long its page has been silent while somebody looked, s. */
    double silence() {
        return silence.look(System.nanoTime());
    }

    /** It has to end, for this reason. */
    void end(String why) {
        stopBecause = why;
    }

    /** Why it has to end; empty when it need not. */
    String stopBecause() {
        return stopBecause;
    }

    double seconds() {
        return (System.nanoTime() - start) / 1e9;
    }

    synchronized ProcedureRun run() {
        return run;
    }

    /**
     * Something happened to it; it is kept, and so is what was measured when that ends it.
     *
     * @return what was judged by it
     */
    synchronized List<ProcedureRun.Verdict> tell(Event event, KeptRuns kept) {
        ProcedureRun after = run.with(event);
        if (after.equals(run)) {
            return List.of();
        }
        kept.add(id, events++, event);
        if (!after.at().equals(run.at()) || !after.running()) {
            present = "";
            stays.add(new Stay(run.at(), entered, seconds()));
            entered = seconds();
        }
        List<ProcedureRun.Verdict> news =
                after.verdicts().subList(run.verdicts().size(), after.verdicts().size());
        run = after;
        if (!after.running()) {
            kept.measured(id, samples);
        }
        return news;
    }

    /** Whether somebody has to work at it now; whoever is told so has taken it on. */
    synchronized boolean takeOn() {
        boolean needed =
                run.running() && (run.step().act().automatic() || !run.holding().isEmpty());
        if (!needed || working) {
            return false;
        }
        working = true;
        ping();
        return true;
    }

    synchronized void sample(double t, Map<String, Double> values) {
        values.forEach(
                (id, v) ->
                        samples.computeIfAbsent(id, i -> new ArrayList<>())
                                .add(new double[] {t, v}));
    }

    synchronized Take take() {
        return Take.of(samples);
    }

    synchronized List<Stay> stays() {
        return List.copyOf(stays);
    }

    /** How what is waited for stands now. */
    void awaits(String now) {
        present = now;
    }

    /** How what is waited for stands now, in words; empty while nothing is. */
    String present() {
        return present;
    }

    List<GateState> gates() {
        return gates;
    }

    /** How long the present step has lasted. */
    synchronized double inStep() {
        return seconds() - entered;
    }

    boolean working() {
        return working;
    }

    /** It ended, but that could not be written down yet. */
    void brokeOff(String why) {
        unwritten = why;
    }

    /**
     * Why it ended, when that is still to be written down; whoever is told so has to do it.
     *
     * @return empty when there is nothing to write
     */
    synchronized String stillUnwritten() {
        if (!run.running() || working) {
            return "";
        }
        String why = unwritten;
        unwritten = "";
        return why;
    }

    /** Nobody works at it any more. */
    void letGo() {
        working = false;
    }
}
