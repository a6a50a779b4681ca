package brightlantern.app;

import brightlantern.app.account.Accounts;
import brightlantern.app.job.Job;
import brightlantern.app.job.Jobs;
import brightlantern.app.job.Sweeps;
import brightlantern.app.job.Takes;
import brightlantern.app.link.VehicleKinds;
import brightlantern.app.link.VehicleLinks;
import brightlantern.core.study.trim.TrimSet;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;

/** The real application with stand-ins and visitors, without a browser. */
final class Garage implements AutoCloseable {
    private static final int SERIAL = 733;
    private static final Path VEHICLES = Path.of("../vehicles");

    private static final long MOST_NANOS = 90_000_000_000L;
    private static final long ASK_NANOS = 50_000_000;

    /** A page that is not asked for so long is still there: some runs end without theirs. */
    private static final long SELDOM_NANOS = 1_500_000_000L;

    final ConfigurableApplicationContext app;
    private final List<StandInVehicle> vehicles = new ArrayList<>();
    private final String base;
    private final Visitor watcher;

    /** The application on a port of its own. */
    static ConfigurableApplicationContext run(Path data, boolean demo) {
        return run(data, demo ? Map.of("lantern.demo", "true") : Map.of());
    }

    /**
     * @param more settings, beside or in the place of those that all tests have
     */
    private static ConfigurableApplicationContext run(Path data, Map<String, String> more) {
        Map<String, Object> settings =
                new HashMap<>(
                        Map.of(
                                "lantern.data", data.toString(),
                                "lantern.vehicles", VEHICLES.toString(),
                                "lantern.announcements", "",
                                // hashing is slow on purpose, and not what is tested
                                "lantern.password-rounds", "4",
                                "server.address", "127.0.0.1",
                                "server.port", "0",
                                "lantern.workshop", "Larkspur Yard"));
        settings.putAll(more);
        return LanternApp.run(settings, c -> c.registerBean(VehicleKinds.class, Read::kinds));
    }

    /** What ships is read once by all that start the application in this process. */
    private static final class Read {
        private static final VehicleKinds KINDS = all();

        private static VehicleKinds all() {
            try {
                return VehicleKinds.read(VEHICLES);
            } catch (IOException unreadable) {
                throw new UncheckedIOException(unreadable);
            }
        }

        static VehicleKinds kinds() {
            return KINDS;
        }
    }

    static String address(ConfigurableApplicationContext app) {
        return "http://127.0.0.1:" + ((WebServerApplicationContext) app).getWebServer().getPort();
    }

    Garage(Path data) throws Exception {
        this(data, Map.of());
    }

    /**
     * @param more settings, beside or in the place of those that all tests have
     */
    Garage(Path data, Map<String, String> more) throws Exception {
        app = run(data, more);
        base = address(app);
        Accounts accounts = app.getBean(Accounts.class);
        if (accounts.isEmpty()) {
            accounts.add("tech", "tech", Workshop.PASSWORD, Accounts.Role.TECHNICIAN);
            accounts.add("lead", "lead", Workshop.PASSWORD, Accounts.Role.LEAD);
            accounts.add("guest", "guest", Workshop.PASSWORD, Accounts.Role.ONLOOKER);
        }
        watcher = visitor("lead");
    }

    Visitor visitor(String name) throws Exception {
        Visitor visitor = new Visitor(base);
        visitor.signIn(name, Workshop.PASSWORD);
        return visitor;
    }

    /**
     * A stand-in of any shipped description, in its scenario or as built. No two have the same VIN:
     * they would be one vehicle, that one person commands.
     */
    StandInVehicle vehicle(String id, boolean broken, String address) throws IOException {
        int before = (int) vehicles.stream().filter(v -> v.description().id().equals(id)).count();
        StandInVehicle vehicle = standIn(id, broken, address, SERIAL + before);
        vehicles.add(vehicle);
        return vehicle;
    }

    /** The same, for whoever closes it. */
    static StandInVehicle standIn(String id, boolean broken, String address) throws IOException {
        return standIn(id, broken, address, SERIAL);
    }

    private static StandInVehicle standIn(String id, boolean broken, String address, int serial)
            throws IOException {
        VehicleDescription d = Shipped.vehicle(id);
        List<String> scenarios = StandIns.scenarios(id);
        StandInVehicle vehicle =
                StandIns.of(d, scenarios.get(broken ? scenarios.size() - 1 : 0), serial);
        vehicle.open(InetAddress.getByName(address));
        return vehicle;
    }

    long job(StandInVehicle vehicle, String address, Set<String> symptoms) {
        return job(vehicle, vehicle.description().id(), address, symptoms);
    }

    /**
     * @param description id of the description by which it is known; empty for none
     */
    long job(StandInVehicle vehicle, String description, String address, Set<String> symptoms) {
        return job(app, vehicle, description, address, symptoms);
    }

    static long job(
            ConfigurableApplicationContext app,
            StandInVehicle vehicle,
            String description,
            String address,
            Set<String> symptoms) {
        return app.getBean(Jobs.class)
                .add(
                        new Job(
                                0,
                                Instant.now(),
                                Optional.empty(),
                                "tech",
                                description,
                                vehicle.vin(),
                                address,
                                address + ":5025",
                                "as told",
                                symptoms,
                                1,
                                ""));
    }

    static String page(long job) {
        return "/jobs/" + job + "/sweep";
    }

    /** Sweeps and waits for the end. */
    Sweep sweep(Visitor visitor, long job) throws Exception {
        int before = sweeps(job);
        visitor.post(page(job), page(job) + "/start", Map.of());
        return ended(job, before);
    }

    int sweeps(long job) {
        return app.getBean(Sweeps.class).heads(job).size();
    }

    /** Waits for the end of the sweep after so many others. */
    Sweep ended(long job, int before) {
        until("the sweep's end", () -> sweeps(job) > before && newest(job).finished().isPresent());
        // the runner lets go of a sweep a moment after it was kept as finished
        until("the runner's rest", () -> !watcher.reads(page(job)).contains("id=\"stop\""));
        return newest(job);
    }

    Sweep newest(long job) {
        return app.getBean(Sweeps.class).newest(job).orElseThrow().sweep();
    }

    /** For what has to last: a link that stays away, not a state that is waited for. */
    static void pause(long millis) {
        LockSupport.parkNanos(millis * 1_000_000);
    }

    static void until(String what, BooleanSupplier state) {
        long end = System.nanoTime() + MOST_NANOS;
        long asked = System.nanoTime();
        while (!state.getAsBoolean()) {
            if (System.nanoTime() > end) {
                throw new AssertionError("Waited in vain for " + what);
            }
            // what takes long to ask is asked less often: others want the processor as well
            long pause = Math.min(SELDOM_NANOS, 4 * (System.nanoTime() - asked));
            LockSupport.parkNanos(Math.max(ASK_NANOS, pause));
            asked = System.nanoTime();
        }
    }

    /** Waits until the take that runs holds enough of a regime for the trims to be judged. */
    static void untilRecorded(ConfigurableApplicationContext app, long job, String regime) {
        Takes takes = app.getBean(Takes.class);
        TrimSet set =
                app.getBean(VehicleLinks.class)
                        .library()
                        .byId("oriel-finch")
                        .orElseThrow()
                        .trims()
                        .get(0);
        until(
                "enough of " + regime,
                () -> {
                    LockSupport.parkNanos(300_000_000);
                    return TrimStudy.regimes(takes.read(takes.of(job).get(0).id()), set).stream()
                            .anyMatch(r -> r.id().equals(regime));
                });
    }

    @Override
    public void close() {
        vehicles.forEach(StandInVehicle::close);
        app.close();
    }
}
