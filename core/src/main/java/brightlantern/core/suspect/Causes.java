package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What can be wrong with a vehicle, how people notice it, and how it is told apart. */
public record Causes(
        List<Symptom> symptoms,
        List<Finding> findings,
        List<Suspect> suspects,
        List<Check> checks,
        List<Consequence> consequences)
        implements Slice {
    public Causes {
        symptoms = OrEmpty.list(symptoms);
        findings = OrEmpty.list(findings);
        suspects = OrEmpty.list(suspects);
        checks = OrEmpty.list(checks);
        consequences = OrEmpty.list(consequences);
    }

    /** System → the complaints that concern it, in the order in which they are described. */
    public Map<String, List<Symptom>> complaints() {
        Map<String, List<Symptom>> bySystem = new LinkedHashMap<>();
        symptoms.forEach(s -> bySystem.computeIfAbsent(s.system(), k -> new ArrayList<>()).add(s));
        return bySystem;
    }

    /** The suspect of an id, if there is one. */
    public Optional<Suspect> suspect(String suspectId) {
        return suspects.stream().filter(s -> s.id().equals(suspectId)).findFirst();
    }

    /** The check of an id, if there is one. */
    public Optional<Check> check(String checkId) {
        return checks.stream().filter(c -> c.id().equals(checkId)).findFirst();
    }

    /** The finding of an id, if there is one. */
    public Optional<Finding> finding(String findingId) {
        return findings.stream().filter(f -> f.id().equals(findingId)).findFirst();
    }

    /** The same with these checks beside its own. */
    public Causes withChecks(List<Check> more) {
        List<Check> all = new ArrayList<>(checks);
        all.addAll(more);
        return new Causes(symptoms, findings, suspects, all, consequences);
    }

    /** The same with these symptoms and findings beside its own. */
    public Causes with(List<Symptom> moreSymptoms, List<Finding> moreFindings) {
        List<Symptom> allSymptoms = new ArrayList<>(symptoms);
        allSymptoms.addAll(moreSymptoms);
        List<Finding> allFindings = new ArrayList<>(findings);
        allFindings.addAll(moreFindings);
        return new Causes(allSymptoms, allFindings, suspects, checks, consequences);
    }

    /** The same with these suspects and checks in the place of its own. */
    public Causes withOnly(List<Suspect> theseSuspects, List<Check> theseChecks) {
        return new Causes(symptoms, findings, theseSuspects, theseChecks, consequences);
    }

    /** The same with these suspects beside its own. */
    public Causes with(List<Suspect> more) {
        List<Suspect> all = new ArrayList<>(suspects);
        all.addAll(more);
        return new Causes(symptoms, findings, all, checks, consequences);
    }

    private static void addUp(String finding, Map<String, Double> odds, References.At at) {
        double sum = odds.values().stream().mapToDouble(x -> x).sum();
        if (Math.abs(sum - 1) > 1e-6) {
            at.wrong("the probabilities of '" + finding + "' add up to " + sum + ", expected 1");
        }
    }

    @Override
    public void define(References references) {
        references.define("symptoms", "a symptom", symptoms, Symptom::id);
        references.define("findings", "a finding", findings, Finding::id);
        references.define("suspects", "a suspect", suspects, Suspect::id);
        references.define("checks", "a check", checks, Check::id);
        references.define("consequences", "a consequence", consequences, Consequence::id);
    }

    @Override
    public void check(References references) {
        references.each(
                "suspects",
                suspects,
                (s, at) -> {
                    at.needs("a code", s.codes().keySet());
                    at.needs("a symptom", s.symptoms().keySet());
                    at.needs("a finding", s.tells().keySet());
                    s.effect().ifPresent(e -> e.check(at));
                    s.tells().forEach((finding, odds) -> addUp(finding, odds, at));
                });
        references.each("checks", checks, Check::check);
        references.each(
                "consequences",
                consequences,
                (c, at) -> {
                    at.needs("a motor of circuit " + c.circuit(), c.motor());
                    at.needs("a code", c.codes().keySet());
                    at.needs("a symptom", c.symptoms().keySet());
                    at.needs("a finding", c.tells().keySet());
                    c.tells().forEach((finding, odds) -> addUp(finding, odds, at));
                });
    }
}
