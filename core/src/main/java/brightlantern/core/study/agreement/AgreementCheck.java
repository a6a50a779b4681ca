package brightlantern.core.study.agreement;

import brightlantern.core.signal.Condition;
import brightlantern.core.signal.RangeVerdict;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Whether two values tell the same.
 *
 * @param agrees empty when it cannot be judged
 * @param sentence what was found, or why it cannot be judged
 */
public record AgreementCheck(Optional<Boolean> agrees, String sentence) {
    /** The values that it needs. */
    public static Set<String> needs(Agreement agreement) {
        Set<String> ids = new LinkedHashSet<>(List.of(agreement.a(), agreement.b()));
        agreement.when().forEach(c -> ids.add(c.value()));
        return ids;
    }

    /**
     * @param now value → its reading in its own unit; what did not answer is missing
     */
    public static AgreementCheck of(Agreement agreement, Signals signals, Map<String, Double> now) {
        Optional<Condition> shut =
                agreement.when().stream()
                        .filter(c -> !RangeVerdict.holds(c, now.get(c.value())))
                        .findFirst();
        if (shut.isPresent()) {
            return not(
                    agreement, "it needs " + shut.get().says() + ". " + shut.get().opens() + ".");
        }
        if (!now.containsKey(agreement.a()) || !now.containsKey(agreement.b())) {
            return not(agreement, "a module does not answer.");
        }
        Value a = signals.value(agreement.a()).orElseThrow();
        Value b = signals.value(agreement.b()).orElseThrow();
        double left = Units.convert(now.get(a.id()), a.unit(), a.show());
        double right = Units.convert(now.get(b.id()), b.unit(), a.show());
        boolean agrees = Math.abs(left - right) <= agreement.within();
        return new AgreementCheck(
                Optional.of(agrees),
                String.format(
                        Locale.ROOT,
                        "%s: %s and %s %s, %s (up to %s apart is right).",
                        agreement.name(),
                        Units.told(left),
                        Units.told(right),
                        a.show(),
                        agrees ? "they agree" : "they differ",
                        Units.told(agreement.within())));
    }

    private static AgreementCheck not(Agreement agreement, String why) {
        return new AgreementCheck(Optional.empty(), agreement.name() + " was not compared: " + why);
    }
}
