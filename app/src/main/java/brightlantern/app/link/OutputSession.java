package brightlantern.app.link;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Job;
import brightlantern.core.actuator.Actuator;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import brightlantern.wire.transport.Transport;
import brightlantern.wire.uds.NegativeResponseException;
import brightlantern.wire.uds.UdsClient;
import brightlantern.wire.uds.UdsTimings;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.LongSupplier;

/**
 * Outputs of one module taken over for a while. Closing it gives every output back, ends the
 * diagnostic session, lets go of the lease and writes the log, whatever happened before. What is
 * not confirmed is tried again; a module that confirms nothing is left alone for longer than its
 * session lasts (S3, 5 s: ISO 14229-2), for whoever asks it keeps that session alive.
 */
public final class OutputSession implements AutoCloseable {
    private static final int EXTENDED = 0x03;
    private static final int DEFAULT = 0x01;

    /** What gives something back is sent so often before it counts as not confirmed. */
    private static final int TRIES = 3;

    /** Sub-functions of routine control (0x31). */
    public static final int START = 1;

    public static final int STOP = 2;
    public static final int ASK = 3;

    private final VehicleLink link;
    private final CommandLog log;
    private final Job job;
    private final String who;
    private final String why;
    private final int moduleAddress;
    private final Transport opened;
    private final Set<Integer> taken = new LinkedHashSet<>();
    private final Set<Integer> started = new LinkedHashSet<>();
    private Optional<String> unconfirmed = Optional.empty();
    private boolean held;

    /**
     * Claims the vehicle and opens the extended session.
     *
     * @throws IllegalStateException when somebody else commands the vehicle
     * @throws WireException when the module cannot be reached or refuses
     */
    public OutputSession(
            VehicleLink link, CommandLog log, Job job, String who, String why, int moduleAddress)
            throws WireException {
        this.link = link;
        this.log = log;
        this.job = job;
        this.who = who;
        this.why = why;
        this.moduleAddress = moduleAddress;
        link.lease().claim(who);
        try {
            opened = link.transport();
            client().session(EXTENDED);
        } catch (WireException refused) {
            link.lease().release(who);
            throw refused;
        }
    }

    private UdsClient client() throws WireException {
        return link.module(moduleAddress);
    }

    /**
     * To be called while waiting: a connection that was lost and made again has no session, and its
     * outputs went back.
     *
     * @throws WireException when that happened
     */
    public void check() throws WireException {
        if (!opened.isOpen() || link.transport() != opened) {
            throw new WireException(
                    "The connection to the vehicle was lost meanwhile; the module ends by itself what it was told when it hears nothing for some seconds");
        }
    }

    /** Drives an actuator to a position in percent of travel. */
    public void drive(Actuator actuator, double percent) throws WireException {
        drive(actuator.did(), actuator.name(), percent);
    }

    /** Takes an output over and sets it, in percent. */
    public void drive(int did, String name, double percent) throws WireException {
        boolean first = taken.add(did);
        try {
            logged(
                    CommandLog.OUTPUT,
                    String.format(Locale.ROOT, "%s to %.0f %%", name, percent),
                    () -> client().control(did, Bytes.of((int) Math.round(percent * 2))));
        } catch (NegativeResponseException refused) {
            // what the module refuses to take over it does not hold; silence leaves that open
            if (first) {
                taken.remove(did);
            }
            throw refused;
        }
    }

    /** Gives all outputs back, and goes on. */
    public void giveBack() throws WireException {
        held |= !taken.isEmpty();
        for (int did : List.copyOf(taken)) {
            client().giveBack(did);
            taken.remove(did);
        }
    }

    /**
     * Starts (1), stops (2) or asks (3) a routine.
     *
     * @return its result bytes
     */
    public Bytes routine(int kind, int rid, String name) throws WireException {
        check();
        if (kind == ASK) {
            return client().routine(kind, rid, Bytes.EMPTY);
        }
        if (kind == START) {
            started.add(rid);
        }
        Bytes[] result = {Bytes.EMPTY};
        logged(
                CommandLog.OUTPUT,
                name + (kind == START ? ": start" : ": stop"),
                () ->
                        result[0] =
                                client().with(UdsTimings.STANDARD.patient())
                                        .routine(kind, rid, Bytes.EMPTY));
        if (kind == STOP) {
            started.remove(rid);
        }
        return result[0];
    }

    /**
     * Writes an identifier (0x2E).
     *
     * @param told what that means, for the log
     */
    public void write(int did, Bytes value, String told) throws WireException {
        logged(CommandLog.WRITE, told, () -> client().write(did, value));
    }

    /** Keeps the session, which ends by itself when nothing is heard for 5 s. */
    public void keepAlive() throws WireException {
        check();
        client().testerPresent();
    }

    /** Something that a module is asked to do. */
    private interface Command {
        void send() throws WireException;
    }

    private void logged(String kind, String what, Command command) throws WireException {
        link.lease().claim(who);
        check();
        long line = written(() -> log.begin(job, who, kind, what, why, CommandLog.SENT));
        try {
            command.send();
            written(() -> completed(line, Optional.empty()));
        } catch (WireException refused) {
            written(() -> completed(line, Optional.of(refused)));
            throw refused;
        }
    }

    private long completed(long line, Optional<WireException> refused) {
        log.complete(line, VehicleLink.answerOf(refused));
        return line;
    }

    /** Who was told to stop waiting still writes down what is sent. */
    private static long written(LongSupplier line) {
        boolean interrupted = Thread.interrupted();
        try {
            return line.getAsLong();
        } finally {
            if (interrupted) {
                Thread.currentThread().interrupt();
            }
        }
    }

    /** Everything is tried, whatever became of what was tried before. */
    private Optional<WireException> allGivenBack() {
        List<Command> commands = new ArrayList<>();
        try {
            check();
            UdsClient hasty = client().with(UdsTimings.STANDARD.hasty());
            taken.forEach(did -> commands.add(() -> hasty.giveBack(did)));
            started.forEach(rid -> commands.add(() -> hasty.routine(STOP, rid, Bytes.EMPTY)));
            commands.add(() -> hasty.session(DEFAULT));
        } catch (WireException lost) {
            return Optional.of(lost);
        }
        Optional<WireException> first = Optional.empty();
        for (Command command : commands) {
            // a module that did not hear the first is not waited for as long with the others
            Optional<WireException> now = tried(command, first.isEmpty() ? TRIES : 1);
            first = first.or(() -> now);
        }
        return first;
    }

    /** Sends a command until it is confirmed, a few times at most; why it never was. */
    private static Optional<WireException> tried(Command command, int times) {
        WireException last = null;
        for (int i = 0; i < times; i++) {
            try {
                command.send();
                return Optional.empty();
            } catch (WireException failed) {
                last = failed;
            }
        }
        return Optional.of(last);
    }

    /**
     * Once it is closed: why it is not known whether all went back, and what to do; empty when
     * every module confirmed it.
     */
    public Optional<String> unconfirmed() {
        return unconfirmed;
    }

    /** Whether it ever held an output or ran a routine. */
    public boolean held() {
        return held;
    }

    @Override
    public void close() {
        Optional<WireException> failure = allGivenBack();
        boolean anything = !taken.isEmpty() || !started.isEmpty();
        held |= anything;
        if (failure.isPresent() && anything) {
            link.leaveAlone(moduleAddress);
            unconfirmed =
                    Optional.of(
                            "It is NOT confirmed that everything went back ("
                                    + failure.get().getMessage()
                                    + "). The module is asked nothing for some seconds, so that its"
                                    + " session ends by itself. If the output still works then, turn"
                                    + " the key off.");
        }
        link.lease().release(who);
        if (anything) {
            log.add(
                    job,
                    who,
                    CommandLog.OUTPUT,
                    "outputs given back to the module",
                    why,
                    failure.map(f -> "not confirmed (" + f.getMessage() + "); it is left alone now")
                            .orElse("positive"));
        }
    }
}
