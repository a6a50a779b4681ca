package brightlantern.app.exercise;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.link.CommandLease;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.ProcedureRun;
import brightlantern.core.suspect.Evidence;
import brightlantern.wire.WireException;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import org.springframework.dao.DataAccessException;

/**
 * Works at one run: carries out step after step, and watches meanwhile everything that may end it.
 * Whatever happens, outputs are given back and routines stopped before it ends.
 */
final class ProcedureWorker {
    private final LiveRun its;
    private final ExecutorService aside;
    private final RunDesk desk;
    private final ActExecutors executors;

    /** What the work needs beside the vehicle. */
    record Tools(Findings findings, CommandLog log, Writes writes) {}

    /** Takes what happened to the run. */
    interface Teller {
        /**
         * @param more evidence beside the outcome
         */
        void tell(Event event, Optional<Evidence> more);
    }

    /**
     * @param aside for what is looked at while a module takes its time; once it is shut down, so is
     *     the program
     */
    ProcedureWorker(LiveRun its, Tools tools, ExecutorService aside, Teller teller) {
        this.its = its;
        this.aside = aside;
        this.desk = new RunDesk(its, tools, aside, teller);
        this.executors = new ActExecutors(desk);
    }

    void work() {
        String why = "";
        boolean silent = false;
        try {
            while (its.run().running()) {
                ProcedureRun run = its.run();
                if (!run.step().act().automatic() && run.holding().isEmpty()) {
                    break;
                }
                desk.watch();
                executors.carryOut(run.step());
            }
        } catch (RunBroken broken) {
            why = broken.getMessage();
        } catch (CommandLease.Taken other) {
            why = other.handedOver();
        } catch (WireException lost) {
            silent = its.stopBecause().isEmpty();
            why =
                    !its.stopBecause().isEmpty()
                            ? its.stopBecause()
                            : its.context.description().named(lost.getMessage()) + ".";
        } catch (DataAccessException unkept) {
            why = notWritten(unkept);
        } catch (RuntimeException unforeseen) {
            why = "The run broke off: " + unforeseen.getMessage();
        } finally {
            // what is held is given back even when the worker was told to hurry
            boolean ending = Thread.interrupted();
            try {
                desk.sessions.close();
            } catch (DataAccessException unkept) {
                why = why.isEmpty() ? notWritten(unkept) : why;
            }
            if (silent && !ending) {
                // a key that was turned silences modules: the gate says more than their silence
                why = desk.shutNow().orElse(why);
            }
            if (ending && aside.isShutdown()) {
                Thread.currentThread().interrupt();
            }
            if (!why.isEmpty() || desk.sessions.loose()) {
                String became = its.context.description().named(desk.sessions.became());
                brokenOff((why + " " + became).trim());
            }
            its.letGo();
        }
    }

    private void brokenOff(String why) {
        boolean running = its.run().running();
        try {
            desk.tell(new Event.Stopped(its.run().at(), why));
            desk.tools
                    .findings()
                    .note(
                            its.context.job().id(),
                            "exercise",
                            its.who,
                            its.run().procedure().name()
                                    + (running ? " was broken off: " : ": ")
                                    + why);
        } catch (DataAccessException unkept) {
            its.brokeOff(why);
        }
    }

    private static String notWritten(DataAccessException unkept) {
        return "What it does cannot be written down at present ("
                + unkept.getMostSpecificCause().getMessage()
                + "). Make room on the disk.";
    }
}
