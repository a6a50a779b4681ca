package brightlantern.core.odometer;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.List;

/** What of a vehicle tells how far it has run. */
public record Distances(List<Mileage> mileage) implements Slice {
    public Distances {
        mileage = OrEmpty.list(mileage);
    }

    @Override
    public void define(References references) {}

    @Override
    public void check(References references) {
        references.each("mileage", mileage, (m, at) -> at.needs("a module", m.module()));
    }
}
