package brightlantern.core.study.agreement;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import brightlantern.core.signal.Signals;
import java.util.List;
import java.util.Map;

/** Pairs of values of a vehicle that must tell the same. */
public record Agreements(List<Agreement> agreements) implements Slice {
    public Agreements {
        agreements = OrEmpty.list(agreements);
    }

    /**
     * The same with its limits in the units in which its values are shown by these choices.
     *
     * @param choices quantity → unit, as {@link brightlantern.core.signal.Units} knows them
     */
    public Agreements shownIn(Map<String, String> choices, Signals signals) {
        return new Agreements(signals.shownIn(choices, agreements, Agreement::a, Agreement::in));
    }

    @Override
    public void define(References references) {}

    @Override
    public void check(References references) {
        references.each(
                "agreements",
                agreements,
                (a, at) -> {
                    at.needs("a finding", a.finding());
                    at.needs("a value", List.of(a.a(), a.b()));
                    a.when().forEach(c -> at.needs("a value", c.value()));
                });
    }
}
