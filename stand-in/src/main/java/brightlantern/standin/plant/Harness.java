package brightlantern.standin.plant;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.CircuitModel.Load;
import brightlantern.core.circuit.DcNetwork;
import brightlantern.core.circuit.MotorPart;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;

/**
 * The harness of this one van as a direct-current network: every part a little off its drawing,
 * faults in place, the meter's load where it hangs.
 */
final class Harness {
    /** Parts of one type scatter by so much (one standard deviation). */
    private static final double SCATTER = 0.02;

    private static final double STANDBY_OHM = 1500;

    private final Circuit circuit;
    private final Faults faults;
    private final Map<String, Integer> nodes = new HashMap<>();
    private final Map<String, Double> ohm = new HashMap<>();
    private final Map<String, Double> scatter = new HashMap<>();
    private String loadedPoint = "";
    private Load load = Load.NOTHING;
    private double lampVolts = 12;
    private double[] volts;

    Harness(Circuit circuit, Faults faults, Random random) {
        this.circuit = circuit;
        this.faults = faults;
        nodes.put("BAT-", 0);
        for (ProbePoint point : circuit.points()) {
            nodes.putIfAbsent(point.id(), nodes.size());
        }
        for (Segment segment : circuit.segments()) {
            ohm.put(segment.id(), segment.ohm() * (1 + SCATTER * random.nextGaussian()));
        }
        for (MotorPart motor : circuit.motors()) {
            scatter.put(motor.id(), 1 + SCATTER * random.nextGaussian());
        }
        volts = new double[nodes.size()];
    }

    double scatter(String motor) {
        return scatter.get(motor);
    }

    MotorPart motor(String id) {
        return circuit.motors().stream().filter(m -> m.id().equals(id)).findFirst().orElseThrow();
    }

    void hang(String point, Load what) {
        loadedPoint = point;
        load = what;
    }

    /**
     * A motor behind its bridge: with duty d the bridge draws d·I from its supply pin, and I = (d·V
     * − e)/R.
     */
    record Drive(double duty, double backEmf, double ohm) {}

    void solve(double supplyVolts, boolean relayClosed, Map<String, Drive> drives) {
        DcNetwork network = new DcNetwork(nodes.size());
        network.voltage(nodes.get("BAT+"), 0, supplyVolts);
        for (Segment segment : circuit.segments()) {
            double r = ohm.get(segment.id()) + faults.seriesOhm(segment.id());
            // an open relay leaks a little, as dust does
            boolean open = segment.kind().equals("relay") && !relayClosed;
            network.resistor(nodes.get(segment.from()), nodes.get(segment.to()), open ? 1e7 : r);
        }
        for (MotorPart part : circuit.motors()) {
            int a = nodes.get(part.from());
            int b = nodes.get(part.to());
            network.resistor(a, b, STANDBY_OHM);
            Drive drive = drives.get(part.id());
            if (drive != null && drive.duty() != 0) {
                double d = drive.duty();
                network.current(a, b, -d * drive.backEmf() / drive.ohm(), d * d / drive.ohm());
            }
        }
        if (load != Load.NOTHING && nodes.containsKey(loadedPoint)) {
            ProbePoint point = circuit.point(loadedPoint);
            int pole = point.side().equals("earth") ? nodes.get("BAT+") : 0;
            int node = nodes.get(loadedPoint);
            if (pole != node) {
                network.resistor(node, pole, load.ohmAt(lampVolts));
                volts = network.solve();
                lampVolts += 0.2 * (Math.abs(volts[node] - volts[pole]) - lampVolts);
                return;
            }
        }
        volts = network.solve();
    }

    double volts(String point) {
        return volts[nodes.get(point)];
    }

    boolean knows(String point) {
        return nodes.containsKey(point);
    }

    double across(String motorId) {
        MotorPart part = motor(motorId);
        return volts(part.from()) - volts(part.to());
    }

    Map<String, Double> all() {
        Map<String, Double> all = new LinkedHashMap<>();
        nodes.forEach((name, index) -> all.put(name, volts[index]));
        return all;
    }
}
