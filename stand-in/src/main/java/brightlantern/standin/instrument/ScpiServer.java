package brightlantern.standin.instrument;

import brightlantern.wire.WireFormatException;
import brightlantern.wire.scpi.ScpiLine;
import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.Reader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * An instrument behind SCPI: the mandatory common commands of IEEE 488.2 (clause 10), {@code
 * SYSTem:ERRor?}; several commands in a line with semicolons between, a later one beside the one
 * before it in the tree (SCPI-1999, volume 1, clause 6.2.4). What else it knows is its {@link
 * Instrument}.
 */
public final class ScpiServer implements AutoCloseable {
    private final ServerSocket server = new ServerSocket();

    private final Thread listener = new Thread(this::accept, "stand-in-instrument");
    private final Set<Socket> clients = ConcurrentHashMap.newKeySet();
    private final Instrument instrument;

    /** Who commanded last. */
    private Socket latest;

    /**
     * @throws IOException when the port cannot be taken
     */
    public ScpiServer(InetAddress address, int port, Instrument instrument) throws IOException {
        this.instrument = instrument;
        server.setReuseAddress(true);
        server.bind(new InetSocketAddress(address, port));
        listener.setDaemon(true);
        listener.start();
    }

    /** The port that it has. */
    public int port() {
        return server.getLocalPort();
    }

    private void accept() {
        while (!server.isClosed()) {
            try {
                Socket client = server.accept();
                clients.add(client);
                Thread thread = new Thread(() -> serve(client), "stand-in-instrument-client");
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
        try (client) {
            converse(client);
        } catch (IOException gone) {
            // the other side hung up
        }
    }

    /** Until the other side hangs up; only then, and after it was tidied up, is it closed here. */
    private void converse(Socket client) throws IOException {
        StatusModel status = new StatusModel();
        try {
            client.setTcpNoDelay(true);
            BufferedReader in =
                    new BufferedReader(
                            new InputStreamReader(
                                    client.getInputStream(), StandardCharsets.ISO_8859_1));
            for (String line = line(in); line != null; line = line(in)) {
                byte[] answer = answers(line, status, client);
                if (answer.length > 0) {
                    client.getOutputStream().write(answer);
                }
            }
        } finally {
            clients.remove(client);
            left(client);
        }
    }

    /** What somebody left is laid down, unless another has taken it up already. */
    private synchronized void left(Socket client) {
        if (client.equals(latest)) {
            instrument.reset();
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

    /** Answers to the commands of a line, with semicolons between, and the end of the line. */
    private byte[] answers(String text, StatusModel status, Socket client) {
        ByteArrayOutputStream answers = new ByteArrayOutputStream();
        String branch = "";
        for (String command : text.split(";")) {
            String own = command.strip();
            if (own.isEmpty()) {
                continue;
            }
            boolean rooted = own.startsWith(":") || own.startsWith("*");
            String whole = rooted ? own.replaceFirst("^:", "") : branch + own;
            byte[] answer = answer(whole, status, client);
            if (answer.length > 0) {
                if (answers.size() > 0) {
                    answers.write(';');
                }
                answers.writeBytes(answer);
            }
            if (!own.startsWith("*")) {
                String header = whole.split("\\s", 2)[0];
                branch = header.substring(0, header.lastIndexOf(':') + 1);
            }
        }
        if (answers.size() > 0) {
            answers.write('\n');
        }
        return answers.toByteArray();
    }

    private synchronized byte[] answer(String text, StatusModel status, Socket client) {
        latest = client;
        ScpiLine line;
        try {
            line = ScpiLine.parse(text);
        } catch (WireFormatException bad) {
            status.error(-100, "Command error; " + bad.getMessage());
            return new byte[0];
        }
        if (line.header().startsWith("*")) {
            return Instrument.text(common(line, status));
        }
        if (line.is("SYSTem:ERRor?") || line.is("SYSTem:ERRor:NEXT?")) {
            return Instrument.text(status.nextError());
        }
        return instrument.answer(line, status);
    }

    /** The commands that every instrument knows (IEEE 488.2, clause 10). */
    private String common(ScpiLine line, StatusModel status) {
        switch (line.header().toUpperCase(Locale.ROOT)) {
            case "*IDN?":
                return instrument.identity();
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
                instrument.reset();
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
        clients.forEach(ScpiServer::closed);
    }

    private static void closed(Closeable socket) {
        try {
            socket.close();
        } catch (IOException ignored) {
            // a socket that will not close ends with the process
        }
    }
}
