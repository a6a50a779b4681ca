package brightlantern.standin;

import brightlantern.core.circuit.Circuit;
import brightlantern.standin.instrument.Instrument;
import brightlantern.standin.instrument.Meter;
import brightlantern.standin.instrument.Scope;
import brightlantern.standin.instrument.ScpiServer;
import brightlantern.wire.scpi.InstrumentSearch;
import java.io.IOException;
import java.net.InetAddress;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.concurrent.CopyOnWriteArrayList;

/** The instruments beside a stand-in vehicle: a meter where it has circuits, two oscilloscopes. */
final class OwnInstruments implements AutoCloseable {
    private final VehicleSimulation simulation;
    private final ToolBox tools;
    private final Runnable catchUp;
    private final Scope.Places places;
    private final List<Scope> scopes;
    private final List<ScpiServer> servers = new CopyOnWriteArrayList<>();
    private final Meter meter;
    private final Map<String, Instrument> offered = new LinkedHashMap<>();

    /**
     * @param places what lanes can be connected to
     * @param catchUp lets the vehicle live up to now, before something of it is read
     */
    OwnInstruments(
            VehicleSimulation simulation, ToolBox tools, Scope.Places places, Runnable catchUp) {
        this.simulation = simulation;
        this.tools = tools;
        this.catchUp = catchUp;
        this.places = places;
        scopes = List.of(new Scope(places), new Scope(places, 2));
        meter = new Meter(new MeterPlaces(), simulation::hang);
    }

    /**
     * @throws IOException when a port of the address cannot be taken
     */
    void open(InetAddress address) throws IOException {
        if (simulation.plant().hasCircuits() || simulation.circuits().isPresent()) {
            offer("Meter", address, Meter.PORT, meter);
        }
        offer("Oscilloscope", address, Scope.PORT, scopes.get(0));
        offer("Second oscilloscope", address, Scope.SECOND_PORT, scopes.get(1));
    }

    private void offer(String what, InetAddress address, int port, Instrument instrument)
            throws IOException {
        servers.add(new ScpiServer(address, port, instrument));
        offered.put(what, instrument);
    }

    /**
     * Announces them. An address such as a stand-in's cannot be announced, so each has a socket at
     * the announcer's own as well.
     *
     * @param vehicle whose they are, in words
     * @throws IOException when they cannot be announced
     */
    void announce(InetAddress at, InstrumentSearch.Announcer by, String vehicle)
            throws IOException {
        for (Map.Entry<String, Instrument> its : offered.entrySet()) {
            ScpiServer server = new ScpiServer(at, 0, its.getValue());
            servers.add(server);
            by.announce(
                    its.getKey() + " at " + vehicle,
                    its.getValue().identity().split(",")[1],
                    server.port());
        }
    }

    Meter meter() {
        return meter;
    }

    /** The first oscilloscope. */
    Scope scope() {
        return scopes.get(0);
    }

    /** Time goes by. */
    void step(double seconds) {
        Scope.step(scopes, seconds);
    }

    @Override
    public void close() {
        servers.forEach(ScpiServer::close);
    }

    /** What the meter reads is of now. */
    private final class MeterPlaces implements Meter.Places {
        @Override
        public OptionalDouble volts(String point) {
            catchUp.run();
            return simulation.volts(point);
        }

        @Override
        public double[] wave(String point, double seconds, int count) {
            catchUp.run();
            String place = point.equals(Circuit.PLUS) ? ScopePlaces.SUPPLY : point;
            return places.feel(List.of(place), seconds, count).getOrDefault(place, new double[0]);
        }

        @Override
        public OptionalDouble ohms(String what) {
            catchUp.run();
            return tools.ohmsAt(what);
        }

        @Override
        public OptionalDouble amps(String wire) {
            catchUp.run();
            return tools.ampsAt(wire);
        }
    }
}
