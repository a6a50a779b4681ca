package brightlantern.core.study.target;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import brightlantern.core.signal.Signals;
import java.util.List;
import java.util.Map;

/** The targets that values of a vehicle must follow. */
public record Targets(List<Follow> follows) implements Slice {
    public Targets {
        follows = OrEmpty.list(follows);
    }

    /**
     * The same with its limits in the units in which its values are shown by these choices.
     *
     * @param choices quantity → unit, as {@link brightlantern.core.signal.Units} knows them
     */
    public Targets shownIn(Map<String, String> choices, Signals signals) {
        return new Targets(signals.shownIn(choices, follows, Follow::target, Follow::in));
    }

    @Override
    public void define(References references) {}

    @Override
    public void check(References references) {
        references.each(
                "follows",
                follows,
                (f, at) -> {
                    at.needs("a finding", f.finding());
                    at.needs("a value", List.of(f.target(), f.actual(), f.command(), f.feedback()));
                });
    }
}
