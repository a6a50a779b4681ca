package brightlantern.core.suspect;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Which of the described complaints a customer's own words may mean: words that few complaints
 * share weigh most (inverse document frequency).
 */
public final class ComplaintWords {
    private static final int SHORTEST = 3;

    /** Words are the same when they begin alike for so many letters, endings aside. */
    private static final int ALIKE = 4;

    private static final int MOST_ENDING = 3;

    /** So many at most are offered. */
    private static final int MOST = 6;

    /** A word that more than this share of all complaints has says nothing. */
    private static final double COMMON = 0.2;

    /** What weighs less than this share of the best is not meant. */
    private static final double BEHIND = 0.5;

    /** A word of its system or its circumstances counts so much less than one of its name. */
    private static final double BESIDE = 0.6;

    /** That there is no more to be told is no complaint of something that does nothing. */
    private static final Pattern NO_MORE =
            Pattern.compile(
                    "\\b(nothing|anything|all|everything)\\s+(else|more|other)(\\s+(was|is|came|noticed|works?|fine|well|good|normal))*",
                    Pattern.CASE_INSENSITIVE);

    private static final Set<String> EMPTY =
            Set.of(
                    "and",
                    "are",
                    "but",
                    "can",
                    "customer",
                    "does",
                    "for",
                    "from",
                    "has",
                    "have",
                    "her",
                    "him",
                    "his",
                    "its",
                    "not",
                    "now",
                    "off",
                    "one",
                    "out",
                    "over",
                    "same",
                    "says",
                    "she",
                    "some",
                    "than",
                    "that",
                    "the",
                    "their",
                    "them",
                    "then",
                    "there",
                    "they",
                    "this",
                    "very",
                    "was",
                    "went",
                    "were",
                    "when",
                    "will",
                    "with",
                    "work",
                    "working",
                    "works",
                    "you");

    /** What people say → what complaints call it. */
    private static final Map<String, Set<String>> SPOKEN = spoken();

    private ComplaintWords() {}

    private record Weighed(Symptom symptom, double weight) {}

    /**
     * Those that may be meant, the likeliest first.
     *
     * @param all that are described
     * @param words as the customer said it
     * @return none where no word tells anything
     */
    public static List<Symptom> meant(List<Symptom> all, String words) {
        Set<String> said = said(words);
        Map<Symptom, Set<String>> names = new HashMap<>();
        Map<Symptom, Set<String>> theirs = new HashMap<>();
        all.forEach(s -> names.put(s, words(s.name())));
        all.forEach(s -> theirs.put(s, words(s.name() + " " + s.when() + " " + s.system())));
        Map<String, Double> weights = new HashMap<>();
        for (String word : said) {
            long with = theirs.values().stream().filter(t -> has(t, word)).count();
            if (with > 0 && with <= Math.max(1, COMMON * all.size())) {
                weights.put(word, Math.log((double) all.size() / with));
            }
        }
        List<Weighed> found = new ArrayList<>();
        for (Symptom s : all) {
            double weight =
                    weights.entrySet().stream()
                            .filter(w -> has(theirs.get(s), w.getKey()))
                            .mapToDouble(
                                    w ->
                                            w.getValue()
                                                    * (has(names.get(s), w.getKey()) ? 1 : BESIDE))
                            .sum();
            if (weight > 0) {
                found.add(new Weighed(s, weight));
            }
        }
        double best = found.stream().mapToDouble(Weighed::weight).max().orElse(0);
        return found.stream()
                .filter(w -> w.weight() >= BEHIND * best)
                .sorted(
                        Comparator.comparingDouble(Weighed::weight)
                                .reversed()
                                .thenComparingInt(w -> theirs.get(w.symptom()).size()))
                .limit(MOST)
                .map(Weighed::symptom)
                .toList();
    }

    /** The words themselves, and what complaints call what people say so. */
    private static Set<String> said(String text) {
        Set<String> said = words(NO_MORE.matcher(text).replaceAll(" "));
        List.copyOf(said).forEach(w -> said.addAll(SPOKEN.getOrDefault(w, Set.of())));
        return said;
    }

    private static Map<String, Set<String>> spoken() {
        String all;
        try (InputStream in = ComplaintWords.class.getResourceAsStream("spoken.txt")) {
            all = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException("The list of spoken words cannot be read", e);
        }
        return all.lines()
                .filter(l -> !l.startsWith("#"))
                .map(l -> l.split(":"))
                .collect(Collectors.toMap(l -> l[0], l -> words(l[1])));
    }

    private static Set<String> words(String text) {
        Set<String> words = new HashSet<>();
        for (String word : text.toLowerCase(Locale.ROOT).split("[^\\p{L}]+")) {
            if (word.length() >= SHORTEST && !EMPTY.contains(word)) {
                words.add(word);
            }
        }
        return words;
    }

    private static boolean has(Set<String> words, String word) {
        return words.stream().anyMatch(w -> alike(w, word));
    }

    /** Whether two words differ in their ending only: lamp and lamps, shake and shaking. */
    private static boolean alike(String a, String b) {
        if (a.equals(b)) {
            return true;
        }
        int same = 0;
        int most = Math.min(a.length(), b.length());
        while (same < most && a.charAt(same) == b.charAt(same)) {
            same++;
        }
        return same >= ALIKE
                && a.length() - same <= MOST_ENDING
                && b.length() - same <= MOST_ENDING
                && same >= Math.max(a.length(), b.length()) / 2;
    }
}
