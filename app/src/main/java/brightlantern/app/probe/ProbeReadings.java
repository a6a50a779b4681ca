package brightlantern.app.probe;

import brightlantern.app.job.CommandLog;
import brightlantern.app.link.OutputSession;
import brightlantern.app.page.JobPages;
import brightlantern.core.actuator.Actuator;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.wire.WireException;
import brightlantern.wire.scpi.ScpiClient;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/**
 * Takes readings from the meter, with the circuit at rest, loaded, or while an actuator moves to
 * and fro.
 */
@Component
class ProbeReadings {
    private static final Duration METER_WAIT = Duration.ofSeconds(3);
    private static final int REST_READINGS = 8;

    /** A bulb's filament needs this long to settle. */
    private static final long SETTLE_MILLIS = 450;

    private static final double STROKE_SECONDS = 1.0;
    private static final int STROKES = 4;

    /**
     * While an actuator goes to and fro it moves about half of the time; this share of the
     * readings, sorted by their distance from rest, lies in the steady part of the motion and above
     * neither the inrush nor a slipped reading.
     */
    private static final double MOVING_QUANTILE = 0.8;

    private final CommandLog log;

    ProbeReadings(CommandLog log) {
        this.log = log;
    }

    /**
     * @param volts at the point against battery minus
     * @param supplyVolts at the vehicle meanwhile
     */
    record Reading(double volts, double supplyVolts) {}

    /**
     * Takes one reading.
     *
     * @param moving the actuators that are to move meanwhile
     * @throws WireException when meter or vehicle do not play their part
     * @throws IllegalStateException when a gate is shut or somebody else commands the vehicle
     */
    Reading take(
            JobPages.Context context,
            Circuit circuit,
            ProbePoint point,
            String load,
            List<Actuator> moving,
            String who)
            throws WireException {
        String supplyId = context.description().live().supply();
        Double supply = context.link().read(context.description(), List.of(supplyId)).get(supplyId);
        if (supply == null || supply.isNaN()) {
            throw new IllegalStateException(
                    "The vehicle does not tell its supply voltage. Turn the key on, or type the reading in with the supply.");
        }
        try (ScpiClient meter = new ScpiClient(address(context.job().meter()), METER_WAIT)) {
            meter.command("ROUT:CLOS (@" + point.id() + ")");
            meter.command("INP:LOAD " + load.toUpperCase(java.util.Locale.ROOT));
            double volts =
                    moving.isEmpty()
                            ? atRest(meter)
                            : whileMoving(context, meter, point, supply, moving, who);
            meter.command("*RST");
            return new Reading(volts, supply);
        }
    }

    /**
     * @throws IllegalStateException names the text and what was expected
     */
    static InetSocketAddress address(String meter) {
        int colon = meter.lastIndexOf(':');
        try {
            return new InetSocketAddress(
                    meter.substring(0, colon), Integer.parseInt(meter.substring(colon + 1)));
        } catch (RuntimeException wrong) {
            throw new IllegalStateException(
                    "Meter '" + meter + "': expected host:port, for instance 192.0.2.7:5025.");
        }
    }

    private static double atRest(ScpiClient meter) throws WireException {
        pause(SETTLE_MILLIS);
        double sum = 0;
        for (int i = 0; i < REST_READINGS; i++) {
            sum += meter.number("MEAS:VOLT:DC?");
        }
        return sum / REST_READINGS;
    }

    private double whileMoving(
            JobPages.Context context,
            ScpiClient meter,
            ProbePoint point,
            double supply,
            List<Actuator> moving,
            String who)
            throws WireException {
        List<Double> drops = new ArrayList<>();
        double pole = point.side().equals("earth") ? 0 : supply;
        int module = context.description().module(moving.get(0).module()).orElseThrow().address();
        checkGates(context, moving);
        try (OutputSession session =
                new OutputSession(
                        context.link(),
                        log,
                        context.job(),
                        who,
                        "reading at " + point.name(),
                        module)) {
            for (int stroke = 0; stroke <= STROKES; stroke++) {
                for (Actuator actuator : moving) {
                    session.drive(actuator, stroke % 2 == 0 ? actuator.low() : actuator.high());
                }
                long end = System.nanoTime() + (long) (STROKE_SECONDS * 1e9);
                while (System.nanoTime() < end) {
                    session.check();
                    double volts = meter.number("MEAS:VOLT:DC?");
                    // the first stroke only brings the actuator to its start
                    if (stroke > 0) {
                        drops.add(Math.abs(volts - pole));
                    }
                    pause(12);
                }
                checkGates(context, moving);
            }
        }
        drops.sort(null);
        double drop = drops.get((int) (MOVING_QUANTILE * (drops.size() - 1)));
        return point.side().equals("earth") ? drop : supply - drop;
    }

    private static void checkGates(JobPages.Context context, List<Actuator> moving)
            throws WireException {
        for (Actuator actuator : moving) {
            context.link().requireOpen(context.description(), actuator);
        }
    }

    private static void pause(long millis) throws WireException {
        try {
            TimeUnit.MILLISECONDS.sleep(millis);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new WireException("The reading was cancelled");
        }
    }
}
