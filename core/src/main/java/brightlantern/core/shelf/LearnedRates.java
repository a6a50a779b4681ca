package brightlantern.core.shelf;

import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * How common causes are in one kind of vehicle, by its description and by the proven cases of that
 * kind: a Gamma–Poisson model. The share p of a cause has a Gamma prior of shape {@code STRENGTH} ·
 * p and rate {@code STRENGTH}, as if so many cases had been seen before; with k of n cases its mean
 * becomes (STRENGTH · p + k) / (STRENGTH + n) (conjugate prior of the Poisson distribution).
 *
 * <p>What is there once for each cylinder or cell is counted together: a case of one speaks for the
 * same part of all. Which of them it is again is learned far more slowly: with k of the K cases of
 * its kin, a share w among them becomes (KIN · w + k) / (KIN + K) (conjugate prior of the
 * multinomial distribution).
 */
public final class LearnedRates {
    /** So many cases are the description's figures worth. */
    public static final double STRENGTH = 200;

    /** What comes from elsewhere counts as so much of a case: nobody here saw it. */
    public static final double IMPORTED = 0.5;

    /** So many cases it is worth that one cylinder is like another. */
    private static final double KIN = 10;

    private static final Pattern NUMBERED = Pattern.compile("(.+)-\\d+");

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
        return each(d, cases).stream().filter(l -> l.cases() > 0).toList();
    }

    /** The same vehicle with its causes as common as the cases say. */
    public static VehicleDescription applied(VehicleDescription d, List<ShelfCase> cases) {
        Map<String, Double> factors =
                each(d, cases).stream()
                        .collect(Collectors.toMap(Learned::suspectId, Learned::factor));
        return factors.isEmpty()
                ? d
                : d.withOnly(
                        d.suspects().stream()
                                .map(s -> s.timesAsCommon(factors.get(s.id())))
                                .toList(),
                        d.checks());
    }

    /** How it stands with every cause; empty when no case tells anything. */
    private static List<Learned> each(VehicleDescription d, List<ShelfCase> cases) {
        Map<String, Double> counted = new HashMap<>();
        for (ShelfCase c : cases) {
            if (c.vehicle().equals(d.id()) && d.suspect(c.causeId()).isPresent()) {
                counted.merge(c.causeId(), c.isOwn() ? 1 : IMPORTED, Double::sum);
            }
        }
        double total = d.suspects().stream().mapToDouble(Suspect::common).sum();
        if (counted.isEmpty() || total <= 0) {
            return List.of();
        }
        double of = counted.values().stream().mapToDouble(c -> c).sum();
        Map<String, List<Suspect>> kin =
                d.suspects().stream().collect(Collectors.groupingBy(LearnedRates::kin));
        return d.suspects().stream()
                .map(
                        s -> {
                            double before = s.common() / total;
                            double k = counted.getOrDefault(s.id(), 0.0);
                            double its = 0;
                            double all = 0;
                            for (Suspect one : kin.get(kin(s))) {
                                its += one.common() / total;
                                all += counted.getOrDefault(one.id(), 0.0);
                            }
                            double among = its > 0 ? before / its : 0;
                            double after =
                                    (STRENGTH * its + all)
                                            / (STRENGTH + of)
                                            * ((KIN * among + k) / (KIN + all));
                            return new Learned(s.id(), s.name(), k, of, before, after);
                        })
                .toList();
    }

    /** What the same part of every cylinder or cell has in common; another cause's own id. */
    private static String kin(Suspect s) {
        Matcher numbered = NUMBERED.matcher(s.id());
        return numbered.matches()
                ? numbered.group(1) + ": " + s.name().replaceAll("\\d+", "#")
                : s.id();
    }
}
