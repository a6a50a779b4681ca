package brightlantern.core.signal;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * The live values of a vehicle, the pictures of its systems, and the values that the head of a page
 * needs.
 */
public record Signals(List<Value> values, List<Drawing> drawings, Optional<HeadValues> live)
        implements Slice {
    public Signals {
        values = OrEmpty.list(values);
        drawings = OrEmpty.list(drawings);
    }

    /** The value of an id, if it is described. */
    public Optional<Value> value(String valueId) {
        return values.stream().filter(v -> v.id().equals(valueId)).findFirst();
    }

    /** The same with these values beside its own; what it knows already stays. */
    public Signals with(List<Value> more) {
        List<Value> all = new ArrayList<>(values);
        more.stream().filter(v -> value(v.id()).isEmpty()).forEach(all::add);
        return new Signals(all, drawings, live);
    }

    /**
     * The same with values shown in other units.
     *
     * @param choices quantity → unit, as {@link Units} knows them
     */
    public Signals shownIn(Map<String, String> choices) {
        return new Signals(
                values.stream().map(v -> v.shownIn(unit(v, choices))).toList(), drawings, live);
    }

    /** The unit in which a value is to be shown by these choices. */
    static String unit(Value value, Map<String, String> choices) {
        return Units.quantity(value.show()).map(choices::get).orElse(value.show());
    }

    /** An item with limits in the unit in which a value is shown, turned into another unit. */
    @FunctionalInterface
    public interface Turned<T> {
        T in(T item, String from, String to);
    }

    /**
     * Items with their limits in the units in which their values are shown by these choices.
     *
     * @param of the id of the value of which an item tells
     */
    public <T> List<T> shownIn(
            Map<String, String> choices, List<T> items, Function<T, String> of, Turned<T> turned) {
        return items.stream()
                .map(
                        one ->
                                value(of.apply(one))
                                        .map(v -> turned.in(one, v.show(), unit(v, choices)))
                                        .orElse(one))
                .toList();
    }

    @Override
    public void define(References references) {
        references.define("values", "a value", values, Value::id);
    }

    @Override
    public void check(References references) {
        references.each(
                "values",
                values,
                (v, at) -> {
                    at.needs("a module", v.module());
                    v.ranges().forEach(r -> r.when().forEach(c -> at.needs("a value", c.value())));
                });
        references.each(
                "drawings",
                drawings,
                (drawing, at) -> {
                    Set<String> parts =
                            drawing.parts().stream().map(DrawnPart::id).collect(Collectors.toSet());
                    drawing.parts().forEach(p -> at.needs("a value", p.values()));
                    drawing.pipes()
                            .forEach(pipe -> pipe.forEach(p -> at.among("a part", parts, p)));
                });
    }
}
