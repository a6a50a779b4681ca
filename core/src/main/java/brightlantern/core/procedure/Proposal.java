package brightlantern.core.procedure;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;

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
     * Those that are called for, the one with most reasons first. A code that ends with a star
     * stands for all that begin so.
     */
    public static List<Proposal> of(
            List<Procedure> procedures,
            Collection<String> symptoms,
            Collection<String> codes,
            Collection<String> suspects) {
        List<Proposal> proposals = new ArrayList<>();
        for (Procedure p : procedures) {
            List<String> because = new ArrayList<>();
            symptoms.stream().filter(p.symptoms()::contains).forEach(because::add);
            codes.stream()
                    .distinct()
                    .filter(c -> p.codes().stream().anyMatch(wanted -> matches(wanted, c)))
                    .forEach(because::add);
            suspects.stream().filter(p.suspects()::contains).forEach(because::add);
            if (!because.isEmpty()) {
                proposals.add(new Proposal(p, because));
            }
        }
        proposals.sort(Comparator.comparingInt((Proposal p) -> -p.because().size()));
        return proposals;
    }

    private static boolean matches(String wanted, String code) {
        return wanted.endsWith("*")
                ? code.startsWith(wanted.substring(0, wanted.length() - 1))
                : wanted.equals(code);
    }
}
