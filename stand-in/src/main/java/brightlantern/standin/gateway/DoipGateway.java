package brightlantern.standin.gateway;

import brightlantern.standin.module.UdsModule;
import brightlantern.wire.Bytes;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.doip.DoipCodec;
import brightlantern.wire.doip.DoipDiscovery;
import brightlantern.wire.doip.DoipMessage;
import brightlantern.wire.doip.MessageTooLongException;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.IntSupplier;

/** Answers DoIP on UDP and TCP and hands diagnostic messages to the modules behind it. */
public final class DoipGateway implements AutoCloseable {
    private static final int MAX_TESTERS = 4;
    private static final int ANNOUNCEMENTS = 3;
    private static final long ANNOUNCE_GAP_MILLIS = 500;

    /** T_TCP_Initial_Inactivity and T_TCP_General_Inactivity, ISO 13400-2:2012, table 37. */
    private static final int INITIAL_INACTIVITY_MILLIS = 2_000;

    private static final int GENERAL_INACTIVITY_MILLIS = 300_000;

    /** Logical addresses of testers, ISO 13400-2:2012, table 13. */
    private static final int FIRST_TESTER = 0x0E00;

    private static final int LAST_TESTER = 0x0FFF;

    private static final int ACTIVATED = 0x10;

    private final InetAddress address;
    private final int logicalAddress;
    private final String vin;
    private final IntSupplier powerMode;
    private final Map<Integer, UdsModule> modules = new TreeMap<>();
    private final ServerSocket server;
    private final DatagramSocket udp;
    private final List<Thread> listeners;
    private final Map<Integer, Integer> mistaken = new ConcurrentHashMap<>();
    private final AtomicInteger taken = new AtomicInteger();
    private volatile int loseEvery;
    private final Set<Tester> testers = ConcurrentHashMap.newKeySet();
    private final ScheduledExecutorService clock =
            Executors.newScheduledThreadPool(
                    2,
                    runnable -> {
                        Thread thread = new Thread(runnable, "stand-in-replies");
                        thread.setDaemon(true);
                        return thread;
                    });

    /**
     * @param powerMode 0 not ready, 1 ready
     * @throws IOException when the address or port cannot be taken
     */
    public DoipGateway(
            InetAddress address,
            int logicalAddress,
            String vin,
            IntSupplier powerMode,
            List<UdsModule> behind)
            throws IOException {
        this.address = address;
        this.logicalAddress = logicalAddress;
        this.vin = vin;
        this.powerMode = powerMode;
        behind.forEach(module -> modules.put(module.address(), module));
        server = new ServerSocket();
        server.setReuseAddress(true);
        server.bind(new InetSocketAddress(address, DoipDiscovery.PORT));
        udp = new DatagramSocket(null);
        // a program on this machine may listen for announcements on all addresses
        udp.setReuseAddress(true);
        udp.bind(new InetSocketAddress(address, DoipDiscovery.PORT));
        listeners =
                List.of(
                        daemon("stand-in-tcp", this::accept),
                        daemon("stand-in-udp", this::answerDatagrams));
        clock.scheduleWithFixedDelay(
                () -> modules.values().forEach(UdsModule::tick), 200, 200, TimeUnit.MILLISECONDS);
    }

    private static Thread daemon(String name, Runnable work) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        thread.start();
        return thread;
    }

    private DoipMessage.Announcement announcement() {
        byte[] ip = address.getAddress();
        Bytes id = Bytes.of(0x02, 0x00, ip[0], ip[1], ip[2], ip[3]);
        return new DoipMessage.Announcement(vin, logicalAddress, id, id, 0x00, Optional.of(0x00));
    }

    /** Announces itself three times to a listener (ISO 13400-2:2012, A_DoIP_Announce_Num). */
    public void announceTo(InetSocketAddress listener) {
        byte[] frame = DoipCodec.encode(announcement());
        for (int i = 0; i < ANNOUNCEMENTS; i++) {
            clock.schedule(
                    () -> {
                        udp.send(new DatagramPacket(frame, frame.length, listener));
                        return null;
                    },
                    i * ANNOUNCE_GAP_MILLIS,
                    TimeUnit.MILLISECONDS);
        }
    }

    private void answerDatagrams() {
        byte[] room = new byte[4096];
        while (!udp.isClosed()) {
            try {
                DatagramPacket packet = new DatagramPacket(room, room.length);
                udp.receive(packet);
                Optional<DoipMessage> answer = answerTo(Arrays.copyOf(room, packet.getLength()));
                if (answer.isPresent()) {
                    byte[] frame = DoipCodec.encode(answer.get());
                    udp.send(new DatagramPacket(frame, frame.length, packet.getSocketAddress()));
                }
            } catch (IOException closedOrUnreachable) {
                if (udp.isClosed()) {
                    return;
                }
            }
        }
    }

    private Optional<DoipMessage> answerTo(byte[] frame) {
        DoipMessage request;
        try {
            request = DoipCodec.decode(frame);
        } catch (WireFormatException bad) {
            return Optional.of(nack(bad));
        }
        if (request instanceof DoipMessage.Unknown) {
            return Optional.of(new DoipMessage.HeaderNack(0x01));
        }
        if (request instanceof DoipMessage.IdentificationRequest
                || request instanceof DoipMessage.IdentificationRequestByVin byVin
                        && byVin.vin().equals(vin)
                || request instanceof DoipMessage.IdentificationRequestByEid byEid
                        && byEid.eid().equals(announcement().eid())) {
            return Optional.of(announcement());
        }
        if (request instanceof DoipMessage.EntityStatusRequest) {
            return Optional.of(
                    new DoipMessage.EntityStatusResponse(
                            0,
                            MAX_TESTERS,
                            testers.size(),
                            Optional.of((long) DoipCodec.MAX_PAYLOAD)));
        }
        if (request instanceof DoipMessage.PowerModeRequest) {
            return Optional.of(new DoipMessage.PowerModeResponse(powerMode.getAsInt()));
        }
        return Optional.empty();
    }

    /** Codes of table 14. */
    private static DoipMessage nack(WireFormatException bad) {
        int code = bad.offset() < 2 ? 0x00 : bad instanceof MessageTooLongException ? 0x02 : 0x04;
        return new DoipMessage.HeaderNack(code);
    }

    private void accept() {
        while (!server.isClosed()) {
            try {
                Tester tester = new Tester(server.accept());
                if (server.isClosed()) {
                    tester.close();
                }
                daemon("stand-in-tester", tester::serve);
            } catch (IOException closed) {
                if (server.isClosed()) {
                    return;
                }
            }
        }
    }

    /** Loses every so many-th request to a module from now on; 0 loses none. */
    public void loseEvery(int count) {
        loseEvery = count;
    }

    /** Sends the answers of one module under the address of another, until told so with itself. */
    public void mistake(int module, int forModule) {
        mistaken.put(module, forModule);
    }

    /** Cuts every tester off, as a pulled network cable does. */
    public void cut() {
        testers.forEach(Tester::close);
    }

    @Override
    public void close() {
        // nobody may come in any more before those who are in are cut off
        udp.close();
        try {
            server.close();
        } catch (IOException ignored) {
            // a listening socket that will not close ends with the process
        }
        clock.shutdownNow();
        cut();
        try {
            for (Thread listener : listeners) {
                // the port is free only once the thread that waits on it has let go
                listener.join(2000);
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    /** One connected tester. */
    private final class Tester {
        private final Socket socket;
        private int source = -1;

        Tester(Socket socket) {
            this.socket = socket;
        }

        void serve() {
            try {
                socket.setTcpNoDelay(true);
                socket.setSoTimeout(INITIAL_INACTIVITY_MILLIS);
                InputStream in = new BufferedInputStream(socket.getInputStream());
                while (!socket.isClosed()) {
                    takeNext(in);
                }
            } catch (WireFormatException bad) {
                send(nack(bad));
            } catch (IOException gone) {
                // the tester hung up, or was cut off; what it had taken over goes back below
            } finally {
                testers.remove(this);
                if (testers.isEmpty()) {
                    modules.values().forEach(UdsModule::disconnected);
                }
                close();
            }
        }

        private void takeNext(InputStream in) throws IOException {
            try {
                take(DoipCodec.read(in));
            } catch (MessageTooLongException tooLong) {
                // it is refused and passed over; the connection stays (table 14)
                send(nack(tooLong));
                in.skipNBytes(tooLong.length());
            }
        }

        private void take(DoipMessage message) throws IOException {
            if (message instanceof DoipMessage.RoutingActivationRequest request) {
                activate(request);
            } else if (message instanceof DoipMessage.Diagnostic diagnostic) {
                diagnose(diagnostic);
            } else if (message instanceof DoipMessage.AliveCheckRequest) {
                send(new DoipMessage.AliveCheckResponse(logicalAddress));
            } else if (message instanceof DoipMessage.Unknown) {
                send(new DoipMessage.HeaderNack(0x01));
            }
        }

        private void activate(DoipMessage.RoutingActivationRequest request) throws IOException {
            int code;
            if (request.sourceAddress() < FIRST_TESTER || request.sourceAddress() > LAST_TESTER) {
                code = 0x00;
            } else if (request.activationType() > 0x01) {
                code = 0x06;
            } else if (source >= 0 && source != request.sourceAddress()) {
                code = 0x02;
            } else if (source < 0 && testers.size() >= MAX_TESTERS) {
                code = 0x01;
            } else {
                // a tester that has come back must not be locked out by its own dead socket
                testers.stream()
                        .filter(t -> t != this && t.source == request.sourceAddress())
                        .forEach(t -> t.send(new DoipMessage.AliveCheckRequest()));
                source = request.sourceAddress();
                testers.add(this);
                socket.setSoTimeout(GENERAL_INACTIVITY_MILLIS);
                code = ACTIVATED;
            }
            send(
                    new DoipMessage.RoutingActivationResponse(
                            request.sourceAddress(), logicalAddress, code));
            if (code != ACTIVATED) {
                close();
            }
        }

        private void diagnose(DoipMessage.Diagnostic request) {
            if (source != request.source()) {
                send(
                        new DoipMessage.DiagnosticNack(
                                request.target(), request.source(), 0x02, Bytes.EMPTY));
                close();
                return;
            }
            UdsModule module = modules.get(request.target());
            if (module == null) {
                send(
                        new DoipMessage.DiagnosticNack(
                                request.target(), request.source(), 0x03, Bytes.EMPTY));
                return;
            }
            send(
                    new DoipMessage.DiagnosticAck(
                            request.target(), request.source(), 0x00, Bytes.EMPTY));
            if (loseEvery > 0 && taken.incrementAndGet() % loseEvery == 0) {
                return;
            }
            int from = mistaken.getOrDefault(request.target(), request.target());
            long at = 0;
            for (UdsModule.Reply reply : module.handle(request.data())) {
                at += reply.millis();
                DoipMessage answer =
                        new DoipMessage.Diagnostic(from, request.source(), reply.data());
                if (!clock.isShutdown()) {
                    clock.schedule(() -> send(answer), at, TimeUnit.MILLISECONDS);
                }
            }
        }

        private void send(DoipMessage message) {
            byte[] frame = DoipCodec.encode(message);
            try {
                synchronized (socket) {
                    socket.getOutputStream().write(frame);
                }
            } catch (IOException gone) {
                close();
            }
        }

        void close() {
            try {
                socket.close();
            } catch (IOException ignored) {
                // already as closed as it gets
            }
        }
    }
}
