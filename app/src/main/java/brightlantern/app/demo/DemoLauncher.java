package brightlantern.app.demo;

import brightlantern.app.account.Accounts;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.seat.DriversSeats;
import brightlantern.app.seat.DriversSeats.Choice;
import brightlantern.app.seat.DriversSeats.Dashboard;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.PortageVan;
import brightlantern.standin.StandInVehicle;
import brightlantern.standin.StandIns;
import brightlantern.standin.network.WireFault;
import brightlantern.standin.plant.Driver;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.context.ConfigurableApplicationContext;

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

    private static final int FIRST_SERIAL = 417;
    private static final String PASSWORD = "lantern-demo";

    /** The stand-ins beside the two vans, in the order of their addresses from 127.0.22.11 on. */
    static final List<String> OTHERS =
            List.of(
                    "oriel-finch",
                    "velmont-cairn",
                    "quillon-ember",
                    "stonebarrow-wl9",
                    "oriel-heron");

    /** The addresses of the two vans, then of the others. */
    static final List<String> ADDRESSES =
            List.of(
                    "127.0.22.1",
                    "127.0.22.2",
                    "127.0.22.11",
                    "127.0.22.12",
                    "127.0.22.13",
                    "127.0.22.14",
                    "127.0.22.15");

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

    /**
     * Starts two vans, one with the complaint's fault and one as built, and all other stand-ins.
     */
    public static void launch(ConfigurableApplicationContext context) {
        accounts(context.getBean(Accounts.class));
        boolean fresh = context.getBean(brightlantern.app.job.Jobs.class).all().isEmpty();
        try {
            PortageVan complaint =
                    start(
                            context,
                            ADDRESSES.get(0),
                            PortageVan.Scenario.FLAT_ON_CLIMBS,
                            FIRST_SERIAL);
            PortageVan sister =
                    start(
                            context,
                            ADDRESSES.get(1),
                            PortageVan.Scenario.AS_BUILT,
                            FIRST_SERIAL + 5);
            List<StandInVehicle> others = new java.util.ArrayList<>();
            for (int i = 0; i < OTHERS.size(); i++) {
                String id = OTHERS.get(i);
                List<String> scenarios = StandIns.scenarios(id);
                others.add(
                        start(
                                context,
                                ADDRESSES.get(2 + i),
                                id,
                                scenarios.get(scenarios.size() - 1),
                                FIRST_SERIAL + 20 + i));
            }
            if (fresh) {
                context.getBean(DemoJobs.class)
                        .fill(
                                complaint.vin(),
                                sister.vin(),
                                others.stream().map(StandInVehicle::vin).toList());
            }
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
                "Stand-ins at 127.0.22.1, 127.0.22.2 and 127.0.22.11 to 127.0.22.15; their driver's seats are under 'Stand-ins'.");
    }

    private static void accounts(Accounts accounts) {
        if (accounts.isEmpty()) {
            accounts.add("tech", "Technician, " + WORKSHOP, PASSWORD, Accounts.Role.TECHNICIAN);
            accounts.add("lead", "Lead technician, " + WORKSHOP, PASSWORD, Accounts.Role.LEAD);
            accounts.add(
                    "admin", "Administrator, " + WORKSHOP, PASSWORD, Accounts.Role.ADMINISTRATOR);
        }
    }

    /** Starts one stand-in van and makes its seat known. */
    public static PortageVan start(
            ConfigurableApplicationContext context,
            String address,
            PortageVan.Scenario scenario,
            int serial)
            throws IOException {
        PortageVan van =
                new PortageVan(
                        description(context, "tamarack-portage"),
                        InetAddress.getByName(address),
                        scenario,
                        serial);
        closeWith(context, van);
        seat(context, address, van.vehicle());
        return van;
    }

    /**
     * Starts one of the other stand-ins in a scenario and makes its seat known.
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
        StandInVehicle vehicle = StandIns.of(description(context, vehicleId), scenario, serial);
        vehicle.open(InetAddress.getByName(address));
        closeWith(context, vehicle);
        seat(context, address, vehicle);
        return vehicle;
    }

    private static VehicleDescription description(
            ConfigurableApplicationContext context, String vehicleId) {
        return context.getBean(VehicleLinks.class)
                .library()
                .byId(vehicleId)
                .orElseThrow(
                        () ->
                                new IllegalStateException(
                                        "the demo needs the description "
                                                + vehicleId
                                                + ", which cannot be read (see above), in the folder of --vehicles"));
    }

    private static void seat(
            ConfigurableApplicationContext context, String address, StandInVehicle vehicle) {
        context.getBean(DriversSeats.class).add(new Seat(address, vehicle));
        context.getBean(VehicleLinks.class).configure(address);
        vehicle.announceTo(new InetSocketAddress(ANNOUNCED_TO, PORT));
    }

    private static void closeWith(ConfigurableApplicationContext context, AutoCloseable standIn) {
        context.addApplicationListener(
                event -> {
                    if (event instanceof org.springframework.context.event.ContextClosedEvent) {
                        try {
                            standIn.close();
                        } catch (Exception open) {
                            throw new IllegalStateException("A stand-in did not close", open);
                        }
                    }
                });
    }

    private record Seat(String address, StandInVehicle vehicle)
            implements DriversSeats.DriversSeat {
        @Override
        public String name() {
            return vehicle.description().name();
        }

        @Override
        public String vin() {
            return vehicle.vin();
        }

        private Driver driver() {
            return vehicle.works().driver();
        }

        private double reading(String id) {
            return vehicle.works().reading(id).orElse(Double.NaN);
        }

        @Override
        public Dashboard dashboard() {
            return new Dashboard(
                    List.of("off", "accessory", "on").get(driver().key()),
                    List.of("stopped", "cranking", "running").get((int) reading("engine.state")),
                    driver().program().words(),
                    reading("vehicle.speed"),
                    reading("engine.speed"),
                    reading("coolant"),
                    reading("body.supply"),
                    vehicle.lamp(),
                    driver().charger(),
                    driver().trailer(),
                    vehicle.hurry());
        }

        @Override
        public void key(int position) {
            vehicle.driver(driver().key(position).drive(Driver.Program.STAND));
        }

        @Override
        public void crank() {
            vehicle.works().crank();
        }

        @Override
        public void drive(String program) {
            vehicle.driver(driver().drive(Driver.Program.named(program)));
        }

        @Override
        public void byHand(double pedal, int gear, double slope, boolean brake) {
            vehicle.driver(driver().byHand(pedal, gear, slope, brake));
        }

        @Override
        public void charger(boolean on) {
            vehicle.driver(driver().charger(on));
        }

        @Override
        public void trailer(boolean plugged) {
            vehicle.driver(driver().trailer(plugged));
        }

        @Override
        public void hurry(int factor) {
            vehicle.hurry(factor);
        }

        @Override
        public void plug(String moduleId, boolean in) {
            String id = "unplugged-" + moduleId;
            if (in) {
                vehicle.wires().mend(id);
            } else {
                // whoever hangs on the wire no longer is missed by the others
                vehicle.wires().add(new WireFault.Dead(id, moduleId, Double.POSITIVE_INFINITY, 0));
            }
        }

        @Override
        public void cut() {
            vehicle.gateway().cut();
        }

        @Override
        public void repair(String repairId) {
            vehicle.repair(repairId);
        }

        @Override
        public List<Choice> acts() {
            return vehicle.works().acts().entrySet().stream()
                    .map(a -> new Choice(a.getKey(), a.getValue()))
                    .toList();
        }

        @Override
        public void act(String actId) {
            vehicle.works().act(actId);
        }

        @Override
        public Optional<byte[]> injectors() {
            return vehicle.works().injectors().map(w -> w.write());
        }

        @Override
        public List<Choice> programs() {
            return Stream.of(Driver.Program.values())
                    .filter(p -> p != Driver.Program.BY_HAND)
                    .map(p -> new Choice(p.name(), p.words()))
                    .toList();
        }

        @Override
        public List<Choice> repairs() {
            return vehicle.repairs().entrySet().stream()
                    .map(r -> new Choice(r.getKey(), r.getValue()))
                    .sorted(Comparator.comparing(Choice::name))
                    .toList();
        }

        @Override
        public List<Choice> modules() {
            return vehicle.description().modules().stream()
                    .filter(m -> vehicle.module(m.id()) != null)
                    .map(m -> new Choice(m.id(), m.name()))
                    .toList();
        }
    }
}
