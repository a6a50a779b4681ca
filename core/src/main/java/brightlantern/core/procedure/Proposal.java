package brightlantern.core.procedure;

import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A procedure that what is known of a job calls for.
 *
 * @param because what calls for it: symptoms, codes and suspects by their ids
 */
public record Proposal(Procedure procedure, List<String> because) {
    public Proposal {
        because = List.copyOf(because);
    }

    /**
     * What is known of a job, by ids.
     *
     * @param codes as they are written, P0299-00
     * @param families family → the symptoms and codes that belong to it
     */
    public record Known(
            Collection<String> symptoms,
            Collection<String> codes,
            Collection<String> suspects,
            Map<String, ? extends Collection<String>> families) {}

    /**
     * Those that are called for: first those that name a symptom, a code or a suspect, the one with
     * most reasons first, then those for its family. A code that ends with a star stands for all
     * that begin so.
     */
    public static List<Proposal> of(List<Procedure> procedures, Known known) {
        Map<Proposal, Integer> named = new LinkedHashMap<>();
        for (Procedure p : procedures) {
            Set<String> because = new LinkedHashSet<>();
            known.symptoms().stream().filter(p.symptoms()::contains).forEach(because::add);
            known.codes().stream()
                    .filter(c -> p.codes().stream().anyMatch(wanted -> matches(wanted, c)))
                    .forEach(because::add);
            known.suspects().stream().filter(p.suspects()::contains).forEach(because::add);
            int names = because.size();
            p.families().stream()
                    .filter(known.families()::containsKey)
                    .forEach(f -> because.addAll(known.families().get(f)));
            if (!because.isEmpty()) {
                named.put(new Proposal(p, List.copyOf(because)), names);
            }
        }
        return named.entrySet().stream()
                .sorted(
                        Comparator.comparingInt((Map.Entry<Proposal, Integer> e) -> -e.getValue())
                                .thenComparing(e -> -e.getKey().because().size()))
                .map(Map.Entry::getKey)
                .toList();
    }

    private static boolean matches(String wanted, String code) {
        return wanted.endsWith("*")
                ? code.startsWith(wanted.substring(0, wanted.length() - 1))
                : wanted.equals(code);
    }
}
