package brightlantern.standin;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.standin.instrument.Meter;
import brightlantern.wire.WireException;
import brightlantern.wire.doip.DoipConnection;
import brightlantern.wire.doip.DoipDiscovery;
import brightlantern.wire.scpi.Multimeter;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.uds.DtcAnswers;
import brightlantern.wire.uds.UdsClient;
import brightlantern.wire.uds.UdsTimings;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.Set;
import java.util.stream.Collectors;

/** Over real sockets: modules by DoIP and UDS, the meter by SCPI. */
final class ReachOverSockets implements Reach {
    private static final Duration WAIT = Duration.ofSeconds(5);
    private static final Duration ANSWERS_WITHIN = Duration.ofMillis(400);
    private static final int TESTER = 0x0E80;

    /** Failed since the last clear (ISO 14229-1, D.2, bit 5). */
    private static final int FAILED_SINCE_CLEAR = 0x20;

    private final StandInVehicle v;
    private final DoipConnection connection;
    private final Multimeter meter;

    /** What goes wrong on the way. */
    private interface Asked<T> {
        T from() throws WireException;
    }

    /**
     * @param vehicle that lives on this address
     */
    ReachOverSockets(StandInVehicle vehicle, InetAddress address) {
        this.v = vehicle;
        this.connection =
                asked(
                        () ->
                                DoipConnection.open(
                                        new InetSocketAddress(address, DoipDiscovery.PORT),
                                        TESTER,
                                        WAIT));
        this.meter = asked(() -> new Multimeter(new InetSocketAddress(address, Meter.PORT), WAIT));
    }

    private static <T> T asked(Asked<T> what) {
        try {
            return what.from();
        } catch (WireException failed) {
            throw new UncheckedIOException(new IOException(failed));
        }
    }

    private UdsClient module(String id) {
        return new UdsClient(
                connection,
                new LogicalAddress(v.description().module(id).orElseThrow().address()),
                UdsTimings.STANDARD.withP2(ANSWERS_WITHIN));
    }

    private double read(String place, Asked<Double> figure) {
        return asked(
                () -> {
                    meter.at(place);
                    return figure.from();
                });
    }

    @Override
    public double volts(String point) {
        return read(point, meter::volts);
    }

    @Override
    public double ohms(Gauge gauge) {
        return read(gauge.id(), meter::ohms);
    }

    @Override
    public double amps(Gauge gauge) {
        return read(gauge.id(), meter::amps);
    }

    @Override
    public double value(String id) {
        Value value = v.description().value(id).orElseThrow();
        try {
            return Scaling.physical(value, module(value.module()).read(value.did()).toArray());
        } catch (WireException nothing) {
            return Double.NaN;
        }
    }

    @Override
    public boolean answers(String module) {
        try {
            module(module).testerPresent();
            return true;
        } catch (WireException silent) {
            return false;
        }
    }

    @Override
    public Set<Integer> failed(String module) {
        try {
            return module(module).codes(FAILED_SINCE_CLEAR).stream()
                    .map(DtcAnswers.Entry::dtc)
                    .collect(Collectors.toSet());
        } catch (WireException silent) {
            return Set.of();
        }
    }

    @Override
    public void close() {
        meter.close();
        connection.close();
    }
}
