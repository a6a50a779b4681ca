package brightlantern.core.circuit;

import brightlantern.core.code.Code;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** Codes of what modules see at the pins of their circuits. */
final class GaugeCodes {
    /** How much such a code has to do with a complaint, 0 … 1. */
    private static final double CODE_WEIGHT = 0.6;

    private GaugeCodes() {}

    /**
     * Codes that modules set by what they see at their pins, which are described beside those that
     * are written.
     */
    static List<Code> of(List<Circuit> circuits) {
        List<Code> all = new ArrayList<>();
        Set<String> codes = new HashSet<>();
        for (Circuit c : circuits) {
            for (Gauge g : c.gauges()) {
                for (Band b : g.bands()) {
                    if (!b.code().isEmpty() && codes.add(g.module() + b.code())) {
                        all.add(
                                new Code(
                                        b.code(),
                                        g.module(),
                                        g.isCompared()
                                                ? c.component(g.part()).orElseThrow().name()
                                                        + ": what it tells cannot be true"
                                                : g.name() + ": " + b.name(),
                                        CODE_WEIGHT,
                                        g.id(),
                                        "",
                                        "",
                                        "",
                                        List.of(),
                                        g.value(),
                                        List.of()));
                    }
                }
            }
        }
        return all;
    }
}
