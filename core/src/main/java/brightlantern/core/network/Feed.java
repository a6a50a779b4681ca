package brightlantern.core.network;

import brightlantern.core.description.OrEmpty;
import java.util.List;

/**
 * A fuse or an earth that modules share.
 *
 * @param kind supply or earth
 */
public record Feed(
        String id,
        String name,
        String kind,
        String place,
        double minutes,
        double common,
        List<String> modules) {
    public Feed {
        common = OrEmpty.factor(common);
        modules = OrEmpty.list(modules);
    }
}
