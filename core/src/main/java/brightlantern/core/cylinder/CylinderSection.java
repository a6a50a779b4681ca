package brightlantern.core.cylinder;

import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.List;
import java.util.Optional;

/** The cylinders of an engine that has them. */
public record CylinderSection(Optional<Cylinders> cylinders) implements Slice {
    @Override
    public void define(References references) {}

    @Override
    public void check(References references) {
        References.At at = references.section("cylinders");
        cylinders.ifPresent(
                c -> {
                    c.order()
                            .forEach(
                                    n ->
                                            at.needs(
                                                    "a value",
                                                    List.of(c.deviationOf(n), c.misfiresOf(n))));
                    at.needs("a value", c.speed());
                    at.may("a value", c.roughness());
                    c.when().forEach(w -> at.needs("a value", w.value()));
                    at.may("a finding", c.finding());
                });
    }
}
