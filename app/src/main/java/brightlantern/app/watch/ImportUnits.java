package brightlantern.app.watch;

import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.take.csv.CsvImport;
import java.util.Optional;

/** Columns brought into the units of the values that they are taken for. */
final class ImportUnits {

    private ImportUnits() {}

    /** A unit by the name that it has here; one that nobody knows is asked for. */
    static String inUnitOf(String column, String unit, Value value) {
        if (unit.isEmpty() || value.unit().isEmpty() || unit.equals(value.unit())) {
            return unit;
        }
        Optional<String> known = Units.spelledAs(unit);
        boolean fits =
                known.flatMap(Units::quantity).equals(Units.quantity(value.unit()))
                        && known.isPresent();
        if (!fits) {
            throw new IllegalArgumentException(
                    "Column '%s': the unit '%s' cannot be turned into %s of '%s'. Which unit is it? One of %s."
                            .formatted(
                                    column,
                                    unit,
                                    value.unit(),
                                    value.name(),
                                    Units.quantity(value.unit())
                                            .map(q -> String.join(", ", Units.of(q)))
                                            .orElse(value.unit())));
        }
        return known.get();
    }

    static CsvImport.Mapped inUnit(CsvImport.Mapped own, String unit) {
        Value v = own.value();
        return new CsvImport.Mapped(
                new Value(
                        v.id(),
                        v.module(),
                        v.did(),
                        v.bytes(),
                        v.signed(),
                        v.scale(),
                        v.offset(),
                        v.name(),
                        unit,
                        unit,
                        v.digits(),
                        v.states(),
                        v.words(),
                        v.ranges()),
                unit);
    }
}
