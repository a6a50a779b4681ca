package brightlantern.standin;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.code.Code;
import brightlantern.core.code.Dtc;
import brightlantern.core.network.Network;
import brightlantern.standin.plant.Circuits;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;

/** At the stand-in itself: as over the wire, and quicker. */
final class ReachWithin implements Reach {
    private static final double METER_GAIN = 1.0008;
    private static final double METER_NOISE = 0.004;
    private static final double OHM_NOISE = 0.01;
    private static final double CLAMP_NOISE = 0.03;

    private final StandInVehicle v;
    private final Random random;

    ReachWithin(StandInVehicle vehicle, Random random) {
        this.v = vehicle;
        this.random = random;
    }

    private Circuits circuits() {
        return v.simulation().circuits().orElseThrow();
    }

    @Override
    public double volts(String point) {
        return circuits().volts(point).orElseThrow() * METER_GAIN
                + METER_NOISE * random.nextGaussian();
    }

    @Override
    public double ohms(Gauge gauge) {
        return circuits().hands().ohms(gauge) * (1 + OHM_NOISE * random.nextGaussian());
    }

    @Override
    public double amps(Gauge gauge) {
        return circuits().hands().amps(gauge).orElse(0) * (1 + CLAMP_NOISE * random.nextGaussian());
    }

    @Override
    public double value(String id) {
        return v.reading(id);
    }

    @Override
    public boolean answers(String module) {
        double now = v.simulation().seconds();
        return v.wires().gets(Network.GATEWAY, module, now)
                && v.wires().gets(module, Network.GATEWAY, now);
    }

    @Override
    public Set<Integer> failed(String module) {
        return v.description().codes().stream()
                .filter(c -> c.module().equals(module))
                .map(Code::code)
                .map(c -> Dtc.parse(c).number())
                .filter(v.module(module).memory()::failed)
                .collect(Collectors.toSet());
    }

    @Override
    public void close() {}
}
