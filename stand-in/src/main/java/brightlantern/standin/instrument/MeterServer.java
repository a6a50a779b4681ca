package brightlantern.standin.instrument;

import brightlantern.core.circuit.Load;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.scpi.ScpiLine;
import java.io.BufferedReader;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiConsumer;
import java.util.function.Function;

/**
 * A volt meter behind SCPI: the mandatory common commands of IEEE 488.2 (clause 10), {@code
 * ROUTe:CLOSe (@point)}, {@code ROUTe:CLOSe?}, {@code INPut:LOAD NOTHing|LAMP|BULB}, {@code
 * MEASure:VOLTage:DC?}, {@code SYSTem:ERRor?}; several in a line with semicolons between, a later
 * one beside the one before it in the tree (SCPI-1999, volume 1, clause 6.2.4). The black lead is
 * on battery minus.
 */
public final class MeterServer implements AutoCloseable {
    /** Usual port for raw SCPI sockets, registered with IANA. */
    public static final int PORT = 5025;

    private static final double GAIN_ERROR = 0.0008;
    private static final double NOISE_VOLTS = 0.002;

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
        StatusModel status = new StatusModel();
        try (client;
                BufferedReader in =
                        new BufferedReader(
                                new InputStreamReader(
                                        client.getInputStream(), StandardCharsets.ISO_8859_1))) {
            client.setTcpNoDelay(true);
            for (String line = line(in); line != null; line = line(in)) {
                String answer = answers(line, status);
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

    /**
     * The next line; null at the end.
     *
     * @throws IOException when it is longer than any command, so that nobody fills the memory
     */
    private static String line(Reader in) throws IOException {
        StringBuilder line = new StringBuilder();
        for (int c = in.read(); c >= 0; c = in.read()) {
            if (c == '\n') {
                return line.toString();
            }
            if (line.length() >= ScpiLine.MAX_LENGTH) {
                throw new IOException(
                        "A line has more than " + ScpiLine.MAX_LENGTH + " characters");
            }
            line.append((char) c);
        }
        return line.isEmpty() ? null : line.toString();
    }

    private synchronized void hang(String where, Load what) {
        point = where;
        load = what;
        hang.accept(where, what);
    }

    /** Answers to the commands of a line, with semicolons between. */
    private String answers(String text, StatusModel status) {
        List<String> answers = new ArrayList<>();
        String branch = "";
        for (String command : text.split(";")) {
            String own = command.strip();
            if (own.isEmpty()) {
                continue;
            }
            boolean rooted = own.startsWith(":") || own.startsWith("*");
            String whole = rooted ? own.replaceFirst("^:", "") : branch + own;
            String answer = answer(whole, status);
            if (!answer.isEmpty()) {
                answers.add(answer);
            }
            if (!own.startsWith("*")) {
                String header = whole.split("\\s", 2)[0];
                branch = header.substring(0, header.lastIndexOf(':') + 1);
            }
        }
        return String.join(";", answers);
    }

    private synchronized String answer(String text, StatusModel status) {
        ScpiLine line;
        try {
            line = ScpiLine.parse(text);
        } catch (WireFormatException bad) {
            status.error(-100, "Command error; " + bad.getMessage());
            return "";
        }
        if (line.header().startsWith("*")) {
            return common(line, status);
        } else if (line.is("SYSTem:ERRor?") || line.is("SYSTem:ERRor:NEXT?")) {
            return status.nextError();
        } else if (line.is("ROUTe:CLOSe?")) {
            return point.isEmpty() ? "(@)" : "(@" + point + ")";
        } else if (line.is("ROUTe:CLOSe")) {
            route(line, status);
        } else if (line.is("INPut:LOAD")) {
            load(line, status);
        } else if (line.is("MEASure:VOLTage:DC?") || line.is("MEASure:VOLTage?")) {
            return measure(status);
        } else {
            status.error(-113, "Undefined header; " + line.header());
        }
        return "";
    }

    /** The commands that every instrument knows (IEEE 488.2, clause 10). */
    private String common(ScpiLine line, StatusModel status) {
        switch (line.header().toUpperCase(Locale.ROOT)) {
            case "*IDN?":
                return "LARKSPUR YARD,STAND-IN METER,0001,1.0";
            case "*OPC?":
                return "1";
            case "*TST?":
                return "0";
            case "*ESR?":
                return String.valueOf(status.takeEvents());
            case "*ESE?":
                return String.valueOf(status.eventsEnabled());
            case "*SRE?":
                return String.valueOf(status.serviceEnabled());
            case "*STB?":
                return String.valueOf(status.statusByte());
            case "*ESE":
                mask(line, status).ifPresent(status::enableEvents);
                break;
            case "*SRE":
                mask(line, status).ifPresent(status::enableService);
                break;
            case "*RST":
                hang("", Load.NOTHING);
                break;
            case "*CLS":
                status.clear();
                break;
            case "*OPC":
                status.complete();
                break;
            case "*WAI":
                // nothing is ever under way
                break;
            default:
                status.error(-113, "Undefined header; " + line.header());
        }
        return "";
    }

    /** A register's value, 0 to 255. */
    private static OptionalInt mask(ScpiLine line, StatusModel status) {
        String given = line.parameters().isEmpty() ? "" : line.parameters().get(0);
        if (given.matches("\\d{1,3}") && Integer.parseInt(given) <= 255) {
            return OptionalInt.of(Integer.parseInt(given));
        }
        status.error(
                given.isEmpty() ? -109 : -222,
                (given.isEmpty() ? "Missing parameter" : "Data out of range; found " + given)
                        + ", expected 0 to 255");
        return OptionalInt.empty();
    }

    private void route(ScpiLine line, StatusModel status) {
        if (line.parameters().size() != 1) {
            status.error(-109, "Missing parameter; one point as (@name)");
        } else if (volts.apply(line.parameters().get(0)).isEmpty()) {
            status.error(-224, "Illegal parameter value; no point " + line.parameters().get(0));
        } else {
            hang(line.parameters().get(0), load);
        }
    }

    private void load(ScpiLine line, StatusModel status) {
        String name =
                line.parameters().isEmpty()
                        ? ""
                        : line.parameters().get(0).toUpperCase(Locale.ROOT);
        switch (name) {
            case "NOTH", "NOTHING" -> hang(point, Load.NOTHING);
            case "LAMP" -> hang(point, Load.LAMP);
            case "BULB" -> hang(point, Load.BULB);
            default ->
                    status.error(-224, "Illegal parameter value; expected NOTHing, LAMP or BULB");
        }
    }

    private String measure(StatusModel status) {
        OptionalDouble true_ = volts.apply(point);
        if (true_.isEmpty()) {
            status.error(-221, "Settings conflict; no point routed");
            return "9.91E37";
        }
        double shown = true_.getAsDouble() * (1 + GAIN_ERROR) + NOISE_VOLTS * random.nextGaussian();
        return String.format(Locale.ROOT, "%+.5E", shown);
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
