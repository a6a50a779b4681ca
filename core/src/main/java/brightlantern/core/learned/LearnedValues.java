package brightlantern.core.learned;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import brightlantern.core.signal.Signals;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** What the modules of a vehicle learn. */
public record LearnedValues(List<LearnedValue> learned) implements Slice {
    public LearnedValues {
        learned = OrEmpty.list(learned);
    }

    /**
     * The same with its limits in the units in which its values are shown by these choices.
     *
     * @param choices quantity → unit, as {@link brightlantern.core.signal.Units} knows them
     */
    public LearnedValues shownIn(Map<String, String> choices, Signals signals) {
        return new LearnedValues(
                signals.shownIn(choices, learned, LearnedValue::value, LearnedValue::in));
    }

    @Override
    public void define(References references) {}

    @Override
    public void check(References references) {
        references.each(
                "learned",
                learned,
                (l, at) -> {
                    at.needs("a value", l.value());
                    at.may("a finding", l.finding());
                    if (!(l.least() < l.usual() && l.usual() < l.most())) {
                        at.wrong(
                                "expected least < usual < most, found %s, %s, %s"
                                        .formatted(l.least(), l.usual(), l.most()));
                    }
                    boolean tells =
                            Stream.of(l.low(), l.middle(), l.high()).noneMatch(String::isEmpty);
                    if (!l.finding().isEmpty() && !tells) {
                        at.wrong(
                                "expected low, middle and high, outcomes of its finding '"
                                        + l.finding()
                                        + "'");
                    }
                });
    }
}
