package brightlantern.standin.instrument;

import brightlantern.core.circuit.Load;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.scpi.ScpiLine;
import java.io.BufferedReader;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;
import java.util.function.Function;

/**
 * A volt meter behind SCPI: {@code *IDN?}, {@code *RST}, {@code *CLS}, {@code ROUTe:CLOSe
 * (@point)}, {@code ROUTe:CLOSe?}, {@code INPut:LOAD NOTHing|LAMP|BULB}, {@code
 * MEASure:VOLTage:DC?}, {@code SYSTem:ERRor?}. The black lead is on battery minus.
 */
public final class MeterServer implements AutoCloseable {
    /** Usual port for raw SCPI sockets, registered with IANA. */
    public static final int PORT = 5025;

    private static final double GAIN_ERROR = 0.0008;
    private static final double NOISE_VOLTS = 0.002;
    private static final int QUEUE = 20;

    private final ServerSocket server = new ServerSocket();
    private final Thread listener = new Thread(this::accept, "stand-in-meter");
    private final Set<Socket> clients = ConcurrentHashMap.newKeySet();
    private final Function<String, OptionalDouble> volts;
    private final BiConsumer<String, Load> hang;
    private final Random random = new Random(7);
    private String point = "";
    private Load load = Load.NOTHING;

    /**
     * @param volts reads a point of the harness
     * @param hang hangs a load on a point
     */
    public MeterServer(
            InetAddress address,
            Function<String, OptionalDouble> volts,
            BiConsumer<String, Load> hang)
            throws IOException {
        this.volts = volts;
        this.hang = hang;
        server.setReuseAddress(true);
        server.bind(new InetSocketAddress(address, PORT));
        listener.setDaemon(true);
        listener.start();
    }

    private void accept() {
        while (!server.isClosed()) {
            try {
                Socket client = server.accept();
                clients.add(client);
                Thread thread = new Thread(() -> serve(client), "stand-in-meter-client");
                thread.setDaemon(true);
                thread.start();
            } catch (IOException closed) {
                if (server.isClosed()) {
                    return;
                }
            }
        }
    }

    private void serve(Socket client) {
        Deque<String> errors = new ArrayDeque<>();
        try (client;
                BufferedReader in =
                        new BufferedReader(
                                new InputStreamReader(
                                        client.getInputStream(), StandardCharsets.ISO_8859_1))) {
            client.setTcpNoDelay(true);
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                String answer = line.isBlank() ? "" : answer(line, errors);
                if (!answer.isEmpty()) {
                    client.getOutputStream()
                            .write((answer + "\n").getBytes(StandardCharsets.ISO_8859_1));
                }
            }
        } catch (IOException gone) {
            // the other side hung up
        } finally {
            clients.remove(client);
            hang("", Load.NOTHING);
        }
    }

    private synchronized void hang(String where, Load what) {
        point = where;
        load = what;
        hang.accept(where, what);
    }

    private synchronized String answer(String text, Deque<String> errors) {
        ScpiLine line;
        try {
            line = ScpiLine.parse(text);
        } catch (WireFormatException bad) {
            error(errors, "-100,\"Command error; " + bad.getMessage().replace('"', '\'') + "\"");
            return "";
        }
        if (line.is("*IDN?")) {
            return "LARKSPUR YARD,STAND-IN METER,0001,1.0";
        } else if (line.is("*RST")) {
            hang("", Load.NOTHING);
        } else if (line.is("*CLS")) {
            errors.clear();
        } else if (line.is("SYSTem:ERRor?") || line.is("SYSTem:ERRor:NEXT?")) {
            return errors.isEmpty() ? "0,\"No error\"" : errors.poll();
        } else if (line.is("ROUTe:CLOSe?")) {
            return point.isEmpty() ? "(@)" : "(@" + point + ")";
        } else if (line.is("ROUTe:CLOSe")) {
            route(line, errors);
        } else if (line.is("INPut:LOAD")) {
            load(line, errors);
        } else if (line.is("MEASure:VOLTage:DC?") || line.is("MEASure:VOLTage?")) {
            return measure(errors);
        } else {
            error(errors, "-113,\"Undefined header; " + line.header() + "\"");
        }
        return "";
    }

    private void route(ScpiLine line, Deque<String> errors) {
        if (line.parameters().size() != 1) {
            error(errors, "-109,\"Missing parameter; one point as (@name)\"");
        } else if (volts.apply(line.parameters().get(0)).isEmpty()) {
            error(
                    errors,
                    "-224,\"Illegal parameter value; no point " + line.parameters().get(0) + "\"");
        } else {
            hang(line.parameters().get(0), load);
        }
    }

    private void load(ScpiLine line, Deque<String> errors) {
        String name =
                line.parameters().isEmpty()
                        ? ""
                        : line.parameters().get(0).toUpperCase(Locale.ROOT);
        switch (name) {
            case "NOTH", "NOTHING" -> hang(point, Load.NOTHING);
            case "LAMP" -> hang(point, Load.LAMP);
            case "BULB" -> hang(point, Load.BULB);
            default ->
                    error(
                            errors,
                            "-224,\"Illegal parameter value; expected NOTHing, LAMP or BULB\"");
        }
    }

    private String measure(Deque<String> errors) {
        OptionalDouble true_ = volts.apply(point);
        if (true_.isEmpty()) {
            error(errors, "-221,\"Settings conflict; no point routed\"");
            return "9.91E37";
        }
        double shown = true_.getAsDouble() * (1 + GAIN_ERROR) + NOISE_VOLTS * random.nextGaussian();
        return String.format(Locale.ROOT, "%+.5E", shown);
    }

    private static void error(Deque<String> errors, String error) {
        if (errors.size() >= QUEUE) {
            errors.pollLast();
            errors.add("-350,\"Queue overflow\"");
        } else {
            errors.add(error);
        }
    }

    @Override
    public void close() {
        closed(server);
        try {
            // the port is free only once the thread that waits on it has let go
            listener.join(2000);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
        // whoever came in last is among them now
        clients.forEach(MeterServer::closed);
    }

    private static void closed(Closeable socket) {
        try {
            socket.close();
        } catch (IOException ignored) {
            // a socket that will not close ends with the process
        }
    }
}
