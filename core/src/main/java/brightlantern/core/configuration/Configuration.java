package brightlantern.core.configuration;

import java.util.List;
import java.util.Optional;

/**
 * All that a module is told.
 *
 * @param module id of the module
 */
public record Configuration(String id, String name, String module, List<Item> items) {
    public Configuration {
        items = List.copyOf(items);
    }

    /** The item of an id, if there is one. */
    public Optional<Item> item(String itemId) {
        return items.stream().filter(i -> i.id().equals(itemId)).findFirst();
    }
}
