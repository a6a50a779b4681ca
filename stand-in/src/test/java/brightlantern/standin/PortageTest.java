package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.network.ControlModule;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vin;
import brightlantern.standin.module.UdsModule;
import brightlantern.wire.Bytes;
import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.doip.DoipCodec;
import brightlantern.wire.doip.DoipConnection;
import brightlantern.wire.doip.DoipDiscovery;
import brightlantern.wire.doip.DoipMessage;
import brightlantern.wire.scpi.ScpiClient;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.uds.NegativeResponseException;
import brightlantern.wire.uds.UdsClient;
import brightlantern.wire.uds.UdsTimings;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** The stand-in spoken to over real sockets, with good and bad luck. */
class PortageTest {
    private static final Duration WAIT = Duration.ofSeconds(2);
    private static VehicleDescription description;
    private static InetAddress address;
    private static StandInVehicle van;
    private DoipConnection connection = open();

    @BeforeAll
    static void start() throws Exception {
        description = Shipped.vehicle("tamarack-portage");
        address = InetAddress.getByName("127.0.71.1");
        van = StandIns.open(description, address, "flat on climbs", 417);
    }

    @AfterAll
    static void stop() {
        van.close();
    }

    @AfterEach
    void hangUp() {
        connection.close();
        description.modules().forEach(m -> van.module(m.id()).behave(UdsModule.Behaviour.NORMAL));
    }

    private static DoipConnection open() {
        try {
            return DoipConnection.open(
                    new InetSocketAddress(address, DoipDiscovery.PORT), 0x0E80, WAIT);
        } catch (WireException failed) {
            throw new AssertionError(failed);
        }
    }

    private UdsClient module(String id) {
        return new UdsClient(
                connection,
                new LogicalAddress(description.module(id).orElseThrow().address()),
                UdsTimings.STANDARD);
    }

    private static void await(BooleanSupplier state) {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
        while (!state.getAsBoolean()) {
            assertThat(System.nanoTime()).as("waited too long").isLessThan(end);
            Thread.onSpinWait();
        }
    }

    @Test
    void isFoundByRequestAndOnlyItsOwnVin() throws Exception {
        List<InetSocketAddress> there = List.of(new InetSocketAddress(address, DoipDiscovery.PORT));
        assertThat(DoipDiscovery.ask(there, new DoipMessage.IdentificationRequest(), WAIT))
                .singleElement()
                .satisfies(f -> assertThat(f.announcement().vin()).isEqualTo(van.vin()));
        assertThat(
                        DoipDiscovery.ask(
                                there, new DoipMessage.IdentificationRequestByVin(van.vin()), WAIT))
                .hasSize(1);
        assertThat(
                        DoipDiscovery.ask(
                                there,
                                new DoipMessage.IdentificationRequestByVin("ZZTPG22D0M1999999"),
                                Duration.ofMillis(200)))
                .isEmpty();
        assertThat(new Vin(van.vin()).checkDigitHolds()).isTrue();
    }

    @Test
    void tellsItsStatusAndPowerModeAndComplainsOfNoise() throws Exception {
        InetSocketAddress there = new InetSocketAddress(address, DoipDiscovery.PORT);
        assertThat(DoipDiscovery.exchange(there, new DoipMessage.PowerModeRequest(), WAIT))
                .contains(new DoipMessage.PowerModeResponse(1));
        assertThat(DoipDiscovery.exchange(there, new DoipMessage.EntityStatusRequest(), WAIT))
                .get()
                .isInstanceOfSatisfying(
                        DoipMessage.EntityStatusResponse.class,
                        s -> assertThat(s.openSockets()).isGreaterThanOrEqualTo(1));
        try (DatagramSocket socket = new DatagramSocket()) {
            byte[] noise = {1, 2, 3};
            socket.send(new DatagramPacket(noise, 3, there));
            socket.setSoTimeout(2000);
            DatagramPacket answer = new DatagramPacket(new byte[64], 64);
            socket.receive(answer);
            assertThat(DoipCodec.decode(Arrays.copyOf(answer.getData(), answer.getLength())))
                    .isInstanceOf(DoipMessage.HeaderNack.class);
        }
    }

    @Test
    void announcesItself() throws Exception {
        BlockingQueue<DoipDiscovery.Found> heard = new LinkedBlockingQueue<>();
        InetSocketAddress ear = new InetSocketAddress("127.0.71.9", DoipDiscovery.PORT);
        try (DoipDiscovery.Listener listener = new DoipDiscovery.Listener(ear, heard::add)) {
            van.announceTo(ear);
            assertThat(heard.poll(3, TimeUnit.SECONDS)).isNotNull();
            assertThat(listener).isNotNull();
        }
    }

    @Test
    void itsOwnMonitorSetTheBoostCodeTwiceAndKeptBothFrames() throws Exception {
        UdsClient engine = module("engine");
        assertThat(engine.codes(0x08))
                .singleElement()
                .satisfies(e -> assertThat(e.dtc()).isEqualTo(0x029900));
        assertThat(engine.countCodes(0x08)).isEqualTo(1);
        assertThat(engine.supportedCodes()).hasSizeGreaterThan(1);
        Map<Integer, Integer> sizes = new LinkedHashMap<>();
        description.values().forEach(v -> sizes.put(v.did(), v.bytes()));
        assertThat(engine.snapshots(0x029900, 0xFF, sizes)).hasSize(2);
        assertThat(engine.extendedData(0x029900, 0xFF, Map.of(1, 1, 2, 1, 3, 1)).get(1))
                .isEqualTo(Bytes.of(2));
        assertThat(module("trailer").codes(0x20)).hasSize(1);
    }

    @Test
    void everyModuleTellsWhoItIs() throws Exception {
        for (ControlModule m : description.modules()) {
            assertThat(module(m.id()).read(0xF190).asText()).isEqualTo(van.vin());
        }
    }

    @Test
    void readsSeveralValuesOfOneMomentAtOnce() throws Exception {
        Map<Integer, Integer> wanted = new LinkedHashMap<>();
        wanted.put(0x2003, 2);
        wanted.put(0x2004, 2);
        wanted.put(0x200C, 2);
        assertThat(module("engine").read(wanted)).containsOnlyKeys(0x2003, 0x2004, 0x200C);
    }

    @Test
    void refusesInWordsWhatItCannotDo() {
        assertThatThrownBy(() -> module("engine").read(0x7777))
                .isInstanceOf(NegativeResponseException.class)
                .hasMessageContaining("does not have this identifier");
        assertThatThrownBy(() -> module("engine").control(0x3001, Bytes.of(100)))
                .isInstanceOf(NegativeResponseException.class)
                .hasMessageContaining("session");
    }

    @Test
    void anOutputGoesBackWhenTheTesterVanishes() throws Exception {
        UdsClient engine = module("engine");
        engine.session(3);
        engine.control(0x3001, Bytes.of(180));
        await(() -> van.reading("vane.position") > 80);
        connection.close();
        await(() -> van.reading("vane.position") < 40);
    }

    @Test
    void badLuckGetsAClearErrorAndTheNextRequestWorks() throws Exception {
        UdsClient glow =
                new UdsClient(
                        connection,
                        new LogicalAddress(description.module("glow").orElseThrow().address()),
                        UdsTimings.STANDARD.withP2(Duration.ofSeconds(1)));
        van.module("glow").behave(UdsModule.Behaviour.SILENT);
        assertThatThrownBy(() -> glow.read(0xF190)).isInstanceOf(SilenceException.class);
        van.module("glow").behave(UdsModule.Behaviour.NONSENSE);
        assertThatThrownBy(() -> glow.read(0xF190)).isInstanceOf(WireFormatException.class);
        van.module("glow").behave(UdsModule.Behaviour.REFUSING);
        assertThatThrownBy(() -> glow.read(0xF190))
                .hasMessageContaining("conditions are not right");
        van.module("glow").behave(UdsModule.Behaviour.BUSY);
        assertThat(glow.read(0xF190).asText()).isEqualTo(van.vin());
        van.module("glow").behave(UdsModule.Behaviour.LATE);
        assertThat(glow.read(0xF190).asText()).isEqualTo(van.vin());
        van.module("glow").behave(UdsModule.Behaviour.NORMAL);
        assertThat(glow.read(0xF190).asText()).isEqualTo(van.vin());
        assertThatThrownBy(
                        () ->
                                new UdsClient(
                                                connection,
                                                new LogicalAddress(0x1FFF),
                                                UdsTimings.STANDARD)
                                        .testerPresent())
                .hasMessageContaining("knows no module");
    }

    @Test
    void aCutConnectionTellsEveryWaiterAtOnceAndCanBeMadeAgain() throws Exception {
        van.module("brakes").behave(UdsModule.Behaviour.SILENT);
        Thread cutter = new Thread(() -> van.gateway().cut());
        cutter.start();
        assertThatThrownBy(
                        () -> {
                            while (true) {
                                module("brakes").read(0xF190);
                            }
                        })
                .isInstanceOf(WireException.class)
                .hasMessageMatching("(?s).*(lost|No answer).*");
        connection.close();
        connection = open();
        assertThat(module("engine").read(0xF190).asText()).isEqualTo(van.vin());
    }

    @Test
    void theMeterReadsTheCorrodedEarthOnlyUnderCurrent() throws Exception {
        try (ScpiClient meter = new ScpiClient(new InetSocketAddress(address, 5025), WAIT)) {
            assertThat(meter.query("*IDN?")).contains("STAND-IN METER");
            meter.command("ROUT:CLOS (@G12)");
            assertThat(meter.number("MEAS:VOLT:DC?")).isBetween(-0.05, 0.1);
            meter.command("INP:LOAD BULB");
            await(
                    () -> {
                        try {
                            return meter.number("MEAS:VOLT:DC?") > 2.5;
                        } catch (WireException broken) {
                            throw new AssertionError(broken);
                        }
                    });
            assertThatThrownBy(() -> meter.command("ROUT:CLOS (@NOWHERE)"))
                    .hasMessageContaining("no point NOWHERE");
            assertThatThrownBy(() -> meter.command("MAKE:TEA"))
                    .hasMessageContaining("Undefined header");
        }
    }
}
