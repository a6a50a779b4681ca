package brightlantern.core.circuit;

import brightlantern.core.description.OrEmpty;

/**
 * What a gauge shows up to a share of its nominal voltage.
 *
 * @param upTo share below which it shows this; the last of a gauge has no end
 * @param code that its module sets while it shows this; empty for none
 * @param well whether a healthy circuit shows it
 */
public record Band(String id, String name, double upTo, String code, boolean well) {
    public Band {
        code = OrEmpty.text(code);
    }
}
