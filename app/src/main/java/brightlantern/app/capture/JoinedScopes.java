package brightlantern.app.capture;

import brightlantern.core.capture.Capture;
import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.ProbeOutput;
import brightlantern.wire.WireException;
import brightlantern.wire.scpi.CommandProfile;
import brightlantern.wire.scpi.Oscilloscope;
import brightlantern.wire.scpi.ScpiClient;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * One oscilloscope, or several that record one capture together. Each of several sees the plan's
 * shared lane as well, so that it can be told afterwards by how much it began later.
 */
final class JoinedScopes implements AutoCloseable {
    private final List<Oscilloscope> scopes = new ArrayList<>();
    private final List<Connected> lanes = new ArrayList<>();
    private final CapturePlan plan;

    /** The plan's lane, from 0, that every instrument sees. */
    private final int shared;

    /**
     * A lane of the capture.
     *
     * @param scope which instrument, from 0
     * @param channel its lane there, from 1
     */
    record Connected(int scope, int channel, CapturePlan.Probe probe, String name) {}

    /**
     * @throws WireException when there are more lanes than a capture has, or one does not answer
     */
    JoinedScopes(
            CapturePlan plan, List<InetSocketAddress> at, Duration wait, CommandProfile profile)
            throws WireException {
        this.plan = plan;
        this.shared = plan.trigger().map(t -> t.lane() - 1).orElse(0);
        if (plan.lanes().size() + at.size() - 1 > Capture.MOST_LANES) {
            throw new WireException(
                    "%d lanes at %d instruments are too many: each further instrument takes one lane more, and a capture has %d"
                            .formatted(plan.lanes().size(), at.size(), Capture.MOST_LANES));
        }
        connect(at.size());
        try {
            for (InetSocketAddress its : at) {
                scopes.add(new Oscilloscope(new ScpiClient(its, wait), profile));
            }
        } catch (WireException gone) {
            close();
            throw gone;
        }
    }

    /** Shares the lanes out: as many to each, the first ones to the first. */
    private void connect(int instruments) {
        int[] used = new int[instruments];
        int each = (plan.lanes().size() + instruments - 1) / instruments;
        for (int i = 1; i < instruments; i++) {
            used[i] = 1;
        }
        for (int i = 0; i < plan.lanes().size(); i++) {
            int scope = i == shared ? 0 : i / each;
            CapturePlan.Probe probe = plan.lanes().get(i);
            lanes.add(new Connected(scope, ++used[scope], probe, probe.name()));
        }
        for (int i = 1; i < instruments; i++) {
            CapturePlan.Probe probe = plan.lanes().get(shared);
            lanes.add(new Connected(i, 1, probe, probe.name() + ", at instrument " + (i + 1)));
        }
    }

    /** Lanes in the order in which they are kept: those of the plan, then the shared one again. */
    List<Connected> lanes() {
        return List.copyOf(lanes);
    }

    int instruments() {
        return scopes.size();
    }

    /** Among {@link #lanes} the one that the first instrument sees of the shared signal. */
    int shared() {
        return shared;
    }

    /** Among {@link #lanes} the one that another instrument sees of it. */
    int sharedOf(int scope) {
        return plan.lanes().size() + scope - 1;
    }

    List<String> identities() throws WireException {
        List<String> all = new ArrayList<>();
        for (Oscilloscope scope : scopes) {
            all.add(scope.identity());
        }
        return all;
    }

    void begin() throws WireException {
        for (Oscilloscope scope : scopes) {
            scope.reset();
        }
        for (Connected c : lanes) {
            scopes.get(c.scope())
                    .connect(
                            c.channel(),
                            c.probe().place(),
                            c.probe().output().span(c.probe().range()));
            scopes.get(c.scope())
                    .input(c.channel(), plan.input().alternating(), plan.input().filter());
        }
        for (Oscilloscope scope : scopes) {
            scope.prepare(plan.interval(), plan.points(), (int) (plan.before() * plan.points()));
        }
        for (int i = 0; i < scopes.size(); i++) {
            if (plan.trigger().isPresent()) {
                int channel = i == 0 ? lanes.get(shared).channel() : 1;
                CapturePlan.Trigger its = plan.trigger().get();
                String when = its.when().name().toLowerCase(Locale.ROOT);
                double volts = lanes.get(shared).probe().output().volts(its.level());
                scopes.get(i).startAt(channel, volts, when, its.held());
            } else {
                scopes.get(i).start();
            }
        }
    }

    void stop() throws WireException {
        for (Oscilloscope scope : scopes) {
            scope.stop();
        }
    }

    /** It waits while one of them does, and is done when all are. */
    Oscilloscope.State state() throws WireException {
        Oscilloscope.State all = Oscilloscope.State.DONE;
        for (Oscilloscope scope : scopes) {
            Oscilloscope.State its = scope.state();
            if (its.ordinal() < all.ordinal()) {
                all = its;
            }
        }
        return all;
    }

    /** Samples that are there in every lane. */
    int acquired() throws WireException {
        int least = Integer.MAX_VALUE;
        for (Oscilloscope scope : scopes) {
            least = Math.min(least, scope.acquired());
        }
        return least;
    }

    /** How steps of a lane are told in its unit, whatever its probe gives. */
    Oscilloscope.Preamble preamble(Connected lane) throws WireException {
        Oscilloscope.Preamble its = scopes.get(lane.scope()).preamble(lane.channel());
        ProbeOutput output = lane.probe().output();
        return new Oscilloscope.Preamble(output.step(its.scale()), output.felt(its.offset()));
    }

    short[] fetch(Connected lane, int from, int count) throws WireException {
        return scopes.get(lane.scope()).fetch(lane.channel(), from, count);
    }

    @Override
    public void close() {
        scopes.forEach(Oscilloscope::close);
    }
}
