package brightlantern.core.study.trim;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.List;

/** The fuel trims of an engine, bank by bank. */
public record FuelTrims(List<TrimSet> trims) implements Slice {
    public FuelTrims {
        trims = OrEmpty.list(trims);
    }

    @Override
    public void define(References references) {}

    @Override
    public void check(References references) {
        references.each(
                "trims",
                trims,
                (t, at) -> {
                    at.needs("a finding", t.finding());
                    at.may("a finding", t.refuelled());
                    at.needs("a value", List.of(t.shortTerm(), t.longTerm()));
                    t.regimes().forEach(r -> r.when().forEach(c -> at.needs("a value", c.value())));
                });
    }
}
