package brightlantern.app.link;

import brightlantern.app.job.Instruments;
import brightlantern.app.job.Job;
import brightlantern.core.reason.MeterFinding;
import brightlantern.wire.WireException;
import brightlantern.wire.scpi.Multimeter;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** The meter of a job. */
@Component
public class HandMeter {
    private static final Logger LOG = LoggerFactory.getLogger(HandMeter.class);

    private static final Duration WAIT = Duration.ofSeconds(3);

    /** A reading takes less; somebody who looks for longer is told of. */
    private static final long TURN_SECONDS = 5;

    private final Instruments instruments;

    /** Address → whose turn it is: a lead is at one point at a time. */
    private final Map<InetSocketAddress, Semaphore> turns = new ConcurrentHashMap<>();

    HandMeter(Instruments instruments) {
        this.instruments = instruments;
    }

    /**
     * Reaches it, for whoever closes it again; others wait meanwhile.
     *
     * @throws WireException when it is not reached
     * @throws IllegalStateException when its address is none, or somebody else goes on reading
     */
    public Multimeter open(Job job) throws WireException {
        return open(job.meter());
    }

    Multimeter open(String meter) throws WireException {
        InetSocketAddress address = address(meter);
        Semaphore turn = turns.computeIfAbsent(address, a -> new Semaphore(1, true));
        if (!mine(turn)) {
            throw new IllegalStateException(
                    "The meter at "
                            + meter
                            + " is in use: somebody else reads with it. Read again when they are done.");
        }
        try {
            return new Multimeter(address, WAIT, turn::release);
        } catch (WireException | RuntimeException unreached) {
            turn.release();
            throw unreached;
        }
    }

    private static boolean mine(Semaphore turn) throws WireException {
        try {
            return turn.tryAcquire(TURN_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new WireException("The reading was cancelled");
        }
    }

    /**
     * Host and port of a meter.
     *
     * @throws IllegalStateException when it is no address
     */
    public static InetSocketAddress address(String meter) {
        int colon = meter.lastIndexOf(':');
        try {
            return new InetSocketAddress(
                    meter.substring(0, colon), Integer.parseInt(meter.substring(colon + 1)));
        } catch (RuntimeException wrong) {
            throw new IllegalStateException(
                    "Meter '" + meter + "': expected host:port, for instance 192.0.2.7:5025.");
        }
    }

    /** Keeps the name by which it goes, with the job. */
    public void name(Job job, Multimeter meter) {
        try {
            instruments.used(job.id(), "Meter", meter.identity());
        } catch (WireException nameless) {
            // what was read stays, whatever it calls itself
            LOG.info("A meter of job {} does not say its name", job.id(), nameless);
        }
    }

    /**
     * Reads what a finding wants; infinite for an overload on ohms.
     *
     * @throws WireException when it is lost, refuses, or has nothing to measure
     * @throws IllegalStateException when its address is none, or a lead would have to be moved by
     *     hand between two readings
     */
    public double read(Job job, MeterFinding finding) throws WireException {
        try (Multimeter meter = open(job)) {
            double figure = 0;
            for (int i = 0; i < finding.places().size(); i++) {
                meter.at(finding.places().get(i));
                if (finding.places().size() > 1 && !meter.switches()) {
                    throw new IllegalStateException(
                            "This meter does not move its lead by itself: hold one lead to either end, and type what it reads.");
                }
                figure = i == 0 ? one(meter, finding.unit()) : figure - meter.volts();
            }
            meter.release();
            name(job, meter);
            return figure;
        }
    }

    private static double one(Multimeter meter, String unit) throws WireException {
        return switch (unit) {
            case MeterFinding.OHM -> meter.ohms();
            case MeterFinding.AMPERE -> meter.amps();
            default -> meter.volts();
        };
    }
}
