package brightlantern.core.code;

import brightlantern.core.signal.HeadValues;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Value;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;

/**
 * When codes came: freeze frames of all of them put together by the distance at which they were
 * taken, and what those occasions had in common.
 *
 * @param occasions in the order of the distance
 * @param common what was alike on every occasion; empty with fewer than two
 */
public record Occasions(List<Occasion> occasions, List<Common> common) {
    /** Frames closer together than this belong to one occasion. */
    private static final double APART_KM = 1.0;

    public Occasions {
        occasions = List.copyOf(occasions);
        common = List.copyOf(common);
    }

    /**
     * @param km distance at which it began
     * @param clock seconds since 1970, where a frame tells
     */
    public record Occasion(double km, OptionalDouble clock, List<StoredCode> codes) {
        public Occasion {
            codes = List.copyOf(codes);
        }
    }

    /**
     * A value that read alike on every occasion.
     *
     * @param text one reading, or the least and the most
     */
    public record Common(String name, String text) {}

    private record Taken(double km, StoredCode code, StoredCode.Frame frame) {}

    /**
     * @param clockId the value that holds the time in a frame
     */
    public static Occasions of(List<StoredCode> codes, Signals signals, String clockId) {
        String odometer = signals.live().map(HeadValues::odometer).orElse("");
        List<Taken> taken = new ArrayList<>();
        for (StoredCode code : codes) {
            for (StoredCode.Frame frame : code.frames()) {
                OptionalDouble km = frame.value(odometer);
                if (km.isPresent() && Double.isFinite(km.getAsDouble())) {
                    taken.add(new Taken(km.getAsDouble(), code, frame));
                }
            }
        }
        taken.sort(Comparator.comparingDouble(Taken::km));
        List<List<Taken>> groups = new ArrayList<>();
        for (Taken one : taken) {
            List<Taken> last = groups.isEmpty() ? List.of() : groups.get(groups.size() - 1);
            if (last.isEmpty() || one.km() - last.get(last.size() - 1).km() > APART_KM) {
                groups.add(new ArrayList<>());
            }
            groups.get(groups.size() - 1).add(one);
        }
        List<Occasion> occasions =
                groups.stream()
                        .map(
                                g ->
                                        new Occasion(
                                                g.get(0).km(),
                                                g.stream()
                                                        .map(t -> t.frame().value(clockId))
                                                        .filter(OptionalDouble::isPresent)
                                                        .findFirst()
                                                        .orElse(OptionalDouble.empty()),
                                                List.copyOf(
                                                        new LinkedHashSet<>(
                                                                g.stream()
                                                                        .map(Taken::code)
                                                                        .toList()))))
                        .toList();
        return new Occasions(occasions, common(groups, signals, Set.of(odometer, clockId)));
    }

    private static List<Common> common(
            List<List<Taken>> groups, Signals signals, Set<String> without) {
        if (groups.size() < 2) {
            return List.of();
        }
        Map<String, Set<Integer>> seenIn = new TreeMap<>();
        Map<String, List<Double>> readings = new LinkedHashMap<>();
        for (int i = 0; i < groups.size(); i++) {
            for (Taken one : groups.get(i)) {
                for (Map.Entry<String, Double> value : one.frame().values().entrySet()) {
                    if (!without.contains(value.getKey()) && Double.isFinite(value.getValue())) {
                        seenIn.computeIfAbsent(value.getKey(), k -> new LinkedHashSet<>()).add(i);
                        readings.computeIfAbsent(value.getKey(), k -> new ArrayList<>())
                                .add(value.getValue());
                    }
                }
            }
        }
        List<Common> common = new ArrayList<>();
        readings.forEach(
                (id, all) ->
                        signals.value(id)
                                .filter(v -> seenIn.get(id).size() == groups.size())
                                .filter(v -> FrameComparison.alike(v, all))
                                .ifPresent(v -> common.add(new Common(v.name(), text(v, all)))));
        return common;
    }

    private static String text(Value value, List<Double> all) {
        String least = Scaling.show(value, all.stream().mapToDouble(x -> x).min().orElseThrow());
        String most = Scaling.show(value, all.stream().mapToDouble(x -> x).max().orElseThrow());
        String unit = value.isState() || value.show().isEmpty() ? "" : " " + value.show();
        return least.equals(most) ? least + unit : least + " to " + most + unit;
    }
}
