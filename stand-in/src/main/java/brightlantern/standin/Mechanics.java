package brightlantern.standin;

import brightlantern.core.description.OrEmpty;
import brightlantern.standin.plant.EngineSpec;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Systems of a vehicle that are not electrical, as files of this module's resources tell: nothing
 * of it is in reach of the side that diagnoses.
 *
 * @param failures what can break in them
 * @param monitors what their modules watch, whatever is broken
 * @param notices what a driver notices of them
 * @param measures what can be measured at them by hand
 */
record Mechanics(
        List<Failing> failures,
        List<Blueprint.Monitor> monitors,
        List<Notice> notices,
        List<Measure> measures) {
    /** The part of whatever no module watches. */
    static final String GEAR = "gear";

    Mechanics {
        failures = OrEmpty.list(failures);
        monitors = OrEmpty.list(monitors);
        notices = OrEmpty.list(notices);
        measures = OrEmpty.list(measures);
    }

    /**
     * Something that can break.
     *
     * @param repair id of the repair that mends it; its own id when nothing is said
     * @param common how often it happens, relative to others of the same vehicle
     * @param least and most size, in the unit of its modes
     * @param stood whether it shows only after the vehicle stood for some days
     * @param at where it acts; on all of them with the same size
     */
    record Failing(
            String id,
            String repair,
            String name,
            double common,
            double least,
            double most,
            boolean stood,
            List<At> at) {
        Failing {
            repair = OrEmpty.text(repair).isEmpty() ? id : repair;
        }
    }

    /**
     * Where something that breaks acts.
     *
     * @param part in whose plant; one that a vehicle does not have is left out
     * @param of which of several, such as a cylinder; empty where there is one only
     * @param whole the size of a part that is whole
     * @param size the size here; 0 for that of the failure
     */
    record At(String part, String mode, String of, double whole, double size) {
        At {
            of = OrEmpty.text(of);
        }
    }

    /**
     * Something that is measured by hand.
     *
     * @param of the mode of the gear that it measures
     * @param says what is seen, with a place for the number
     * @param finding the finding that it makes
     * @param fails beyond which number it is bad
     */
    record Measure(String id, String name, String of, String says, String finding, Beyond fails) {}

    /** One of both. */
    record Beyond(Optional<Double> above, Optional<Double> below) {
        boolean holds(double value) {
            return above.map(limit -> value > limit).orElse(false)
                    || below.map(limit -> value < limit).orElse(false);
        }
    }

    /** By mode, what a gauge tells of gear that is whole. */
    Map<String, Double> gear() {
        Map<String, Double> whole = new LinkedHashMap<>();
        failures.stream()
                .flatMap(f -> f.at().stream())
                .filter(a -> a.part().equals(GEAR))
                .forEach(a -> whole.put(a.mode(), a.whole()));
        return whole;
    }

    /**
     * Something that a driver notices.
     *
     * @param symptom its id in the description
     * @param says how it is told
     * @param when the driver can notice it
     * @param seconds for which it must last
     */
    record Notice(String symptom, String says, String when, double seconds, Blueprint.Sees sees) {}

    /** Those of a vehicle, all together. */
    static Mechanics of(List<String> systems, EngineSpec engine) {
        List<Mechanics> all =
                systems.stream()
                        .map(
                                s ->
                                        Blueprint.read(
                                                "systems/" + s + ".yaml",
                                                tree -> expanded(tree, engine),
                                                Mechanics.class))
                        .toList();
        return new Mechanics(
                all.stream().flatMap(m -> m.failures().stream()).toList(),
                all.stream().flatMap(m -> m.monitors().stream()).toList(),
                all.stream().flatMap(m -> m.notices().stream()).toList(),
                all.stream().flatMap(m -> m.measures().stream()).toList());
    }

    /** One of each that is written once for every cylinder, or for so many. */
    private static Object expanded(Object tree, EngineSpec engine) {
        if (tree instanceof Map<?, ?> map) {
            Map<Object, Object> all = new LinkedHashMap<>();
            map.forEach((k, v) -> all.put(k, expanded(v, engine)));
            return all;
        }
        if (!(tree instanceof List<?> list)) {
            return tree;
        }
        List<Object> all = new ArrayList<>();
        for (Object each : list) {
            if (each instanceof Map<?, ?> map && map.containsKey("each")) {
                int count = map.get("each") instanceof Integer many ? many : engine.cylinders();
                for (int n = 1; n <= count; n++) {
                    all.add(numbered(map, n));
                }
            } else {
                all.add(expanded(each, engine));
            }
        }
        return all;
    }

    private static Object numbered(Object tree, int n) {
        if (tree instanceof Map<?, ?> map) {
            Map<Object, Object> all = new LinkedHashMap<>();
            map.forEach((k, v) -> all.put(k, numbered(v, n)));
            all.remove("each");
            return all;
        }
        return tree instanceof List<?> list
                ? list.stream().map(e -> numbered(e, n)).toList()
                : tree instanceof String text ? text.replace("{n}", "" + n) : tree;
    }
}
