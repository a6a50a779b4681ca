package brightlantern.app;

import brightlantern.app.demo.DemoLauncher;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * What was asked for at the start, checked before anything else is begun: whoever mistypes a port
 * must not wait for a database first.
 *
 * @param settings name → value, as the application takes them
 */
record Options(Map<String, Object> settings) {
    static final String DATA = "lantern.data";
    static final String VEHICLES = "lantern.vehicles";
    static final String ADDRESS = "server.address";
    static final String PORT = "server.port";
    static final String FIND = "lantern.find";
    static final String DEMO = "lantern.demo";
    private static final String CHECK = "lantern.check";
    private static final String TLS = "lantern.tls";
    private static final String RESTORE = "lantern.restore";

    private static final Map<String, String> NAMES =
            Map.of(
                    "--data", DATA,
                    "--vehicles", VEHICLES,
                    "--bind", ADDRESS,
                    "--port", PORT,
                    "--find", FIND,
                    "--tls", TLS,
                    "--restore", RESTORE,
                    "--workshop", "lantern.workshop");

    /**
     * Reads what was typed, as {@code --name=value} or {@code --name value}; the last one of a name
     * counts.
     *
     * @throws IllegalArgumentException in a sentence for whoever typed it
     */
    static Options parse(List<String> args) {
        Map<String, Object> settings = new LinkedHashMap<>();
        settings.put(DATA, "data");
        settings.put(VEHICLES, "vehicles");
        settings.put(ADDRESS, "127.0.0.1");
        settings.put(PORT, "8640");
        Iterator<String> rest = args.iterator();
        while (rest.hasNext()) {
            String arg = rest.next();
            if (arg.equals("--check")) {
                settings.put(CHECK, "true");
                continue;
            }
            if (arg.equals("--demo")) {
                settings.put(DEMO, "true");
                settings.putIfAbsent("lantern.workshop", DemoLauncher.WORKSHOP);
                settings.put("lantern.announcements", DemoLauncher.ANNOUNCED_TO);
                continue;
            }
            int equals = arg.indexOf('=');
            String name = equals < 0 ? arg : arg.substring(0, equals);
            if (!NAMES.containsKey(name)) {
                throw new IllegalArgumentException(
                        "Unknown option '"
                                + arg
                                + "'. Expected --data, --port, --bind, --vehicles, --find, --tls, --restore or --workshop.");
            }
            if (equals < 0 && !rest.hasNext()) {
                throw new IllegalArgumentException(
                        "Option " + name + ": expected a value after it.");
            }
            settings.put(NAMES.get(name), equals < 0 ? rest.next() : arg.substring(equals + 1));
        }
        return new Options(settings);
    }

    private String text(String name) {
        return String.valueOf(settings.getOrDefault(name, "")).trim();
    }

    Path data() {
        return Path.of(text(DATA)).toAbsolutePath();
    }

    /** The certificate that was asked for: a file, or that one is made; empty for none. */
    Optional<String> tls() {
        return Optional.of(text(TLS)).filter(t -> !t.isEmpty());
    }

    /** A copy of a database that is to be brought back; empty for none. */
    Optional<Path> restore() {
        return Optional.of(text(RESTORE)).filter(t -> !t.isEmpty()).map(Path::of);
    }

    boolean demo() {
        return settings.containsKey(DEMO);
    }

    /** Whether the descriptions are only to be checked. */
    boolean check() {
        return settings.containsKey(CHECK);
    }

    Path descriptions() {
        return Path.of(text(VEHICLES));
    }

    /** What cannot be, each in a sentence; empty when it may start. */
    List<String> mistakes() {
        List<String> mistakes = new ArrayList<>();
        vehicles().ifPresent(mistakes::add);
        if (check()) {
            return mistakes;
        }
        data(mistakes);
        Optional<InetAddress> address = bind(mistakes);
        port(mistakes, address);
        if (demo()) {
            DemoLauncher.clash().ifPresent(mistakes::add);
        }
        for (String one : text(FIND).split(",")) {
            if (!one.isBlank()) {
                unknownHost(one.trim())
                        .ifPresent(
                                why ->
                                        mistakes.add(
                                                "Option --find: '"
                                                        + one.trim()
                                                        + "' "
                                                        + why
                                                        + "."));
            }
        }
        return mistakes;
    }

    private Optional<String> vehicles() {
        Path folder = Path.of(text(VEHICLES));
        if (!Files.isDirectory(folder)) {
            return Optional.of("Option --vehicles: there is no folder '" + folder + "'.");
        }
        try (Stream<Path> inside = Files.list(folder)) {
            return inside.anyMatch(f -> Files.exists(f.resolve("vehicle.yaml")))
                    ? Optional.empty()
                    : Optional.of(
                            "Option --vehicles: '"
                                    + folder
                                    + "' holds no description; expected a folder with a vehicle.yaml in it.");
        } catch (IOException unreadable) {
            return Optional.of("Option --vehicles: '" + folder + "' cannot be read.");
        }
    }

    private void data(List<String> mistakes) {
        Path folder = data();
        try {
            Files.createDirectories(folder);
            if (!Files.isWritable(folder)) {
                mistakes.add("Option --data: nothing can be written into '" + folder + "'.");
            }
        } catch (IOException unusable) {
            mistakes.add(
                    "Option --data: '"
                            + folder
                            + "' cannot be used as a folder ("
                            + unusable.getClass().getSimpleName()
                            + ").");
        }
    }

    private Optional<InetAddress> bind(List<String> mistakes) {
        Optional<String> unknown = unknownHost(text(ADDRESS));
        if (unknown.isPresent()) {
            mistakes.add("Option --bind: '" + text(ADDRESS) + "' " + unknown.get() + ".");
            return Optional.empty();
        }
        try {
            return Optional.of(InetAddress.getByName(text(ADDRESS)));
        } catch (UnknownHostException gone) {
            mistakes.add("Option --bind: '" + text(ADDRESS) + "' is no address.");
            return Optional.empty();
        }
    }

    private void port(List<String> mistakes, Optional<InetAddress> address) {
        int port;
        try {
            port = Integer.parseInt(text(PORT));
        } catch (NumberFormatException letters) {
            port = -1;
        }
        if (port < 0 || port > 65535) {
            mistakes.add(
                    "Option --port: expected a number from 1 to 65535, found '"
                            + text(PORT)
                            + "'.");
            return;
        }
        if (address.isEmpty()) {
            return;
        }
        try (ServerSocket free = new ServerSocket()) {
            free.setReuseAddress(true);
            free.bind(new InetSocketAddress(address.get(), port));
        } catch (IOException taken) {
            mistakes.add(
                    "Port "
                            + port
                            + " of "
                            + text(ADDRESS)
                            + " cannot be had ("
                            + taken.getMessage()
                            + "). Choose another with --port, or look what runs there.");
        }
    }

    /** Why a text is no host; numbers are looked at without asking any network. */
    private static Optional<String> unknownHost(String host) {
        if (host.matches("[0-9.]+")) {
            boolean four = host.matches("(\\d{1,3}\\.){3}\\d{1,3}");
            boolean small =
                    four
                            && Stream.of(host.split("\\."))
                                    .mapToInt(Integer::parseInt)
                                    .allMatch(n -> n <= 255);
            return small
                    ? Optional.empty()
                    : Optional.of("is no address: expected four numbers up to 255");
        }
        if (!host.matches("[A-Za-z0-9.:_%-]+")) {
            return Optional.of("is no host name or address");
        }
        try {
            InetAddress.getByName(host);
            return Optional.empty();
        } catch (UnknownHostException unknown) {
            return Optional.of("is a name that nobody knows here");
        }
    }

    /** A word of warning when others can reach the pages; empty when none can. */
    Optional<String> warning() {
        try {
            return tls().isPresent() || InetAddress.getByName(text(ADDRESS)).isLoopbackAddress()
                    ? Optional.empty()
                    : Optional.of(
                            "Warning: the pages can be reached from other machines at "
                                    + text(ADDRESS)
                                    + ", and what goes over the network, passwords among it, is not encrypted. Add --tls=made or --tls=FILE, or use it only in a network that you trust.");
        } catch (UnknownHostException unknown) {
            return Optional.empty();
        }
    }
}
