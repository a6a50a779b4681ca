package brightlantern.app.exercise;

import brightlantern.app.link.CommandLease;
import brightlantern.core.procedure.Event;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Step;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.NegativeResponseException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * What the acts of a run have in common: they tell what happened, read, command through sessions,
 * and look meanwhile at everything that may end the run.
 */
final class RunDesk {
    private static final long TICK_MILLIS = 60;

    /** The page calls once a second; when it has been silent for so long, it is gone. */
    private static final double DEAD_MAN_SECONDS = 5;

    /** So often a run is looked at while a module takes its time. */
    private static final long ASIDE_MILLIS = 150;

    final LiveRun its;
    final ProcedureWorker.Tools tools;
    final Sessions sessions;
    final GateKeeper keeper;
    private final ExecutorService aside;
    private final ProcedureWorker.Teller teller;

    /**
     * @param aside for what is looked at while a module takes its time; once it is shut down, so is
     *     the program
     */
    RunDesk(
            LiveRun its,
            ProcedureWorker.Tools tools,
            ExecutorService aside,
            ProcedureWorker.Teller teller) {
        this.its = its;
        this.tools = tools;
        this.aside = aside;
        this.teller = teller;
        this.keeper = new GateKeeper(its.context, its.run().procedure().gates());
        this.sessions = new Sessions(its, tools.log());
    }

    VehicleDescription vehicle() {
        return its.context.description();
    }

    void tell(Event event) {
        teller.tell(event, Optional.empty());
    }

    void tell(Event event, Optional<Evidence> more) {
        teller.tell(event, more);
    }

    /** A command to the vehicle. */
    interface Order {
        Event carryOut() throws WireException;
    }

    /** Everything that may end a run at any moment. */
    void watch() throws WireException {
        people();
        its.gates = keeper.look();
        open(its.gates);
        sessions.keepAlive();
    }

    /** Whether somebody wants it to end, or nobody is there any more. */
    void people() {
        stopped();
        if (aside.isShutdown() || Thread.currentThread().isInterrupted()) {
            throw new RunBroken("The program is being ended.");
        }
        Procedure procedure = its.run().procedure();
        if (!procedure.commands()) {
            return;
        }
        its.context.link().lease().stillOf(its.who);
        if (!procedure.mayBeLeft() && its.silence() > DEAD_MAN_SECONDS) {
            throw new RunBroken("The page went away.");
        }
    }

    void stopped() {
        if (!its.stopBecause().isEmpty()) {
            throw new RunBroken(its.stopBecause());
        }
    }

    void open(List<GateState> gates) throws WireException {
        Optional<String> shut = GateState.whyShut(gates);
        if (shut.isPresent() && its.run().procedure().commands()) {
            // a lost connection leaves every gate unknown; it is the connection that is told
            sessions.check();
            throw new RunBroken(shut.get());
        }
    }

    /** Why a gate is shut now, where a module tells it; what nobody tells is no reason. */
    Optional<String> shutNow() {
        return GateState.whyShut(keeper.look().stream().filter(GateState::isTold).toList());
    }

    /** What may end a run, looked at. */
    interface Look {
        void look() throws WireException;
    }

    /**
     * Carries out what a module may take its time for; meanwhile it is looked from aside whether
     * the run has to end, and then the module is not waited for.
     */
    Event patiently(Look look, Order order) throws WireException {
        Thread worker = Thread.currentThread();
        CountDownLatch over = new CountDownLatch(1);
        CompletableFuture<Void> looking =
                CompletableFuture.runAsync(
                        () -> {
                            try {
                                while (!over.await(ASIDE_MILLIS, TimeUnit.MILLISECONDS)) {
                                    look.look();
                                }
                            } catch (CommandLease.Taken other) {
                                its.end(other.handedOver());
                                worker.interrupt();
                            } catch (RunBroken | WireException ends) {
                                its.end(ends.getMessage());
                                worker.interrupt();
                            } catch (InterruptedException ended) {
                                Thread.currentThread().interrupt();
                            }
                        },
                        aside);
        try {
            return order.carryOut();
        } finally {
            over.countDown();
            looking.join();
        }
    }

    void carried(Step step, Order order) throws WireException {
        try {
            tell(order.carryOut());
        } catch (NegativeResponseException refused) {
            boolean gates = its.gates.stream().allMatch(GateState::open);
            tell(
                    new Event.Refused(
                            step.id(),
                            its.context.description().named(refused.getMessage())
                                    + (gates && !its.gates.isEmpty()
                                            ? ". Every gate that is described is open, so the module"
                                                    + " has a reason of its own; sweep it for codes."
                                            : "")));
        }
    }

    /**
     * Reads values once.
     *
     * @param window to which the readings are added, value → pairs of seconds and reading
     * @param keep whether they belong to what the run keeps
     */
    Map<String, Double> read(
            Collection<String> ids, Map<String, List<double[]>> window, boolean keep) {
        Map<String, Double> now = its.context.link().read(its.context.description(), ids);
        double t = its.seconds();
        now.forEach(
                (id, v) -> {
                    if (Double.isFinite(v)) {
                        window.computeIfAbsent(id, i -> new ArrayList<>()).add(new double[] {t, v});
                    }
                });
        if (keep) {
            its.sample(t, now);
        }
        return now;
    }

    static void pause() {
        pause(TICK_MILLIS);
    }

    static void pause(long millis) {
        try {
            TimeUnit.MILLISECONDS.sleep(millis);
        } catch (InterruptedException ended) {
            Thread.currentThread().interrupt();
        }
    }
}
