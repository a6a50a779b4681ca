package brightlantern.core.procedure;

import brightlantern.core.code.Code;
import brightlantern.core.filter.Filter;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * A gate of a procedure as it stands now.
 *
 * @param wanted and present in words
 * @param opens what would open it, and for a code that is stored, what is known of it
 * @param leadsTo the stage of the job that helps to open it; empty when none does
 */
public record GateState(boolean open, String wanted, String present, String opens, String leadsTo) {
    private static final String NOT_TOLD =
            "No module tells it now: see that the vehicle is connected and the key is on.";

    /** Whether a module tells what it is about. */
    public boolean isTold() {
        return !opens.equals(NOT_TOLD);
    }

    /**
     * @param take the newest samples, up to {@code t}
     * @param now the same moment alone
     */
    public static GateState of(
            Procedure.GateRule rule,
            VehicleDescription d,
            Take take,
            double t,
            Map<String, Double> now) {
        double[] times =
                take.columns().values().stream()
                        .flatMapToDouble(c -> IntStream.range(0, c.size()).mapToDouble(c::seconds))
                        .filter(s -> s <= t)
                        .distinct()
                        .sorted()
                        .toArray();
        boolean open =
                times.length > 0
                        && rule.filter().over(take, times)[times.length - 1] == Filter.State.HOLDS;
        // what nobody tells may be right already; what would put it right is not known either
        boolean told =
                rule.filter().values().stream()
                        .allMatch(id -> Double.isFinite(now.getOrDefault(id, Double.NaN)));
        List<String> opens = new ArrayList<>(List.of(told ? rule.opens() + "." : NOT_TOLD));
        for (String id : rule.filter().values().stream().sorted().toList()) {
            if (!open && id.startsWith(Scene.CODE) && now.getOrDefault(id, 0.0) > 0) {
                String code = id.substring(Scene.CODE.length()).toUpperCase(Locale.ROOT);
                Optional<Code> known =
                        d.codes().stream().filter(c -> c.code().equals(code)).findFirst();
                known.ifPresent(c -> opens.add(code + " is stored: " + c.name() + ". " + c.why()));
            }
        }
        return new GateState(
                open,
                rule.says(),
                Scene.present(d, rule, now),
                String.join(" ", opens).trim(),
                open ? "" : helps(rule));
    }

    /** Gates over one moment alone. */
    public static List<GateState> at(
            List<Procedure.GateRule> rules, VehicleDescription d, Map<String, Double> now) {
        double[] once = {0};
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        now.forEach((id, v) -> columns.put(id, new Take.Column(once, new double[] {v})));
        Take take = new Take(columns, List.of());
        return rules.stream().map(r -> of(r, d, take, 0, now)).toList();
    }

    private static String helps(Procedure.GateRule rule) {
        return rule.filter().values().stream().anyMatch(v -> v.startsWith(Scene.CODE))
                ? "sweep"
                : "watch";
    }

    /** Why the first shut gate is shut; empty when all are open. */
    public static Optional<String> whyShut(List<GateState> gates) {
        return gates.stream()
                .filter(g -> !g.open())
                .findFirst()
                .map(
                        g ->
                                "Gate shut: %s; wanted: %s. %s"
                                        .formatted(g.present(), g.wanted(), g.opens()));
    }
}
