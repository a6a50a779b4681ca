package brightlantern.app.exercise;

import brightlantern.app.page.JobPages;
import brightlantern.core.code.Code;
import brightlantern.core.code.Dtc;
import brightlantern.core.procedure.GateState;
import brightlantern.core.procedure.Procedure;
import brightlantern.core.procedure.Scene;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.DtcAnswers;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/** Reads what the gates of a procedure look at: live values, and which codes are stored. */
final class GateKeeper {
    private static final long CODES_NANOS = 4_000_000_000L;

    /** So much of the past is kept for conditions that speak of it, s. */
    private static final double WINDOW_SECONDS = 60;

    private final JobPages.Context context;
    private final List<Procedure.GateRule> rules;
    private final long start = System.nanoTime();
    private final Map<String, List<double[]>> past = new LinkedHashMap<>();
    private final Map<String, Double> codes = new LinkedHashMap<>();
    private long codesRead = Long.MIN_VALUE;

    GateKeeper(JobPages.Context context, List<Procedure.GateRule> rules) {
        this.context = context;
        this.rules = rules;
    }

    /** The gates of which a module knows nothing. */
    GateKeeper without(String module) {
        VehicleDescription d = context.description();
        return new GateKeeper(
                context,
                rules.stream()
                        .filter(
                                r ->
                                        r.filter().values().stream()
                                                .noneMatch(id -> modules(d, id).contains(module)))
                        .toList());
    }

    /** Those that must be asked for a value, or whether a code is stored. */
    private static Set<String> modules(VehicleDescription d, String id) {
        return isCode(id)
                ? d.codes().stream()
                        .filter(c -> Scene.code(c.code()).equals(id))
                        .map(Code::module)
                        .collect(Collectors.toSet())
                : d.value(id).stream().map(Value::module).collect(Collectors.toSet());
    }

    /** The gates as they stand now; what cannot be read keeps its gate shut. */
    List<GateState> look() {
        List<String> ids =
                rules.stream().flatMap(r -> r.filter().values().stream()).distinct().toList();
        VehicleDescription d = context.description();
        Map<String, Double> now =
                new LinkedHashMap<>(
                        context.link().read(d, ids.stream().filter(id -> !isCode(id)).toList()));
        List<String> wanted = ids.stream().filter(GateKeeper::isCode).toList();
        if (!wanted.isEmpty()) {
            if (codesRead == Long.MIN_VALUE || System.nanoTime() - codesRead > CODES_NANOS) {
                codes.clear();
                readCodes(d, wanted);
                codesRead = System.nanoTime();
            }
            now.putAll(codes);
        }
        double t = (System.nanoTime() - start) / 1e9;
        now.forEach(
                (id, v) -> {
                    List<double[]> its = past.computeIfAbsent(id, i -> new ArrayList<>());
                    its.add(new double[] {t, v});
                    its.removeIf(s -> s[0] < t - WINDOW_SECONDS);
                });
        // what was not read now is not known now
        past.keySet().retainAll(now.keySet());
        Take take = Take.of(past);
        return rules.stream().map(r -> GateState.of(r, d, take, t, now)).toList();
    }

    private static boolean isCode(String id) {
        return id.startsWith(Scene.CODE);
    }

    private void readCodes(VehicleDescription d, Collection<String> wanted) {
        Map<String, List<Code>> byModule = new LinkedHashMap<>();
        d.codes().stream()
                .filter(c -> wanted.contains(Scene.code(c.code())))
                .forEach(c -> byModule.computeIfAbsent(c.module(), m -> new ArrayList<>()).add(c));
        byModule.forEach(
                (module, its) -> {
                    try {
                        List<DtcAnswers.Entry> there =
                                context.link()
                                        .module(d.module(module).orElseThrow().address())
                                        .codes(ProcedureRuns.STORED);
                        for (Code c : its) {
                            int number = Dtc.parse(c.code()).number();
                            boolean stored = there.stream().anyMatch(e -> e.dtc() == number);
                            codes.merge(Scene.code(c.code()), stored ? 1.0 : 0.0, Math::max);
                        }
                    } catch (WireException silent) {
                        // a module that does not say leaves its codes unknown, and the gate shut
                    }
                });
    }
}
