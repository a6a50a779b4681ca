package brightlantern.app.demo;

import brightlantern.app.account.Accounts;
import brightlantern.app.link.VehicleLinks;
import brightlantern.app.seat.DriversSeats;
import brightlantern.app.seat.DriversSeats.Choice;
import brightlantern.app.seat.DriversSeats.Dashboard;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.PortageVan;
import brightlantern.standin.module.UdsModule;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.PortagePlant.Moment;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.context.ConfigurableApplicationContext;

/**
 * Starts the stand-in vans, makes the demo accounts and fills the demo jobs. Nothing else in the
 * application knows the stand-ins.
 */
public final class DemoLauncher {
    private static final int FIRST_SERIAL = 417;
    private static final String PASSWORD = "lantern-demo";

    private DemoLauncher() {}

    /** Starts two vans: one with the complaint's fault, one as it was built. */
    public static void launch(ConfigurableApplicationContext context) {
        accounts(context.getBean(Accounts.class));
        boolean fresh = context.getBean(brightlantern.app.job.Jobs.class).all().isEmpty();
        try {
            PortageVan complaint =
                    start(context, "127.0.22.1", PortageVan.Scenario.FLAT_ON_CLIMBS, FIRST_SERIAL);
            PortageVan sister =
                    start(context, "127.0.22.2", PortageVan.Scenario.AS_BUILT, FIRST_SERIAL + 5);
            if (fresh) {
                context.getBean(DemoJobs.class).fill(complaint.vin(), sister.vin());
            }
        } catch (IOException taken) {
            throw new IllegalStateException(
                    "The stand-ins could not start ("
                            + taken.getMessage()
                            + "). Does another demo run? Their addresses are 127.0.22.1 and 127.0.22.2, port 13400.",
                    taken);
        }
        System.out.println("Demo accounts: tech, lead, admin; the password of each is " + PASSWORD);
        System.out.println(
                "Stand-in vans at 127.0.22.1 and 127.0.22.2; their driver's seats are under 'Stand-ins'.");
    }

    private static void accounts(Accounts accounts) {
        if (accounts.isEmpty()) {
            accounts.add("tech", "Technician, Larkspur Yard", PASSWORD, Accounts.Role.TECHNICIAN);
            accounts.add("lead", "Lead technician, Larkspur Yard", PASSWORD, Accounts.Role.LEAD);
            accounts.add(
                    "admin", "Administrator, Larkspur Yard", PASSWORD, Accounts.Role.ADMINISTRATOR);
        }
    }

    /** Starts one stand-in van and makes its seat known. */
    public static PortageVan start(
            ConfigurableApplicationContext context,
            String address,
            PortageVan.Scenario scenario,
            int serial)
            throws IOException {
        VehicleLinks links = context.getBean(VehicleLinks.class);
        VehicleDescription description = links.library().byId("tamarack-portage").orElseThrow();
        PortageVan van =
                new PortageVan(description, InetAddress.getByName(address), scenario, serial);
        context.getBean(DriversSeats.class).add(new Seat(address, van));
        links.configure(address);
        van.announceTo(new InetSocketAddress("127.0.0.1", 13400));
        context.addApplicationListener(
                event -> {
                    if (event instanceof org.springframework.context.event.ContextClosedEvent) {
                        van.close();
                    }
                });
        return van;
    }

    private record Seat(String address, PortageVan van) implements DriversSeats.DriversSeat {
        @Override
        public String vin() {
            return van.vin();
        }

        private Driver driver() {
            return van.plant().driver();
        }

        @Override
        public Dashboard dashboard() {
            Moment m = van.moment();
            return new Dashboard(
                    List.of("off", "accessory", "on").get(m.key()),
                    m.running() ? "running" : m.cranking() ? "cranking" : "stopped",
                    driver().program().words(),
                    3.6 * m.metresPerSecond(),
                    m.rpm(),
                    m.coolant(),
                    m.supply(),
                    m.limited(),
                    driver().charger(),
                    driver().trailer(),
                    van.hurry());
        }

        @Override
        public void key(int position) {
            van.plant().driver(driver().key(position).drive(Driver.Program.STAND));
        }

        @Override
        public void crank() {
            van.plant().crank();
        }

        @Override
        public void drive(String program) {
            van.plant().driver(driver().drive(Driver.Program.named(program)));
        }

        @Override
        public void byHand(double pedal, int gear, double slope, boolean brake) {
            van.plant().driver(driver().byHand(pedal, gear, slope, brake));
        }

        @Override
        public void charger(boolean on) {
            van.plant().driver(driver().charger(on));
        }

        @Override
        public void trailer(boolean plugged) {
            van.plant().driver(driver().trailer(plugged));
        }

        @Override
        public void hurry(int factor) {
            van.hurry(factor);
        }

        @Override
        public void plug(String moduleId, boolean in) {
            van.module(moduleId)
                    .behave(in ? UdsModule.Behaviour.NORMAL : UdsModule.Behaviour.SILENT);
        }

        @Override
        public void cut() {
            van.gateway().cut();
        }

        @Override
        public void repair(String repairId) {
            van.repair(repairId);
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
            return van.description().suspects().stream()
                    .map(s -> new Choice(s.repair().id(), s.repair().name()))
                    .toList();
        }

        @Override
        public List<Choice> modules() {
            return van.description().modules().stream()
                    .map(m -> new Choice(m.id(), m.name()))
                    .toList();
        }
    }
}
