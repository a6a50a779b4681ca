package brightlantern.core.reason;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Fault;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.GaugeState;
import brightlantern.core.circuit.Wear;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Repair;
import brightlantern.core.suspect.Suspect;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleFunction;

/** Sensors that tell wrong, and modules that misread them. */
final class LyingSuspects {
    private static final String BIASED = "-biased";
    private static final String MISREAD = "-misread";

    private final Shows shows;

    LyingSuspects(Shows shows) {
        this.shows = shows;
    }

    /** Those of a part of a circuit. */
    List<Suspect> of(Circuit c, Component part) {
        List<Suspect> all = new ArrayList<>();
        biased(c, part).ifPresent(all::add);
        misread(c, part).ifPresent(all::add);
        return all;
    }

    /** A sensor that tells something else than what is there. */
    private Optional<Suspect> biased(Circuit c, Component part) {
        boolean compared =
                c.gauges().stream().anyMatch(g -> g.isCompared() && g.part().equals(part.id()));
        if (!compared) {
            return Optional.empty();
        }
        return off(
                c,
                new Effect.Off(c.id(), part.id(), 0, 0, false),
                part.name(),
                Wear.BIASED,
                Repairs.of(
                        part.id() + BIASED,
                        Wear.BIASED,
                        DrawnSuspects.lower(part.name()),
                        part.name()));
    }

    /** A module that makes something else of what arrives at its pin. */
    private Optional<Suspect> misread(Circuit c, Component part) {
        Optional<Gauge> read =
                c.gauges().stream()
                        .filter(g -> g.isCompared() && g.scale().input().equals(part.id()))
                        .findFirst();
        return read.flatMap(
                g ->
                        off(
                                c,
                                new Effect.Off(c.id(), part.id(), 0, 0, true),
                                "Signal of "
                                        + DrawnSuspects.lower(
                                                c.component(g.part()).orElseThrow().name()),
                                Wear.MISREAD,
                                Repairs.ofModule(
                                        part.id() + MISREAD, Wear.MISREAD, "input " + g.from())));
    }

    private Optional<Suspect> off(Circuit c, Effect.Off of, String name, Wear wear, Repair repair) {
        DoubleFunction<Fault> as =
                by -> of.misread() ? new Fault.Misread(of.of(), by) : new Fault.Biased(of.of(), by);
        GaugeState.Off edges = shows.state(c).off(as);
        if (!edges.shows()) {
            return Optional.empty();
        }
        List<Fault> sizes = new ArrayList<>();
        if (edges.down() > 0) {
            sizes.addAll(Shows.sizes(edges.down() / GaugeState.Off.MOST_TIMES, edges.down(), as));
        }
        if (edges.up() > 0) {
            sizes.addAll(Shows.sizes(edges.up(), edges.up() * GaugeState.Off.MOST_TIMES, as));
        }
        String id = of.of() + (of.misread() ? MISREAD : BIASED);
        return Optional.of(
                Shows.suspect(
                        id,
                        name + " " + wear.broken(),
                        wear,
                        new Effect.Off(c.id(), of.of(), edges.down(), edges.up(), of.misread()),
                        shows.of(sizes.get(sizes.size() / 2)).with(shows.doubted(sizes, 1)),
                        Map.of(),
                        repair));
    }
}
