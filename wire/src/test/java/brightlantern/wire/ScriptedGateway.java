package brightlantern.wire;

import brightlantern.wire.doip.DoipCodec;
import brightlantern.wire.doip.DoipMessage;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.locks.LockSupport;

/**
 * A gateway on a real socket that sends just what a test wrote down, right or wrong, frame by
 * frame.
 */
final class ScriptedGateway implements AutoCloseable {
    static final int TESTER = 0x0E80;
    static final int MODULE = 0x1010;

    /** What it does when a request comes. */
    interface Step {
        void act(Wire wire) throws IOException;
    }

    /** The socket, for whoever wants to send more than frames. */
    static final class Wire {
        private final OutputStream out;
        private final Socket socket;

        Wire(Socket socket) throws IOException {
            this.socket = socket;
            this.out = socket.getOutputStream();
        }

        void send(DoipMessage message) throws IOException {
            out.write(DoipCodec.encode(message));
        }

        void raw(byte... bytes) throws IOException {
            out.write(bytes);
        }

        /** An answer of the module. */
        void answer(int... bytes) throws IOException {
            send(new DoipMessage.Diagnostic(MODULE, TESTER, Bytes.of(bytes)));
        }

        void pause(long millis) {
            LockSupport.parkNanos(millis * 1_000_000);
        }

        void cut() throws IOException {
            socket.close();
        }
    }

    private final ServerSocket server;
    private final Thread thread = new Thread(this::serve, "scripted-gateway");
    private volatile Socket client = new Socket();
    private final Map<Bytes, List<Step>> script = new ConcurrentHashMap<>();
    private final List<Bytes> requests = new CopyOnWriteArrayList<>();
    private volatile int activation = 0x10;
    private volatile int nack = -1;
    private volatile boolean deaf;

    ScriptedGateway() throws IOException {
        server = new ServerSocket(0, 5, InetAddress.getByName("127.0.0.1"));
        thread.setDaemon(true);
        thread.start();
    }

    InetSocketAddress address() {
        return (InetSocketAddress) server.getLocalSocketAddress();
    }

    /** Routing activation is answered with this code; -1 for no answer. */
    ScriptedGateway activates(int code) {
        activation = code;
        return this;
    }

    /** Diagnostic messages are turned down with this code. */
    ScriptedGateway nacks(int code) {
        nack = code;
        return this;
    }

    /** It acknowledges nothing any more. */
    ScriptedGateway goesDeaf() {
        deaf = true;
        return this;
    }

    /** The next steps for a request, given in hexadecimal digits; the last one stays. */
    ScriptedGateway on(String request, Step... steps) {
        script.put(Bytes.hex(request), new ArrayList<>(List.of(steps)));
        return this;
    }

    List<Bytes> requests() {
        return List.copyOf(requests);
    }

    private void serve() {
        while (!server.isClosed()) {
            try (Socket socket = server.accept()) {
                client = socket;
                socket.setTcpNoDelay(true);
                talk(socket);
            } catch (IOException gone) {
                // the next tester may come
            }
        }
    }

    private void talk(Socket socket) throws IOException {
        Wire wire = new Wire(socket);
        InputStream in = socket.getInputStream();
        while (true) {
            DoipMessage message = DoipCodec.read(in);
            if (message instanceof DoipMessage.RoutingActivationRequest && activation >= 0) {
                wire.send(new DoipMessage.RoutingActivationResponse(TESTER, 0x1001, activation));
            } else if (message instanceof DoipMessage.Diagnostic asked && !deaf) {
                diagnose(wire, asked);
            }
        }
    }

    private void diagnose(Wire wire, DoipMessage.Diagnostic asked) throws IOException {
        requests.add(asked.data());
        if (nack >= 0) {
            wire.send(new DoipMessage.DiagnosticNack(asked.target(), TESTER, nack, Bytes.EMPTY));
            return;
        }
        wire.send(new DoipMessage.DiagnosticAck(asked.target(), TESTER, 0, Bytes.EMPTY));
        List<Step> steps = script.getOrDefault(asked.data(), List.of());
        if (!steps.isEmpty()) {
            (steps.size() > 1 ? steps.remove(0) : steps.get(0)).act(wire);
        }
    }

    /**
     * A wait for a tester that is being ended may still take one in; it is over only afterwards.
     */
    @Override
    public void close() throws IOException, InterruptedException {
        server.close();
        do {
            client.close();
            thread.interrupt();
            thread.join(10);
        } while (thread.isAlive());
    }
}
