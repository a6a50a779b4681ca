package brightlantern.app.job;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * What is told of a visit when a vehicle is brought; all of it may be empty.
 *
 * @param plate number plate
 * @param customer who brought it
 * @param order number under which the workshop's own papers have it
 * @param lamps warning lamps that were seen, each in words
 */
public record Visit(String plate, String customer, String order, List<String> lamps) {
    private static final int LONGEST_PLATE = 20;
    private static final int LONGEST_CUSTOMER = 200;
    private static final int LONGEST_ORDER = 60;

    /**
     * Warning lamps by which people know them (symbols of ISO 2575). None has a comma: a form that
     * sends a single one would be taken for two.
     */
    public static final List<String> LAMPS =
            List.of(
                    "engine",
                    "engine flashing",
                    "oil pressure",
                    "battery",
                    "coolant too hot",
                    "preheating",
                    "soot filter",
                    "brakes",
                    "antilock brakes",
                    "stability control",
                    "steering",
                    "restraint system",
                    "tyre pressure",
                    "gearbox",
                    "suspension",
                    "high voltage",
                    "a lamp is out");

    /** Of whom nothing was told; after the lamps, which it looks at. */
    public static final Visit UNTOLD = new Visit("", "", "", List.of());

    public Visit {
        plate = Cut.to(LONGEST_PLATE, OrEmpty.text(plate).strip());
        customer = Cut.to(LONGEST_CUSTOMER, OrEmpty.text(customer).strip());
        order = Cut.to(LONGEST_ORDER, OrEmpty.text(order).strip());
        // what a form sends beside those that it offers is none
        lamps = LAMPS.stream().filter(OrEmpty.list(lamps)::contains).toList();
    }
}
