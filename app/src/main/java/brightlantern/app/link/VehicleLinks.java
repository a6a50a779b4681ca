package brightlantern.app.link;

import brightlantern.app.job.CommandLog;
import brightlantern.app.job.Findings;
import brightlantern.app.job.FoundModules;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.core.procedure.Equipment;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.actuator.ActuatorProcedures;
import brightlantern.core.vehicle.UnknownVehicle;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import brightlantern.wire.doip.DoipNetwork;
import brightlantern.wire.transport.VehicleAddress;
import brightlantern.wire.transport.VehicleNetwork;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** All vehicles that this program talks to or has heard of, and the descriptions of their kinds. */
@Component
public class VehicleLinks {
    private static final Logger LOG = LoggerFactory.getLogger(VehicleLinks.class);
    private static final Duration ASK_WAIT = Duration.ofMillis(700);
    private static final Duration IDLE = Duration.ofMinutes(10);

    /** Logical address of this tester, of those that ISO 13400-2 leaves to external ones. */
    private static final int TESTER = 0x0E80;

    private final VehicleNetwork network = new DoipNetwork(TESTER);
    private final Map<String, VehicleLink> links = new ConcurrentHashMap<>();
    private final Announcements heard = new Announcements();

    /** VIN → who commands it. */
    private final Map<String, CommandLease> leases = new ConcurrentHashMap<>();

    private final OwnTurns<String> turns = new OwnTurns<>("vehicle-refresh");
    private final List<AutoCloseable> listeners = new ArrayList<>();
    private final Set<String> configured = ConcurrentHashMap.newKeySet();
    private final VehicleKinds kinds;
    private final Jobs jobs;
    private final CommandLog log;
    private final Findings findings;
    private final FoundModules foundModules;
    private volatile boolean closing;

    VehicleLinks(
            @Value("${lantern.find}") String find,
            @Value("${lantern.announcements}") String announcements,
            VehicleKinds kinds,
            Jobs jobs,
            CommandLog log,
            Findings findings,
            FoundModules foundModules) {
        this.kinds = kinds;
        this.jobs = jobs;
        this.log = log;
        this.findings = findings;
        this.foundModules = foundModules;
        kinds.library().mistakes().forEach(LOG::warn);
        Stream.of(find.split(","))
                .map(String::trim)
                .filter(a -> !a.isEmpty())
                .forEach(configured::add);
        if (!announcements.isBlank()) {
            try {
                listeners.add(network.listen(announcements, heard::hear));
            } catch (IOException taken) {
                LOG.warn("Announcements of vehicles are not heard: {}", taken.getMessage());
            }
        }
    }

    public VehicleLibrary library() {
        return kinds.library();
    }

    /** What a job's vehicle can be made to do. */
    public List<Procedure> procedures(Job job) {
        return kinds.procedures(job.vehicleId());
    }

    /** One of {@link #procedures}, or an actuator led by hand; empty when the id is neither. */
    public Optional<Procedure> procedure(Job job, String id) {
        return procedures(job).stream()
                .filter(p -> p.id().equals(id))
                .findFirst()
                .or(
                        () ->
                                equipment(job)
                                        .flatMap(
                                                e ->
                                                        ActuatorProcedures.byHand(
                                                                description(job), e, id)));
    }

    /** What a job's vehicle can be commanded and told; empty without a description. */
    public Optional<Equipment> equipment(Job job) {
        return kinds.equipment(job.vehicleId());
    }

    /** What is known of a job's vehicle; without a description, the modules that were found. */
    public VehicleDescription description(Job job) {
        return kinds.library()
                .byId(job.vehicleId())
                .orElseGet(() -> UnknownVehicle.describe(foundModules.of(job.vin())));
    }

    /** Adds an address that is asked for vehicles. */
    public void configure(String address) {
        configured.add(address);
    }

    /** The link to a vehicle: the same one however its address is written. */
    public VehicleLink link(String address) {
        VehicleAddress there = VehicleAddress.kept(address);
        VehicleLink link =
                links.computeIfAbsent(
                        network.place(there), p -> new VehicleLink(there, network, this::leaseOf));
        link.used();
        return link;
    }

    /** One vehicle is commanded by one person, whatever ways lead to it. */
    private CommandLease leaseOf(String vin) {
        return leases.computeIfAbsent(vin, v -> new CommandLease());
    }

    public VehicleLink link(Job job) {
        return link(job.address());
    }

    /** A vehicle that answers or announced itself. */
    public record FoundVehicle(String address, String vin, String how) {}

    /**
     * Vehicles that were found, and addresses that gave none.
     *
     * @param troubles in words, each names its address
     */
    public record Search(List<FoundVehicle> found, List<String> troubles) {}

    /**
     * Asks all known addresses who is there, and adds those that announced themselves. An address
     * that is malformed or silent hides none of the others.
     *
     * @throws IOException when nothing can be sent at all
     */
    public Search find(Optional<String> alsoAsk) throws IOException {
        Set<String> addresses = new LinkedHashSet<>(configured);
        alsoAsk.ifPresent(addresses::add);
        List<String> troubles = new ArrayList<>();
        Map<String, VehicleAddress> asked = new LinkedHashMap<>();
        for (String address : addresses) {
            reachable(address, troubles).ifPresent(a -> asked.put(address, a));
        }
        Map<String, FoundVehicle> found = new LinkedHashMap<>();
        Set<String> answered = new LinkedHashSet<>();
        for (VehicleNetwork.Heard v : network.ask(asked.values(), ASK_WAIT)) {
            String address = v.address().text();
            answered.add(address);
            found.put(address, new FoundVehicle(address, v.vin(), "answered"));
        }
        asked.forEach(
                (address, a) -> {
                    if (!answered.contains(address) && !network.isAmong(a, answered)) {
                        troubles.add("Address '" + address + "' does not answer.");
                    }
                });
        for (VehicleNetwork.Heard vehicle : heard.all()) {
            String address = vehicle.address().text();
            found.putIfAbsent(
                    address, new FoundVehicle(address, vehicle.vin(), "announced itself"));
        }
        return new Search(
                found.values().stream()
                        .sorted(Comparator.comparing(FoundVehicle::address))
                        .toList(),
                troubles);
    }

    private Optional<VehicleAddress> reachable(String text, List<String> troubles) {
        try {
            VehicleAddress address = VehicleAddress.parse(text);
            if (network.canReach(address)) {
                return Optional.of(address);
            }
            troubles.add(
                    "Address '" + text + "' is not known; expected a host name or IP address.");
        } catch (IllegalArgumentException malformed) {
            troubles.add(malformed.getMessage());
        }
        return Optional.empty();
    }

    /**
     * Keeps the top bar's figures fresh for every vehicle in use, and notes key cycles for its open
     * jobs.
     */
    @Scheduled(fixedDelay = 700)
    void refresh() {
        List<Job> open = jobs.all().stream().filter(Job::isOpen).toList();
        links.forEach((place, link) -> turns.turn(place, () -> refresh(place, link, open)));
    }

    private void refresh(String place, VehicleLink link, List<Job> open) {
        if (closing) {
            return;
        }
        if (link.idleFor(IDLE)) {
            link.close();
            links.remove(place);
            return;
        }
        List<Job> its =
                open.stream()
                        .filter(j -> network.place(VehicleAddress.kept(j.address())).equals(place))
                        .toList();
        Optional<VehicleDescription> description =
                its.stream()
                        .map(this::description)
                        .max(Comparator.comparing(VehicleDescription::isKnown));
        if (description.isPresent() && link.refresh(description.get())) {
            for (Job job : its) {
                log.add(job, "vehicle", CommandLog.KEY, "key turned on", "seen on the vehicle", "");
                findings.note(job.id(), "prove", "vehicle", "Key off and on again.");
            }
        }
    }

    @PreDestroy
    void close() {
        closing = true;
        turns.close();
        for (AutoCloseable listener : listeners) {
            try {
                listener.close();
            } catch (Exception open) {
                LOG.warn("Announcements are still listened to: {}", open.getMessage());
            }
        }
        links.values().forEach(VehicleLink::close);
    }
}
