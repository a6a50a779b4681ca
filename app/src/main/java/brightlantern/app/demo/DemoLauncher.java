package brightlantern.app.demo;

import brightlantern.app.account.Accounts;
import brightlantern.app.job.Jobs;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.seat.DriversSeats;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.VehicleLibrary;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.standin.Told;
import brightlantern.wire.scpi.InstrumentSearch;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.event.ContextClosedEvent;

/**
 * Starts the stand-in vans, makes the demo accounts and fills the demo jobs. Nothing else in the
 * application knows the stand-ins.
 */
public final class DemoLauncher {
    /** The made-up workshop of the demo data. */
    public static final String WORKSHOP = "Larkspur Yard";

    /** Stand-ins do not reach other machines: they announce themselves to this address alone. */
    public static final String ANNOUNCED_TO = "127.0.0.1";

    /** The port of every diagnostic entity (ISO 13400-2). */
    private static final int PORT = 13400;

    private static final Logger LOG = LoggerFactory.getLogger(DemoLauncher.class);

    private static final String PASSWORD = "lantern-demo";

    /**
     * A stand-in of the demo.
     *
     * @param complaint whether it is in the last of its scenarios, or as built
     * @param serial six digits at the end of its VIN
     */
    private record StandIn(String address, String vehicleId, boolean complaint, int serial) {
        String scenario() {
            List<String> scenarios = StandIns.scenarios(vehicleId);
            return complaint ? scenarios.get(scenarios.size() - 1) : StandIns.AS_BUILT;
        }
    }

    private static final List<StandIn> STAND_INS =
            List.of(
                    new StandIn("127.0.22.1", "tamarack-portage", true, 417),
                    new StandIn("127.0.22.2", "tamarack-portage", false, 422),
                    new StandIn("127.0.22.11", "oriel-finch", true, 437),
                    new StandIn("127.0.22.12", "velmont-cairn", true, 438),
                    new StandIn("127.0.22.13", "quillon-ember", true, 439),
                    new StandIn("127.0.22.14", "stonebarrow-wl9", true, 440),
                    new StandIn("127.0.22.15", "oriel-heron", true, 441));

    /** A van of which nobody knows what is broken in it. */
    private static final String SURPRISE_ADDRESS = "127.0.22.3";

    private static final String SURPRISE_KIND = "tamarack-portage";
    private static final int SURPRISE_SERIAL = 433;

    /** The addresses of the stand-ins. */
    static final List<String> ADDRESSES =
            Stream.concat(STAND_INS.stream().map(StandIn::address), Stream.of(SURPRISE_ADDRESS))
                    .toList();

    private DemoLauncher() {}

    /** Why the stand-ins cannot have their addresses, in a sentence; empty when they can. */
    public static Optional<String> clash() {
        for (String address : ADDRESSES) {
            try (ServerSocket free = new ServerSocket()) {
                free.setReuseAddress(true);
                free.bind(new InetSocketAddress(address, PORT));
            } catch (IOException taken) {
                return Optional.of(
                        "The demo's stand-in vehicle needs port "
                                + PORT
                                + " of "
                                + address
                                + ", which cannot be had ("
                                + taken.getMessage()
                                + "). Does another demo run?");
            }
        }
        return Optional.empty();
    }

    /** A stand-in of the demo that has lived its past and waits to be opened. */
    public record Arrived(String address, String scenario, StandInVehicle vehicle) {}

    /** Builds the stand-ins and lets each live its past, several at once. */
    public static List<Arrived> arrivals(VehicleLibrary library) {
        return STAND_INS.parallelStream()
                .map(
                        s ->
                                new Arrived(
                                        s.address(),
                                        s.scenario(),
                                        StandIns.of(
                                                description(library, s.vehicleId()),
                                                s.scenario(),
                                                s.serial())))
                .toList();
    }

    /**
     * Opens all stand-ins, and fills the demo's jobs where there are none.
     *
     * @param arriving those that may still be living their past
     */
    public static void launch(
            ConfigurableApplicationContext context, CompletableFuture<List<Arrived>> arriving) {
        accounts(context.getBean(Accounts.class));
        boolean fresh = context.getBean(Jobs.class).all().isEmpty();
        try {
            DemoJobs.Brought surprise = surprise(context);
            List<Arrived> arrivals = arriving.join();
            List<DemoJobs.Brought> brought = new ArrayList<>();
            for (Arrived a : arrivals) {
                brought.add(brought(context, a));
            }
            brought.add(surprise);
            if (fresh) {
                context.getBean(DemoJobs.class).fill(brought);
            }
            List<StandInVehicle> there = arrivals.stream().map(Arrived::vehicle).toList();
            Thread announcing = new Thread(() -> announce(context, there), "demo-announces");
            announcing.setDaemon(true);
            announcing.start();
        } catch (IOException taken) {
            throw new IllegalStateException(
                    "The stand-ins could not start ("
                            + taken.getMessage()
                            + "). Does another demo run? Their addresses are "
                            + String.join(", ", ADDRESSES)
                            + ", port "
                            + PORT
                            + ".",
                    taken);
        }
        System.out.println("Demo accounts: tech, lead, admin; the password of each is " + PASSWORD);
        System.out.println(
                "Stand-ins at "
                        + String.join(", ", ADDRESSES)
                        + "; their driver's seats are under 'Stand-ins'.");
    }

    /** A demo without multicast is one whose instruments are entered by hand. */
    private static void announce(
            ConfigurableApplicationContext context, List<StandInVehicle> vehicles) {
        try {
            InetAddress own = InetAddress.getByName(ANNOUNCED_TO);
            InstrumentSearch.Announcer announcer =
                    new InstrumentSearch.Announcer(own, "larkspur-yard");
            closeWith(context, announcer);
            for (StandInVehicle vehicle : vehicles) {
                vehicle.announce(own, announcer);
            }
        } catch (IOException mute) {
            LOG.warn("The stand-in instruments are not announced", mute);
        }
    }

    private static DemoJobs.Brought brought(ConfigurableApplicationContext context, Arrived a)
            throws IOException {
        open(context, a.address(), a.vehicle());
        String kind = a.vehicle().description().id();
        Told told = StandIns.told(kind, a.scenario());
        return new DemoJobs.Brought(
                kind,
                a.vehicle().vin(),
                a.address(),
                told.complaint(),
                told.symptoms(),
                told.earlier());
    }

    private static DemoJobs.Brought surprise(ConfigurableApplicationContext context)
            throws IOException {
        StandInVehicle vehicle =
                surprise(
                        context,
                        SURPRISE_ADDRESS,
                        context.getBean(SurpriseSeed.class).value(),
                        SURPRISE_SERIAL);
        return new DemoJobs.Brought(
                SURPRISE_KIND,
                vehicle.vin(),
                SURPRISE_ADDRESS,
                "To practise on: it has lost its pull uphill, and nobody here knows why.",
                List.of("flat-on-climbs"),
                "None known.");
    }

    /**
     * Starts a van to practise on, in which something is broken that nobody chose, and makes its
     * seat known.
     *
     * @param seed draws what is broken
     * @throws IOException when its address cannot be taken
     */
    public static StandInVehicle surprise(
            ConfigurableApplicationContext context, String address, long seed, int serial)
            throws IOException {
        StandIns.Surprise surprise =
                StandIns.surprise(
                        description(context.getBean(VehicleLinks.class).library(), SURPRISE_KIND),
                        seed,
                        serial);
        surprise.vehicle().open(InetAddress.getByName(address));
        closeWith(context, surprise.vehicle());
        seat(context, address, surprise.vehicle(), Optional.of(surprise.truth()));
        return surprise.vehicle();
    }

    private static void accounts(Accounts accounts) {
        if (accounts.isEmpty()) {
            accounts.add("tech", "Technician, " + WORKSHOP, PASSWORD, Accounts.Role.TECHNICIAN);
            accounts.add("lead", "Lead technician, " + WORKSHOP, PASSWORD, Accounts.Role.LEAD);
            accounts.add(
                    "admin", "Administrator, " + WORKSHOP, PASSWORD, Accounts.Role.ADMINISTRATOR);
        }
    }

    /**
     * Starts a stand-in in a scenario and makes its seat known.
     *
     * @throws IOException when its address cannot be taken
     */
    public static StandInVehicle start(
            ConfigurableApplicationContext context,
            String address,
            String vehicleId,
            String scenario,
            int serial)
            throws IOException {
        VehicleLibrary library = context.getBean(VehicleLinks.class).library();
        StandInVehicle vehicle = StandIns.of(description(library, vehicleId), scenario, serial);
        open(context, address, vehicle);
        return vehicle;
    }

    private static void open(
            ConfigurableApplicationContext context, String address, StandInVehicle vehicle)
            throws IOException {
        vehicle.open(InetAddress.getByName(address));
        closeWith(context, vehicle);
        seat(context, address, vehicle, Optional.empty());
    }

    private static VehicleDescription description(VehicleLibrary library, String vehicleId) {
        return library.byId(vehicleId)
                .orElseThrow(
                        () ->
                                new IllegalStateException(
                                        "the demo needs the description "
                                                + vehicleId
                                                + ", which cannot be read (see above), in the folder of --vehicles"));
    }

    private static void seat(
            ConfigurableApplicationContext context,
            String address,
            StandInVehicle vehicle,
            Optional<String> truth) {
        context.getBean(DriversSeats.class).add(new DemoSeat(address, vehicle, truth));
        context.getBean(VehicleLinks.class).configure(address);
        vehicle.announceTo(new InetSocketAddress(ANNOUNCED_TO, PORT));
    }

    private static void closeWith(ConfigurableApplicationContext context, AutoCloseable standIn) {
        context.addApplicationListener(
                event -> {
                    if (event instanceof ContextClosedEvent) {
                        try {
                            standIn.close();
                        } catch (Exception open) {
                            throw new IllegalStateException("A stand-in did not close", open);
                        }
                    }
                });
    }
}
