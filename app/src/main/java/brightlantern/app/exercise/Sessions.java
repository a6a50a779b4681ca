package brightlantern.app.exercise;

import brightlantern.app.job.CommandLog;
import brightlantern.app.link.OutputSession;
import brightlantern.wire.WireException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.dao.DataAccessException;

/** The modules that a run commands, each with its session. */
final class Sessions implements AutoCloseable {
    private final LiveRun its;
    private final CommandLog log;

    /** Between two calls that keep a session open, s. */
    private static final double KEEP_ALIVE_SECONDS = 1.5;

    private final Map<String, OutputSession> open = new LinkedHashMap<>();
    private final List<String> unconfirmed = new ArrayList<>();
    private boolean held;
    private double alive;

    Sessions(LiveRun its, CommandLog log) {
        this.its = its;
        this.log = log;
    }

    OutputSession of(String module) throws WireException {
        OutputSession there = open.get(module);
        if (there == null) {
            there =
                    new OutputSession(
                            its.context.link(),
                            log,
                            its.context.job(),
                            its.who,
                            its.run().procedure().name(),
                            its.context.description().module(module).orElseThrow().address());
            open.put(module, there);
        }
        return there;
    }

    void giveBack() throws WireException {
        for (OutputSession session : open.values()) {
            session.giveBack();
        }
        // nothing is held any more: no session is kept, and others may command
        close();
        open.clear();
    }

    void check() throws WireException {
        for (OutputSession session : open.values()) {
            session.check();
        }
    }

    void keepAlive() throws WireException {
        if (!open.isEmpty() && its.seconds() - alive > KEEP_ALIVE_SECONDS) {
            alive = its.seconds();
            its.context.link().lease().claim(its.who);
            for (OutputSession session : open.values()) {
                session.keepAlive();
            }
        }
    }

    /** What became of all that was held, in a sentence; empty when nothing ever was. */
    String became() {
        return !unconfirmed.isEmpty()
                ? String.join(" ", unconfirmed)
                : held ? "All that was held was given back." : "";
    }

    /** Whether some module never confirmed that everything went back. */
    boolean loose() {
        return !unconfirmed.isEmpty();
    }

    /**
     * @throws DataAccessException of the first that could not write its log; all are closed
     */
    @Override
    public void close() {
        DataAccessException first = null;
        for (OutputSession session : open.values()) {
            try {
                session.close();
                held |= session.held();
                session.unconfirmed().ifPresent(unconfirmed::add);
            } catch (DataAccessException unkept) {
                first = first == null ? unkept : first;
            }
        }
        if (first != null) {
            throw first;
        }
    }
}
