package brightlantern.wire.doip;

import brightlantern.wire.Bytes;
import brightlantern.wire.CancelledException;
import brightlantern.wire.NotThereException;
import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.transport.LogicalAddress;
import brightlantern.wire.transport.ModuleAddress;
import brightlantern.wire.transport.Transport;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * One activated TCP connection to a DoIP gateway, shared by all modules behind it.
 *
 * <p>A module has one mailbox. {@link #send} waits for the gateway's acknowledgement (ISO
 * 13400-2:2012, A_DoIP_Diagnostic Message time-out), {@link #receive} for the module's answer. When
 * the connection breaks every waiter is told at once.
 */
public final class DoipConnection implements Transport {
    /** Time-out for the acknowledgement of a diagnostic message, ISO 13400-2:2012 table 12. */
    public static final Duration ACKNOWLEDGE_WAIT = Duration.ofSeconds(2);

    private static final Duration DEAD_AFTER = Duration.ofSeconds(3);
    private static final int MOST_UNACKNOWLEDGED = 3;

    private final Socket socket;
    private final int testerAddress;
    private final Map<Integer, BlockingQueue<Object>> acks = new ConcurrentHashMap<>();
    private final Map<Integer, BlockingQueue<Object>> answers = new ConcurrentHashMap<>();
    private final BlockingQueue<Object> control = new LinkedBlockingQueue<>();
    private final AtomicInteger unacknowledged = new AtomicInteger();
    private volatile long heard = System.nanoTime();
    private volatile WireException broken;
    private int entityAddress;

    private DoipConnection(Socket socket, int testerAddress) {
        this.socket = socket;
        this.testerAddress = testerAddress;
    }

    /**
     * Connects and activates routing with the default activation type.
     *
     * @param testerAddress logical address of the tester, 0x0E00..0x0EFF for external ones
     * @throws WireException when the vehicle is not reached, stays silent or refuses
     */
    public static DoipConnection open(InetSocketAddress address, int testerAddress, Duration wait)
            throws WireException {
        Socket socket = new Socket();
        try {
            socket.setTcpNoDelay(true);
            socket.connect(address, (int) wait.toMillis());
        } catch (IOException unreachable) {
            closeQuietly(socket);
            throw new WireException(
                    "No DoIP gateway answers at "
                            + address.getHostString()
                            + ":"
                            + address.getPort()
                            + " ("
                            + unreachable.getMessage()
                            + ")",
                    unreachable);
        }
        DoipConnection connection = new DoipConnection(socket, testerAddress);
        Thread reader = new Thread(connection::readAll, "doip-" + address.getHostString());
        reader.setDaemon(true);
        reader.start();
        try {
            connection.activate(wait);
            return connection;
        } catch (WireException refused) {
            connection.close();
            throw refused;
        }
    }

    private void activate(Duration wait) throws WireException {
        write(new DoipMessage.RoutingActivationRequest(testerAddress, 0x00, Optional.empty()));
        Object answer = poll(control, wait, "routing activation");
        if (!(answer instanceof DoipMessage.RoutingActivationResponse response)) {
            throw new WireException("Expected an answer to routing activation, got " + answer);
        }
        if (!response.successful()) {
            throw new WireException(
                    "The vehicle refused routing activation: " + response.inWords());
        }
        entityAddress = response.entityAddress();
    }

    /** Logical address of the gateway that activated routing. */
    public int entityAddress() {
        return entityAddress;
    }

    @Override
    public boolean isOpen() {
        return broken == null && !socket.isClosed();
    }

    /**
     * Hands a request to the gateway and waits until it is acknowledged; older answers of the
     * module are dropped.
     */
    @Override
    public ModuleAddress module(int number) {
        return new LogicalAddress(number);
    }

    @Override
    public void send(ModuleAddress to, Bytes data) throws WireException {
        int target = number(to);
        BlockingQueue<Object> acknowledged = mailbox(acks, target);
        acknowledged.clear();
        mailbox(answers, target).clear();
        check();
        write(new DoipMessage.Diagnostic(testerAddress, target, data));
        Object answer;
        try {
            answer =
                    poll(
                            acknowledged,
                            ACKNOWLEDGE_WAIT,
                            "acknowledgement for module %04X".formatted(target));
            unacknowledged.set(0);
        } catch (SilenceException silent) {
            giveUpIfDead(silent);
            throw silent;
        }
        if (answer instanceof DoipMessage.DiagnosticNack nack) {
            if (nack.code() == 0x06) {
                throw new SilenceException("Module %04X: ".formatted(target) + nack.inWords());
            }
            if (nack.code() == 0x03) {
                throw new NotThereException("Module %04X: ".formatted(target) + nack.inWords());
            }
            throw new WireException("Module %04X: ".formatted(target) + nack.inWords());
        }
    }

    /**
     * A gateway acknowledges even what it cannot deliver. One that says nothing at all any more has
     * forgotten this connection, as after a restart: it is ended, so that the next one is made
     * anew.
     */
    private void giveUpIfDead(SilenceException silent) {
        if (unacknowledged.incrementAndGet() >= MOST_UNACKNOWLEDGED
                && System.nanoTime() - heard > DEAD_AFTER.toNanos()) {
            fail(
                    new WireException(
                            "The gateway has said nothing for "
                                    + DEAD_AFTER.toSeconds()
                                    + " s; the connection is made anew",
                            silent));
        }
    }

    /** Answers of a module that nobody waited for since it was asked the last time. */
    @Override
    public List<Bytes> unasked(ModuleAddress from) {
        List<Object> left = new ArrayList<>();
        mailbox(answers, number(from)).drainTo(left);
        return left.stream()
                .filter(DoipMessage.Diagnostic.class::isInstance)
                .map(m -> ((DoipMessage.Diagnostic) m).data())
                .toList();
    }

    /**
     * The next UDS answer of a module.
     *
     * @throws SilenceException when none comes in time
     */
    @Override
    public Bytes receive(ModuleAddress from, Duration wait) throws WireException {
        return ((DoipMessage.Diagnostic) poll(mailbox(answers, number(from)), wait, from.words()))
                .data();
    }

    /** Keeps nothing more of an address at which nobody is. */
    @Override
    public void forget(ModuleAddress address) {
        acks.remove(number(address));
        answers.remove(number(address));
    }

    private static int number(ModuleAddress address) {
        return ((LogicalAddress) address).number();
    }

    private static BlockingQueue<Object> mailbox(
            Map<Integer, BlockingQueue<Object>> boxes, int address) {
        return boxes.computeIfAbsent(address, a -> new LinkedBlockingQueue<>());
    }

    private void check() throws WireException {
        if (broken != null) {
            throw new WireException(broken.getMessage(), broken);
        }
    }

    private Object poll(BlockingQueue<Object> queue, Duration wait, String what)
            throws WireException {
        try {
            long end = System.nanoTime() + wait.toNanos();
            while (true) {
                Object message =
                        queue.poll(Math.max(0, end - System.nanoTime()), TimeUnit.NANOSECONDS);
                if (message instanceof WireException) {
                    check();
                }
                if (message == null) {
                    check();
                    throw new SilenceException(
                            "No answer within " + wait.toMillis() + " ms: " + what);
                }
                return message;
            }
        } catch (InterruptedException cancelled) {
            Thread.currentThread().interrupt();
            throw new CancelledException("Cancelled while waiting for " + what);
        }
    }

    private void write(DoipMessage message) throws WireException {
        byte[] frame = DoipCodec.encode(message);
        try {
            synchronized (socket) {
                socket.getOutputStream().write(frame);
            }
        } catch (IOException lost) {
            fail(
                    new WireException(
                            "The connection to the vehicle was lost (" + lost.getMessage() + ")",
                            lost));
            check();
        }
    }

    private void readAll() {
        try {
            InputStream in = new BufferedInputStream(socket.getInputStream());
            while (true) {
                DoipMessage message = DoipCodec.read(in);
                heard = System.nanoTime();
                if (message instanceof DoipMessage.Diagnostic m) {
                    mailbox(answers, m.source()).add(m);
                } else if (message instanceof DoipMessage.DiagnosticAck m) {
                    mailbox(acks, m.source()).add(m);
                } else if (message instanceof DoipMessage.DiagnosticNack m) {
                    mailbox(acks, m.source()).add(m);
                } else if (message instanceof DoipMessage.AliveCheckRequest) {
                    write(new DoipMessage.AliveCheckResponse(testerAddress));
                } else if (!(message instanceof DoipMessage.Unknown)) {
                    control.add(message);
                }
            }
        } catch (IOException ended) {
            fail(
                    new WireException(
                            "The connection to the vehicle was lost: " + ended.getMessage(),
                            ended));
        }
    }

    private void fail(WireException cause) {
        if (broken == null) {
            broken = cause;
        }
        closeQuietly(socket);
        acks.values().forEach(queue -> queue.add(cause));
        answers.values().forEach(queue -> queue.add(cause));
        control.add(cause);
    }

    private static void closeQuietly(Socket socket) {
        try {
            socket.close();
        } catch (IOException ignored) {
            // nothing more can be done for a socket that will not even close
        }
    }

    @Override
    public void close() {
        fail(new WireException("The connection was closed on this side"));
    }
}
