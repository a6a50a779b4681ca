package brightlantern.standin.network;

import brightlantern.core.network.Bus;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Supplier;

/**
 * Whether a message gets from one module to another, from the voltages on the wires: the sender
 * drives 2 V between them, each end is closed with 120 Ω, and a receiver takes a dominant bit from
 * 0.9 V up (ISO 11898-2). A line that lost one of its resistors reflects and loses some frames.
 */
public final class BusWires {
    private static final double DRIVEN_VOLTS = 2.0;
    private static final double SOURCE_OHM = 25;
    private static final double END_OHM = 120;
    private static final double DOMINANT_VOLTS = 0.9;

    /** Frames lost for good on a line with one resistor, at 500 kbit/s. */
    private static final double REFLECTED = 0.012;

    private final VehicleDescription description;
    private final Random random;
    private final Map<String, String> busOf = new HashMap<>();
    private final Map<String, Integer> station = new HashMap<>();
    private final Map<String, String> under = new HashMap<>();
    private final Map<String, WireFault> faults = new LinkedHashMap<>();
    private final Map<String, Contact> contacts = new HashMap<>();
    private volatile Supplier<Set<String>> unfed = Set::of;

    public BusWires(VehicleDescription description, Random random) {
        this.description = description;
        this.random = random;
        description
                .buses()
                .forEach(
                        bus -> {
                            List<ControlModule> line = description.onWire(bus.id());
                            for (int i = 0; i < line.size(); i++) {
                                busOf.put(line.get(i).id(), bus.id());
                                station.put(line.get(i).id(), i + 1);
                            }
                        });
        // asked for every message that somebody waits for
        description.modules().forEach(m -> under.put(m.id(), m.under()));
        description.modules().stream()
                .filter(m -> !m.under().isEmpty())
                .forEach(
                        m -> {
                            busOf.put(m.id(), busOf.getOrDefault(m.under(), m.bus()));
                            station.put(m.id(), station.getOrDefault(m.under(), 0));
                        });
    }

    /** Takes from now on what tells which modules lack their supply. */
    public void feeds(Supplier<Set<String>> unfed) {
        this.unfed = unfed;
    }

    public synchronized void add(WireFault fault) {
        faults.put(fault.id(), fault);
        contacts.put(
                fault.id(),
                new Contact(
                        new Random(random.nextLong()), fault.badSeconds(), fault.goodSeconds()));
    }

    /** Takes a fault away, if it is there. */
    public synchronized void mend(String id) {
        faults.remove(id);
    }

    private boolean bad(WireFault fault, double seconds) {
        return contacts.get(fault.id()).bad(seconds);
    }

    /** Whether a module has its supply and works. */
    public boolean alive(String module, double seconds) {
        Set<String> without = unfed.get();
        return !without.contains(module)
                && !without.contains(under(module))
                && works(module, seconds);
    }

    private synchronized boolean works(String module, double seconds) {
        for (WireFault fault : faults.values()) {
            if (fault instanceof WireFault.Dead dead
                    && (dead.module().equals(module) || under(module).equals(dead.module()))
                    && bad(fault, seconds)) {
                return false;
            }
            if (fault instanceof WireFault.Unfed unfed
                    && fed(unfed.feed()).contains(module)
                    && bad(fault, seconds)) {
                return false;
            }
        }
        return true;
    }

    private String under(String module) {
        return under.getOrDefault(module, "");
    }

    private Set<String> fed(String feed) {
        return description.feeds().stream()
                .filter(f -> f.id().equals(feed))
                .findFirst()
                .map(f -> Set.copyOf(f.modules()))
                .orElse(Set.of());
    }

    /** What is bad on a bus, and in the modules on it, at this moment. */
    synchronized List<WireFault> badNow(double seconds) {
        return faults.values().stream().filter(f -> bad(f, seconds)).toList();
    }

    /** Ohms between both wires of a bus at the gateway, while all modules sleep. */
    public synchronized double ohms(String bus, double seconds) {
        return BusLevels.of(description, bus, badNow(seconds)).ohms();
    }

    /** Whether a message sent at this moment is received; both ends must be alive. */
    public synchronized boolean gets(String from, String to, double seconds) {
        if (!alive(from, seconds) || !alive(to, seconds)) {
            return false;
        }
        String a = busOf.getOrDefault(from, "");
        String b = busOf.getOrDefault(to, "");
        if (a.equals(b) || a.isEmpty() || b.isEmpty()) {
            return hop(a.isEmpty() ? b : a, from, to, seconds);
        }
        return hop(a, from, Network.GATEWAY, seconds) && hop(b, Network.GATEWAY, to, seconds);
    }

    /** The module that holds a bus, and without whose plug it comes back; empty for none. */
    public synchronized Optional<String> broughtBack(String bus, double seconds) {
        List<String> holding =
                faults.values().stream()
                        .filter(WireFault.Babbling.class::isInstance)
                        .filter(f -> bad(f, seconds))
                        .map(f -> ((WireFault.Babbling) f).module())
                        .filter(m -> busOf.getOrDefault(m, "").equals(bus) && alive(m, seconds))
                        .distinct()
                        .toList();
        boolean shorted =
                faults.values().stream()
                        .anyMatch(
                                f ->
                                        f instanceof WireFault.Shorted s
                                                && s.bus().equals(bus)
                                                && bad(f, seconds));
        return holding.size() == 1 && !shorted ? Optional.of(holding.get(0)) : Optional.empty();
    }

    private boolean hop(String bus, String from, String to, double seconds) {
        int x = station.getOrDefault(from, 0);
        int y = station.getOrDefault(to, 0);
        double lost = 0;
        for (WireFault fault : faults.values()) {
            if (fault instanceof WireFault.Shorted shorted
                    && shorted.bus().equals(bus)
                    && bad(fault, seconds)) {
                double load = 1 / (2 / END_OHM + 1 / shorted.ohm());
                double open = DRIVEN_VOLTS * (SOURCE_OHM + END_OHM / 2) / (END_OHM / 2);
                if (open * load / (load + SOURCE_OHM) < DOMINANT_VOLTS) {
                    return false;
                }
            }
            if (fault instanceof WireFault.Babbling babbling
                    && busOf.getOrDefault(babbling.module(), "").equals(bus)
                    && alive(babbling.module(), seconds)
                    && bad(fault, seconds)) {
                return false;
            }
            if (fault instanceof WireFault.Unterminated unterminated
                    && unterminated.bus().equals(bus)
                    && bad(fault, seconds)) {
                lost = Math.max(lost, REFLECTED * kbit(bus) / 500.0);
            }
            if (fault instanceof WireFault.Broken broken
                    && broken.bus().equals(bus)
                    && bad(fault, seconds)) {
                boolean across = (x <= broken.at()) != (y <= broken.at());
                double ohm = broken.ohm() * (broken.wire() == WireFault.Wire.BOTH ? 2 : 1);
                double volts = DRIVEN_VOLTS * END_OHM / (END_OHM + ohm);
                if (across && volts < DOMINANT_VOLTS) {
                    return false;
                }
                lost = Math.max(lost, ohm > END_OHM ? REFLECTED * kbit(bus) / 500.0 : 0);
            }
        }
        return random.nextDouble() >= lost;
    }

    private double kbit(String bus) {
        return description.buses().stream()
                .filter(b -> b.id().equals(bus))
                .findFirst()
                .map(Bus::kbit)
                .orElse(500);
    }
}
