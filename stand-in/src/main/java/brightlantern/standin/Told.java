package brightlantern.standin;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * What the driver of a vehicle says of it.
 *
 * @param symptoms ids of those that he tells
 * @param earlier what was done to it before
 */
public record Told(String complaint, List<String> symptoms, String earlier) {
    static final Told NOTHING = new Told("", List.of(), "");

    public Told {
        complaint = OrEmpty.text(complaint);
        symptoms = OrEmpty.list(symptoms);
        earlier = OrEmpty.text(earlier);
    }
}
