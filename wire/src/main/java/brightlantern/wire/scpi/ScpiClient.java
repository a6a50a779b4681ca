package brightlantern.wire.scpi;

import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.WireFormatException;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;

/** A SCPI instrument on a TCP socket. One thread at a time. */
public final class ScpiClient implements AutoCloseable {
    /**
     * What instruments send for "overload" and for "not a number" (SCPI-1999 vol. 1, clause
     * 7.2.1.5).
     */
    /** What stands for infinity; 9.91E37 stands for no number (SCPI-1999 vol. 1, 7.2.1.4). */
    private static final double INFINITY = 9.9e37;

    private static final double NEAR = 1e-4;

    private final Socket socket = new Socket();
    private final InputStream in;

    /**
     * @throws WireException when the instrument is not reached
     */
    public ScpiClient(InetSocketAddress address, Duration wait) throws WireException {
        try {
            socket.connect(address, (int) wait.toMillis());
            socket.setSoTimeout((int) wait.toMillis());
            socket.setTcpNoDelay(true);
            in = new BufferedInputStream(socket.getInputStream());
        } catch (IOException unreachable) {
            close();
            throw new WireException(
                    "No instrument answers at "
                            + address.getHostString()
                            + ":"
                            + address.getPort()
                            + " ("
                            + unreachable.getMessage()
                            + ")",
                    unreachable);
        }
    }

    /** Sends a command and then asks the error queue, so that a refusal is not lost. */
    public synchronized void command(String line) throws WireException {
        send(line);
        String error = query("SYST:ERR?");
        if (!error.startsWith("0,") && !error.startsWith("+0,")) {
            throw new WireException("The instrument refused '" + line + "': " + error);
        }
    }

    /** Sends a query and returns its answer without the end of line. */
    public synchronized String query(String line) throws WireException {
        send(line);
        StringBuilder answer = new StringBuilder();
        try {
            while (true) {
                int c = in.read();
                if (c < 0) {
                    throw new WireException("The instrument closed the connection");
                }
                if (c == '\n') {
                    return answer.toString().trim();
                }
                if (answer.length() >= ScpiLine.MAX_LENGTH) {
                    throw new WireFormatException(
                            answer.length(), "the end of the line", "more characters");
                }
                answer.append((char) c);
            }
        } catch (SocketTimeoutException silent) {
            throw new SilenceException("The instrument did not answer '" + line + "'");
        } catch (WireException known) {
            throw known;
        } catch (IOException lost) {
            throw new WireException(
                    "The connection to the instrument was lost (" + lost.getMessage() + ")", lost);
        }
    }

    /**
     * Asks for a definite-length block (IEEE 488.2, clause 8.7.9): a hash, the number of digits of
     * its length, its length, and its bytes.
     *
     * @param most bytes that are taken
     * @throws WireFormatException when it is none, is longer, or ends too early
     */
    public synchronized byte[] block(String line, int most) throws WireException {
        send(line);
        try {
            int mark = in.read();
            int digits = in.read() - '0';
            if (mark != '#' || digits < 1 || digits > 9) {
                throw new WireFormatException(
                        0, "a block ('#', digits, length) in answer to '" + line + "'", "no block");
            }
            String length = new String(in.readNBytes(digits), StandardCharsets.US_ASCII);
            if (!length.matches("\\d+") || Integer.parseInt(length) > most) {
                throw new WireFormatException(
                        2, "a length up to " + most + " bytes", "'" + length + "'");
            }
            byte[] bytes = in.readNBytes(Integer.parseInt(length));
            if (bytes.length < Integer.parseInt(length)) {
                throw new WireFormatException(
                        bytes.length, length + " bytes", "the end of the connection");
            }
            if (in.read() != '\n') {
                throw new WireFormatException(
                        2 + digits + bytes.length, "the end of the line", "more bytes");
            }
            return bytes;
        } catch (SocketTimeoutException silent) {
            throw new SilenceException("The instrument did not send the whole of '" + line + "'");
        } catch (WireException known) {
            throw known;
        } catch (IOException lost) {
            throw new WireException(
                    "The connection to the instrument was lost (" + lost.getMessage() + ")", lost);
        }
    }

    /**
     * Asks for a number.
     *
     * @throws WireFormatException when the answer is no number
     * @throws WireException when the instrument is overloaded or has nothing to measure
     */
    public double number(String line) throws WireException {
        double value = numberOrOverload(line);
        if (Double.isInfinite(value)) {
            throw nothing(line);
        }
        return value;
    }

    /**
     * Asks for a number that may be larger than the instrument can tell.
     *
     * @return infinite for an overload
     * @throws WireFormatException when the answer is no number
     * @throws WireException when the instrument has nothing to measure
     */
    public double numberOrOverload(String line) throws WireException {
        String answer = query(line);
        double value;
        try {
            value = Double.parseDouble(answer);
        } catch (NumberFormatException not) {
            throw new WireFormatException(
                    0, "a number in answer to '" + line + "'", "'" + answer + "'");
        }
        if (Double.isNaN(value) || Math.abs(value) > INFINITY * (1 + NEAR)) {
            throw nothing(line);
        }
        return Math.abs(value) >= INFINITY * (1 - NEAR)
                ? Math.copySign(Double.POSITIVE_INFINITY, value)
                : value;
    }

    private static WireException nothing(String line) {
        return new WireException(
                "The instrument is overloaded or has nothing to measure ('" + line + "')");
    }

    private void send(String line) throws WireException {
        try {
            socket.getOutputStream().write((line + "\n").getBytes(StandardCharsets.US_ASCII));
        } catch (IOException lost) {
            throw new WireException(
                    "The connection to the instrument was lost (" + lost.getMessage() + ")", lost);
        }
    }

    @Override
    public void close() {
        try {
            socket.close();
        } catch (IOException ignored) {
            // a socket that will not close has nothing left to give
        }
    }
}
