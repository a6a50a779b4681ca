package brightlantern.app.link;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.signal.Condition;
import brightlantern.core.signal.HeadValues;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.ToldSupplies;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireException;
import brightlantern.wire.transport.Transport;
import brightlantern.wire.transport.VehicleAddress;
import brightlantern.wire.transport.VehicleNetwork;
import brightlantern.wire.uds.UdsClient;
import brightlantern.wire.uds.UdsTimings;
import java.io.IOException;
import java.time.Duration;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * One vehicle on the network. The connection is made when first needed and made again after it was
 * lost.
 */
public final class VehicleLink {
    private static final Duration POWER_WAIT = Duration.ofMillis(500);
    private static final Duration VIN_WAIT = Duration.ofMillis(300);
    private static final Duration CONNECT_WAIT = Duration.ofSeconds(2);
    private static final Duration QUIET = Duration.ofMillis(6500);

    /** More identifiers in one request than this make some modules refuse. */
    public static final int PACK = 10;

    private final VehicleAddress address;
    private final VehicleNetwork network;
    private final LiveFeed feed = new LiveFeed(this);
    private final Function<String, CommandLease> leases;
    private volatile CommandLease lease = new CommandLease();
    private final Map<Integer, UdsClient> clients = new ConcurrentHashMap<>();
    private final Map<Integer, Long> leftAlone = new ConcurrentHashMap<>();
    private Transport transport;
    private WireException failure;
    private long failedAt;
    private volatile Status status = Status.unknown();
    private volatile long lastUse = System.nanoTime();
    private volatile double knownIgnition = Double.NaN;

    /**
     * @param leases VIN → who commands that vehicle
     */
    VehicleLink(
            VehicleAddress address, VehicleNetwork network, Function<String, CommandLease> leases) {
        this.address = address;
        this.network = network;
        this.leases = leases;
    }

    /**
     * What the top bar tells.
     *
     * @param supply volts, NaN when not known
     * @param ignition raw state, NaN when not known
     * @param engineSpeed rpm, NaN when not known
     */
    public record Status(
            boolean connected, String words, double supply, double ignition, double engineSpeed) {
        static Status unknown() {
            return new Status(false, "not connected", Double.NaN, Double.NaN, Double.NaN);
        }

        public boolean engineRuns() {
            return engineSpeed > 300;
        }
    }

    public VehicleAddress address() {
        return address;
    }

    public LiveFeed feed() {
        return feed;
    }

    public CommandLease lease() {
        return lease;
    }

    public Status status() {
        return status;
    }

    void status(Status next) {
        status = next;
    }

    void used() {
        lastUse = System.nanoTime();
    }

    boolean idleFor(Duration time) {
        return System.nanoTime() - lastUse > time.toNanos() && !feed.inUse();
    }

    /**
     * The open way to its modules.
     *
     * @throws WireException when the vehicle is not reached
     */
    public Transport transport() throws WireException {
        return transport(System.nanoTime());
    }

    /**
     * @param asked when the caller began to wait: a failure since then is its failure too, or each
     *     of those that wait would wait for one of its own
     */
    private synchronized Transport transport(long asked) throws WireException {
        if (transport == null || !transport.isOpen()) {
            if (failure != null && failedAt - asked > 0) {
                throw new WireException(failure.getMessage(), failure);
            }
            clients.clear();
            try {
                transport = network.open(address, CONNECT_WAIT);
            } catch (WireException unreachable) {
                failure = unreachable;
                failedAt = System.nanoTime();
                throw unreachable;
            }
            failure = null;
            commandedAs(vin());
        }
        return transport;
    }

    private Optional<String> vin() {
        try {
            return network.vin(address, VIN_WAIT);
        } catch (IOException silent) {
            return Optional.empty();
        }
    }

    /** Whoever commands it goes on, unless somebody else has the vehicle by another way. */
    private void commandedAs(Optional<String> vin) {
        vin.map(leases)
                .filter(its -> its != lease)
                .ifPresent(
                        its -> {
                            lease.holder()
                                    .filter(h -> its.holder().isEmpty())
                                    .ifPresent(its::claim);
                            lease = its;
                        });
    }

    synchronized void close() {
        if (transport != null) {
            transport.close();
            transport = null;
        }
        status = Status.unknown();
    }

    /** The client of a module; all users of a module share it and take turns. */
    public UdsClient module(int moduleAddress) throws WireException {
        return module(moduleAddress, System.nanoTime());
    }

    /**
     * Asks a module nothing for longer than its session lasts without a request (S3, ISO 14229-2),
     * so that it ends by itself what it was told to do.
     */
    void leaveAlone(int moduleAddress) {
        leftAlone.put(moduleAddress, System.nanoTime() + QUIET.toNanos());
    }

    /** Whether a module is asked nothing at present, so that its session ends. */
    public boolean isLeftAlone(int moduleAddress) {
        Long until = leftAlone.get(moduleAddress);
        return until != null && until - System.nanoTime() > 0;
    }

    private synchronized UdsClient module(int moduleAddress, long asked) throws WireException {
        if (isLeftAlone(moduleAddress)) {
            throw new WireException(
                    String.format(
                            Locale.ROOT,
                            "Module %04X is left alone until its session has ended by itself",
                            moduleAddress));
        }
        Transport open = transport(asked);
        return clients.computeIfAbsent(
                moduleAddress, a -> new UdsClient(open, open.module(a), UdsTimings.STANDARD));
    }

    /**
     * Reads values once, in as few requests as may be.
     *
     * @return value id → physical value in its own unit; values whose module did not answer are
     *     missing
     */
    public Map<String, Double> read(VehicleDescription description, Collection<String> ids) {
        Map<String, Double> values = new LinkedHashMap<>();
        byModule(description, ids)
                .forEach(
                        (moduleId, wanted) -> {
                            try {
                                values.putAll(
                                        readModule(
                                                description
                                                        .module(moduleId)
                                                        .orElseThrow()
                                                        .address(),
                                                wanted));
                            } catch (WireException silent) {
                                // what a silent module would have said is not known, and so it is
                                // not in the map
                            }
                        });
        return values;
    }

    /** So many modules are asked before nobody is said to answer. */
    private static final int ASKED = 8;

    /**
     * What the first module that answers tells of its own supply, V; empty where none of some does.
     *
     * @param besides id of a module that is not asked
     */
    public OptionalDouble toldSupply(VehicleDescription description, String besides) {
        return ToldSupplies.of(description, besides).stream()
                .limit(ASKED)
                .flatMap(v -> read(description, List.of(v.id())).values().stream())
                .filter(volts -> !volts.isNaN())
                .mapToDouble(Double::doubleValue)
                .findFirst();
    }

    /**
     * Reads values once.
     *
     * @throws WireException when any of their modules does not answer
     */
    public Map<String, Double> readAll(VehicleDescription description, Collection<String> ids)
            throws WireException {
        Map<String, Double> values = new LinkedHashMap<>();
        for (Map.Entry<String, List<Value>> entry : byModule(description, ids).entrySet()) {
            values.putAll(
                    readModule(
                            description.module(entry.getKey()).orElseThrow().address(),
                            entry.getValue()));
        }
        return values;
    }

    private static Map<String, List<Value>> byModule(
            VehicleDescription description, Collection<String> ids) {
        return ids.stream()
                .distinct()
                .flatMap(id -> description.value(id).stream())
                .collect(Collectors.groupingBy(Value::module));
    }

    /** Reads values of one module; those that fit into one request are of one moment. */
    public Map<String, Double> readModule(int moduleAddress, List<Value> wanted)
            throws WireException {
        Map<String, Double> values = new LinkedHashMap<>();
        for (int i = 0; i < wanted.size(); i += PACK) {
            List<Value> pack = wanted.subList(i, Math.min(wanted.size(), i + PACK));
            Map<Integer, Integer> sizes = new LinkedHashMap<>();
            pack.forEach(v -> sizes.put(v.did(), v.bytes()));
            Map<Integer, Bytes> raw = module(moduleAddress).read(sizes);
            pack.forEach(v -> values.put(v.id(), Scaling.physical(v, raw.get(v.did()).toArray())));
        }
        return values;
    }

    /**
     * Reads an actuator's gates and goes on only when all are open.
     *
     * @throws WireException when a module that knows about them does not answer
     * @throws IllegalStateException says which gate is shut, why, and what opens it
     */
    public void requireOpen(VehicleDescription description, Actuator actuator)
            throws WireException {
        List<String> ids = actuator.gates().stream().map(Condition::value).toList();
        Map<String, Double> now = readAll(description, ids);
        GateState.whyShut(
                        GateState.at(
                                actuator.gates().stream().map(Procedure.GateRule::of).toList(),
                                description,
                                now))
                .ifPresent(
                        why -> {
                            throw new IllegalStateException(why);
                        });
    }

    /** Whether the vehicle says that it is ready for diagnosis, in words. */
    public String power() {
        try {
            return network.ready(address, POWER_WAIT)
                    .map(ready -> ready ? "The vehicle says that it is ready." : "Turn the key on.")
                    .orElse("The gateway does not tell whether the key is on.");
        } catch (IOException unreachable) {
            return "The gateway cannot be reached.";
        }
    }

    /** Reads what the top bar needs and tells whether the key was just turned on. */
    boolean refresh(VehicleDescription description) {
        HeadValues live = description.live();
        double before = knownIgnition;
        try {
            transport();
        } catch (WireException unreachable) {
            status =
                    new Status(false, unreachable.getMessage(), Double.NaN, Double.NaN, Double.NaN);
            return false;
        }
        Map<String, Double> now = read(description, List.of(live.ignition()));
        double ignition = now.getOrDefault(live.ignition(), Double.NaN);
        // a reading that got lost between off and on must not hide that the key was turned
        knownIgnition = Double.isNaN(ignition) ? knownIgnition : ignition;
        boolean on = ignition >= live.ignitionOn();
        Map<String, Double> engine =
                on ? read(description, List.of(live.supply(), live.engineSpeed())) : Map.of();
        status =
                new Status(
                        true,
                        Double.isNaN(ignition) ? "connected, no module answers" : "connected",
                        engine.getOrDefault(live.supply(), Double.NaN),
                        ignition,
                        engine.getOrDefault(live.engineSpeed(), Double.NaN));
        return on && before < live.ignitionOn();
    }

    /** A request with its answer as words, for the log. */
    public static String answerOf(Optional<WireException> failure) {
        return failure.map(Throwable::getMessage).orElse("positive");
    }
}
