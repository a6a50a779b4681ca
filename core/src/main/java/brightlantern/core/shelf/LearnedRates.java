package brightlantern.core.shelf;

import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * How common causes are in one kind of vehicle, by its description and by the proven cases of that
 * kind: a Gamma–Poisson model. The share p of a cause has a Gamma prior of shape {@code STRENGTH} ·
 * p and rate {@code STRENGTH}, as if so many cases had been seen before; with k of n cases its mean
 * becomes (STRENGTH · p + k) / (STRENGTH + n) (conjugate prior of the Poisson distribution).
 */
public final class LearnedRates {
    /** So many cases are the description's figures worth. */
    public static final double STRENGTH = 200;

    /** What comes from elsewhere counts as so much of a case: nobody here saw it. */
    public static final double IMPORTED = 0.5;

    private LearnedRates() {}

    /**
     * What was learned of a cause.
     *
     * @param cases in which it was the cause; those from elsewhere count half
     * @param of so many cases of this kind of vehicle
     * @param before its share of all described causes by the description
     * @param after its share with the cases
     */
    public record Learned(
            String suspectId, String name, double cases, double of, double before, double after) {
        /** So many times as common as the description says. */
        public double factor() {
            return before > 0 ? after / before : 1;
        }
    }

    /** What the cases tell of each described cause of their kind of vehicle that they name. */
    public static List<Learned> of(VehicleDescription d, List<ShelfCase> cases) {
        Map<String, Double> counted = new HashMap<>();
        double all = 0;
        for (ShelfCase c : cases) {
            if (c.vehicle().equals(d.id()) && d.suspect(c.causeId()).isPresent()) {
                double weight = c.isOwn() ? 1 : IMPORTED;
                counted.merge(c.causeId(), weight, Double::sum);
                all += weight;
            }
        }
        double of = all;
        double total = d.suspects().stream().mapToDouble(Suspect::common).sum();
        return d.suspects().stream()
                .filter(s -> counted.containsKey(s.id()) && total > 0)
                .map(
                        s -> {
                            double before = s.common() / total;
                            double k = counted.get(s.id());
                            double after = (STRENGTH * before + k) / (STRENGTH + of);
                            return new Learned(s.id(), s.name(), k, of, before, after);
                        })
                .toList();
    }

    /** The same vehicle with its causes as common as the cases say. */
    public static VehicleDescription applied(VehicleDescription d, List<ShelfCase> cases) {
        List<Learned> learned = of(d, cases);
        if (learned.isEmpty()) {
            return d;
        }
        Map<String, Double> factors = new HashMap<>();
        learned.forEach(l -> factors.put(l.suspectId(), l.factor()));
        // what no case names becomes rarer by as much as all cases together weigh
        double others = STRENGTH / (STRENGTH + learned.get(0).of());
        return d.withOnly(
                d.suspects().stream()
                        .map(s -> s.timesAsCommon(factors.getOrDefault(s.id(), others)))
                        .toList(),
                d.checks());
    }
}
