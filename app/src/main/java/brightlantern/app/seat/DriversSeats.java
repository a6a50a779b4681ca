package brightlantern.app.seat;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.stereotype.Component;

/** The stand-ins' seats, when stand-ins run; empty for real use. */
@Component
public class DriversSeats {
    private final List<DriversSeat> seats = new CopyOnWriteArrayList<>();

    public void add(DriversSeat seat) {
        seats.add(seat);
    }

    public List<DriversSeat> all() {
        return List.copyOf(seats);
    }

    /** A stand-in vehicle as the person in its seat sees it. It does not tell what is broken. */
    public interface DriversSeat {
        String address();

        /** Name of the kind of vehicle. */
        String name();

        String vin();

        Dashboard dashboard();

        /** Turns the key: 0 off, 1 accessory, 2 on. */
        void key(int position);

        /** Turns the key to start and holds it there; what comes of it, in words. */
        String crank();

        /** Drives by one of the programs. */
        void drive(String program);

        void byHand(double pedal, int gear, double slope, boolean brake);

        void charger(boolean on);

        void trailer(boolean plugged);

        void hurry(int factor);

        /** Plugs or unplugs a module. */
        void plug(String moduleId, boolean in);

        /** Cuts the network cable for a moment. */
        void cut();

        /**
         * What was broken, for a vehicle to practise on; nothing for one whose story is known. Told
         * to nobody before its job is closed.
         */
        Optional<String> truth();

        /** When it was broken at this seat; long ago when it came broken. */
        Instant brokenAt();

        /** What can be switched on at the vehicle. */
        List<Switch> switches();

        /** Its connectors; on while one is pulled. */
        List<Switch> plugs();

        /** Switches something on or off, or pulls a connector and puts it back. */
        void set(String id, boolean on);

        /** What of it can be seen or heard working at this moment. */
        List<Sight> sights();

        /** How the pins of a connector look. */
        String pins(String plug);

        /** What happens while the harness at a connector is moved. */
        String moved(String what);

        /** Relays, switches, fuses and earths, which can be tapped and moved by themselves. */
        List<Choice> tapped();

        /** Wires along which one can look. */
        List<Choice> wires();

        /** Whether a wire has rubbed through. */
        String along(String wire);

        /** Fuses in whose place a test lamp can be put. */
        List<Choice> fuses();

        /** What the lamp shows in the place of a fuse. */
        String behind(String fuse);

        /** Parts of its circuits that can be broken. */
        List<Choice> breakable();

        /**
         * Breaks something; what the driver says then.
         *
         * @param choice the part; empty for one that nobody chose
         * @param beside whether what is broken already stays so; otherwise it is mended first
         */
        String breakIt(String choice, boolean beside);

        /** Lets the workshop do a repair on it. */
        void repair(String repairId);

        /** What else can be done at the vehicle. */
        List<Choice> acts();

        /** What can be measured at the vehicle by hand; done as one of {@link #acts}. */
        List<Choice> gauges();

        /** Does one of {@link #acts}; what is seen of it, in words, or nothing. */
        String act(String actId);

        /** A microphone's recording (WAV) of the injectors clicked one after another. */
        Optional<byte[]> injectors();

        List<Choice> programs();

        List<Choice> repairs();

        List<Choice> modules();
    }

    public record Choice(String id, String name) {}

    /** Something that is on or off, or a connector that is out or in. */
    public record Switch(String id, String name, boolean on) {}

    /** How a thing is that somebody looks at, and under which setting. */
    public record Sight(String name, String state, String under) {}

    /** What the driver sees. */
    public record Dashboard(
            String key,
            String engine,
            String program,
            double speed,
            double rpm,
            double coolant,
            double supply,
            boolean warning,
            boolean charger,
            boolean trailer,
            int hurry) {}
}
