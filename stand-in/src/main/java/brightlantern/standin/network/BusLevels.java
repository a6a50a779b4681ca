package brightlantern.standin.network;

import brightlantern.core.network.Network;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * Volts on both wires of a bus at each station while one of them drives it, or none does: the wires
 * as resistors with what is bad on them, transceivers as sources (ISO 11898-2), solved by
 * Kirchhoff's current law.
 */
final class BusLevels {
    private static final double WIRE_OHM = 0.15;
    private static final double END_OHM = 120;
    private static final double REST_VOLTS = 2.5;

    /** Each station pulls both wires to rest through so much. */
    private static final double REST_OHM = 15_000;

    private static final double HIGH_VOLTS = 4.5;
    private static final double LOW_VOLTS = 0.5;
    private static final double DRIVER_OHM = 25;

    private final int stations;
    private final RealMatrix conductance;

    /**
     * @param stations positions on the wire, the gateway's among them
     * @param ends positions of the terminating resistors
     * @param bad what is bad on this bus
     */
    private BusLevels(int stations, List<Integer> ends, List<WireFault> bad) {
        this.stations = stations;
        this.conductance = new Array2DRowRealMatrix(2 * stations, 2 * stations);
        for (int i = 0; i < stations; i++) {
            conductance.addToEntry(2 * i, 2 * i, 1 / REST_OHM);
            conductance.addToEntry(2 * i + 1, 2 * i + 1, 1 / REST_OHM);
        }
        for (int i = 0; i + 1 < stations; i++) {
            between(2 * i, 2 * i + 2, WIRE_OHM + series(bad, i, WireFault.Wire.HIGH));
            between(2 * i + 1, 2 * i + 3, WIRE_OHM + series(bad, i, WireFault.Wire.LOW));
        }
        for (int end : ends) {
            boolean missing =
                    bad.stream()
                            .anyMatch(f -> f instanceof WireFault.Unterminated u && u.at() == end);
            if (!missing) {
                between(2 * end, 2 * end + 1, END_OHM);
            }
        }
        bad.stream()
                .filter(WireFault.Shorted.class::isInstance)
                .map(WireFault.Shorted.class::cast)
                .forEach(
                        s ->
                                between(
                                        2 * (stations / 2),
                                        2 * (stations / 2) + 1,
                                        Math.max(0.01, s.ohm())));
    }

    /**
     * The wires of a bus as they are described, with what is bad on them.
     *
     * @param bad of any bus
     */
    static BusLevels of(VehicleDescription d, String busId, List<WireFault> bad) {
        List<String> stations = new ArrayList<>(List.of(Network.GATEWAY));
        d.onWire(busId).forEach(m -> stations.add(m.id()));
        List<String> told =
                d.buses().stream()
                        .filter(b -> b.id().equals(busId))
                        .findFirst()
                        .orElseThrow()
                        .terminators();
        int last = stations.size() - 1;
        List<Integer> ends =
                told.isEmpty()
                        ? List.of(0, last)
                        : told.stream().map(stations::indexOf).filter(i -> i >= 0).toList();
        return new BusLevels(
                stations.size(), ends, bad.stream().filter(f -> isOn(busId, f)).toList());
    }

    private static boolean isOn(String bus, WireFault fault) {
        return fault instanceof WireFault.Broken b && b.bus().equals(bus)
                || fault instanceof WireFault.Shorted s && s.bus().equals(bus)
                || fault instanceof WireFault.Unterminated u && u.bus().equals(bus);
    }

    /** Ohms between both wires at the first station while nobody drives them. */
    double ohms() {
        double[] currents = new double[2 * stations];
        currents[0] = 1;
        currents[1] = -1;
        double[] volts = solved(conductance, currents);
        return volts[0] - volts[1];
    }

    private static double[] solved(RealMatrix conductance, double[] currents) {
        return new LUDecomposition(conductance)
                .getSolver()
                .solve(new ArrayRealVector(currents, false))
                .toArray();
    }

    private static double series(List<WireFault> bad, int at, WireFault.Wire wire) {
        double ohm = 0;
        for (WireFault f : bad) {
            if (f instanceof WireFault.Broken b
                    && b.at() == at
                    && (b.wire() == wire || b.wire() == WireFault.Wire.BOTH)) {
                ohm += b.ohm();
            }
        }
        return ohm;
    }

    private void between(int a, int b, double ohm) {
        double g = 1 / ohm;
        conductance.addToEntry(a, a, g);
        conductance.addToEntry(b, b, g);
        conductance.addToEntry(a, b, -g);
        conductance.addToEntry(b, a, -g);
    }

    /**
     * @param drives position of the station that holds it dominant; below 0 for none
     * @return volts of the high and the low wire in turn, by position
     */
    double[] volts(int drives) {
        RealMatrix all = conductance.copy();
        double[] currents = new double[2 * stations];
        Arrays.fill(currents, REST_VOLTS / REST_OHM);
        if (drives >= 0) {
            all.addToEntry(2 * drives, 2 * drives, 1 / DRIVER_OHM);
            all.addToEntry(2 * drives + 1, 2 * drives + 1, 1 / DRIVER_OHM);
            currents[2 * drives] += HIGH_VOLTS / DRIVER_OHM;
            currents[2 * drives + 1] += LOW_VOLTS / DRIVER_OHM;
        }
        return solved(all, currents);
    }
}
