package brightlantern.core.circuit;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/**
 * How long circuits take, and whether an independent solver agrees on random ones. A line a figure;
 * milliseconds are medians of this machine, the solver is run beside ours in the same run.
 */
class CircuitBench {
    private static final double SUPPLY = 12.4;
    private static final double WIRE_OHM = 0.02;
    private static final int STATES = 20;
    private static final int TIMES = 15;

    /** The compiler has then done what it will do. */
    private static final long WARM_NANOS = 1_000_000_000L;

    private static final double[] SIZES = {
        0.05, 0.1, 0.3, 1, 3, 10, 30, 100, 300, 1e3, 1e4, 1e5, Fault.Series.OPEN_OHM
    };

    private final Random random = new Random(Long.getLong("seed", 20261130));

    private static void figure(String name, double value, double wanted, String unit) {
        System.out.printf(
                Locale.ROOT,
                "bench: circuits %s: %.4g%s (wanted %.4g) %s%n",
                name,
                value,
                unit,
                wanted,
                value <= wanted ? "meets" : "misses");
    }

    private static double millis(Runnable work) {
        long warm = System.nanoTime() + WARM_NANOS;
        while (System.nanoTime() < warm) {
            work.run();
        }
        double[] took = new double[TIMES];
        for (int i = 0; i < TIMES; i++) {
            long began = System.nanoTime();
            work.run();
            took[i] = (System.nanoTime() - began) / 1e6;
        }
        Arrays.sort(took);
        return took[TIMES / 2];
    }

    /** A tree of wires from battery plus, with lamps and heaters between it and the earths. */
    private Circuit drawn(int components) {
        List<ProbePoint> points = new ArrayList<>();
        List<Segment> segments = new ArrayList<>();
        List<Consumer> consumers = new ArrayList<>();
        point(points, Circuit.PLUS, "supply");
        point(points, Circuit.MINUS, "earth");
        List<String> fed = new ArrayList<>(List.of(Circuit.PLUS));
        List<String> earthed = new ArrayList<>(List.of(Circuit.MINUS));
        while (segments.size() + consumers.size() < components) {
            int n = segments.size() + consumers.size();
            if (n % 4 == 3) {
                ConsumerKind kind = n % 8 == 3 ? ConsumerKind.LAMP : ConsumerKind.HEATER;
                consumers.add(
                        new Consumer(
                                "C" + n,
                                "C" + n,
                                kind,
                                any(fed),
                                any(earthed),
                                2 + 40 * random.nextDouble()));
            } else {
                List<String> side = n % 4 == 2 ? earthed : fed;
                String from = any(side);
                String to = "N" + n;
                point(points, to, side == fed ? "supply" : "earth");
                side.add(to);
                segments.add(
                        new Segment(
                                "S" + n,
                                "S" + n,
                                SegmentKind.WIRE,
                                from,
                                to,
                                WIRE_OHM * (0.2 + random.nextDouble())));
            }
        }
        return new Circuit(
                "drawn", "Drawn", "", points, segments, null, consumers, null, null, null, null);
    }

    private static void point(List<ProbePoint> points, String id, String side) {
        points.add(new ProbePoint(id, id, side, 0, 0, 1, ""));
    }

    private String any(List<String> nodes) {
        // near the end as often as anywhere: trees of vehicles are deep
        int from = random.nextBoolean() ? 0 : nodes.size() / 2;
        return nodes.get(from + random.nextInt(nodes.size() - from));
    }

    @Test
    void oneStateAndHowItGrows() {
        Map<Integer, Double> took = new HashMap<>();
        for (int n : new int[] {250, 500, 1000}) {
            CircuitModel model = new CircuitModel(drawn(n));
            took.put(n, millis(() -> model.solve(OperatingState.idle(SUPPLY), List.of())));
        }
        figure("one state of 500 components solved", took.get(500), 5, " ms");
        figure("1000 components against 500", took.get(1000) / took.get(500), 4, " times");
    }

    /** The circuits of a vehicle as they are: sheets that meet in fuses and earths. */
    @Test
    void allFaultsOfTheLargestVehicle() {
        VehicleDescription largest =
                Vehicles.all()
                        .map(Vehicles::named)
                        .max(Comparator.comparingInt(d -> parts(d.circuits())))
                        .orElseThrow();
        long[] predictions = {0};
        double[] sum = {0};
        double took =
                millis(
                        () -> {
                            predictions[0] = 0;
                            largest.circuits().forEach(c -> every(c, predictions, sum));
                        });
        figure(
                String.format(
                        Locale.ROOT,
                        "%d components of a vehicle, all faults at %d sizes in up to %d states, %d predictions",
                        parts(largest.circuits()),
                        SIZES.length,
                        STATES,
                        predictions[0]),
                took * 2.6e6 / predictions[0],
                300,
                " ms for 2.6 million");
    }

    private static int parts(List<Circuit> circuits) {
        return circuits.stream().mapToInt(c -> c.components().size()).sum();
    }

    private static void every(Circuit c, long[] predictions, double[] sum) {
        List<OperatingState> states = new ArrayList<>(List.of(OperatingState.idle(SUPPLY)));
        c.settings().forEach(s -> states.add(states.get(0).moving(Set.of(s.id()))));
        for (ProbePoint p : c.points()) {
            if (p.canBeProbed() && states.size() < STATES) {
                states.add(states.get(0).loaded(p.id(), Load.LAMP));
            }
        }
        List<String> points = c.points().stream().map(ProbePoint::id).toList();
        for (OperatingState state : states) {
            FaultTable table = new FaultTable(c, state);
            for (Component part : c.components()) {
                for (double size : SIZES) {
                    Voltages volts = table.with(Optional.of(new Fault.Series(part.id(), size)));
                    for (String p : points) {
                        sum[0] += volts.at(p);
                    }
                    predictions[0] += points.size();
                }
            }
        }
    }

    /** Against ngspice, where it is installed: fifty netlists with lamps. */
    @Test
    void anIndependentSolverAgrees() throws IOException, InterruptedException {
        if (run(List.of("ngspice", "--version")).isEmpty()) {
            System.out.println("bench: circuits against ngspice: it is not installed (misses)");
            return;
        }
        double worst = 0;
        double ours = 0;
        double theirs = 0;
        for (int i = 0; i < 50; i++) {
            Circuit c = drawn(40 + random.nextInt(160));
            CircuitModel model = new CircuitModel(c);
            OperatingState idle = OperatingState.idle(SUPPLY);
            Map<String, Double> mine = model.solve(idle, List.of()).volts();
            ours += millis(() -> model.solve(idle, List.of()));
            Map<String, Double> other = spice(c, 1);
            for (String point : mine.keySet()) {
                double off = Math.abs(mine.get(point) - other.get(point)) / SUPPLY;
                worst = Math.max(worst, off);
            }
            theirs += (seconds(c, 101) - seconds(c, 1)) / 100 * 1000;
        }
        figure("against ngspice, furthest apart of 50 netlists", 100 * worst, 0.1, " %");
        figure("against ngspice, time of one solution", ours / theirs, 1, " times its own");
    }

    private static double seconds(Circuit c, int times) throws IOException, InterruptedException {
        long began = System.nanoTime();
        spice(c, times);
        return (System.nanoTime() - began) / 1e9;
    }

    private static Map<String, Double> spice(Circuit c, int times)
            throws IOException, InterruptedException {
        Path file = Files.createTempFile("drawn", ".cir");
        Map<String, String> named =
                c.points().stream()
                        .map(ProbePoint::id)
                        .collect(
                                Collectors.toMap(
                                        id -> id,
                                        id ->
                                                id.equals(Circuit.MINUS)
                                                        ? "0"
                                                        : id.equals(Circuit.PLUS)
                                                                ? "plus"
                                                                : id.toLowerCase(Locale.ROOT)));
        try {
            Files.write(file, netlist(c, named, times));
            Map<String, Double> volts = new HashMap<>();
            for (String line : run(List.of("ngspice", "-b", file.toString()))) {
                String[] halves = line.trim().split("\\s*=\\s*");
                named.forEach(
                        (id, name) -> {
                            if (halves.length == 2 && halves[0].equals("v(" + name + ")")) {
                                volts.put(id, Double.parseDouble(halves[1]));
                            }
                        });
            }
            volts.put(Circuit.MINUS, 0.0);
            return volts;
        } finally {
            Files.delete(file);
        }
    }

    private static List<String> netlist(Circuit c, Map<String, String> named, int times) {
        List<String> lines = new ArrayList<>(List.of("drawn", "Vs plus 0 " + SUPPLY));
        for (Segment s : c.segments()) {
            lines.add("R" + s.id() + " " + between(s, named) + " " + s.ohm());
        }
        for (Consumer l : c.consumers()) {
            String nodes = between(l, named);
            String across = "v(" + nodes.replace(" ", ",") + ")";
            lines.add(
                    l.kind() == ConsumerKind.LAMP
                            ? "B%s %s I=%s/(%s*max(0.2,min(1.4142135624,sqrt(abs(%s)/12))))"
                                    .formatted(l.id(), nodes, across, l.ohm(), across)
                            : "R" + l.id() + " " + nodes + " " + l.ohm());
        }
        lines.addAll(List.of(".options gmin=1e-12 reltol=1e-6", ".control", "repeat " + times));
        lines.addAll(List.of("op", "end"));
        named.values().stream()
                .filter(n -> !n.equals("0"))
                .forEach(n -> lines.add("print v(" + n + ")"));
        lines.addAll(List.of("quit", ".endc", ".end"));
        return lines;
    }

    private static String between(Component part, Map<String, String> named) {
        return named.get(part.from()) + " " + named.get(part.to());
    }

    private static List<String> run(List<String> command) throws InterruptedException {
        try {
            Process its = new ProcessBuilder(command).redirectErrorStream(true).start();
            List<String> lines = new String(its.getInputStream().readAllBytes()).lines().toList();
            its.waitFor();
            return lines;
        } catch (IOException none) {
            return List.of();
        }
    }
}
