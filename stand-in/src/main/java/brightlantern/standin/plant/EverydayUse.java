package brightlantern.standin.plant;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Need;
import brightlantern.core.circuit.Setting;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;

/** What comes out when somebody uses all that circuits feed, and what is said of it. */
public final class EverydayUse {
    private final Circuits circuits;

    public EverydayUse(Circuits circuits) {
        this.circuits = circuits;
    }

    /**
     * Uses everything once, as somebody does in a day, and looks at it; what was not well, as far
     * as a driver or a module notices it.
     */
    public List<Gauge> used(Part.Watcher watcher) {
        synchronized (circuits) {
            List<Gauge> wrong = new ArrayList<>(circuits.with(Set.of(), () -> wrong(Gauge::isOff)));
            wrong.addAll(circuits.with(everything(), () -> on(watcher)));
            return wrong;
        }
    }

    private List<Gauge> on(Part.Watcher watcher) {
        List<Gauge> wrong =
                circuits.moved(
                        () -> {
                            List<Gauge> its = wrong(g -> g.isNoticed() && !g.isOff());
                            looked(watcher);
                            return its;
                        });
        if (circuits.isAnyLoose()) {
            looked(watcher);
        }
        return wrong;
    }

    /** Modules that are silent while everything is on and what is loose is moved. */
    public Set<String> silenced() {
        synchronized (circuits) {
            return circuits.with(everything(), () -> circuits.moved(circuits::silent));
        }
    }

    /** Lets time pass while what is loose is moved, as on the road. */
    public void shaken(Runnable driven) {
        circuits.moved(
                () -> {
                    driven.run();
                    return true;
                });
    }

    /** What an engine cannot do while everything is on and what is loose is moved. */
    public List<Need> unmet(List<Need> needs) {
        synchronized (circuits) {
            return circuits.with(
                    everything(),
                    () -> circuits.moved(() -> Need.unmet(needs, circuits.working().out(needs))));
        }
    }

    /** How a driver tells of what does not work. */
    public String complaint(Gauge g) {
        synchronized (circuits) {
            Set<String> on = g.made().isEmpty() ? Set.of() : Set.of(g.made());
            Working.Shown shown =
                    circuits.with(
                            on,
                            () -> circuits.moved(() -> circuits.working().shown(g::equals).get(0)));
            String under =
                    shown.on().circuit().setting(g.made()).map(s -> ", " + s.name()).orElse("");
            return g.name()
                    + " "
                    + shown.band().name()
                    + under
                    + (circuits.isAnyLoose() ? ", now and then." : ".");
        }
    }

    private Set<String> everything() {
        return circuits.settings().keySet().stream()
                .filter(s -> !Setting.unplugs(s))
                .collect(Collectors.toSet());
    }

    /** What is not well, as far as a driver or a module notices it. */
    private List<Gauge> wrong(Predicate<Gauge> which) {
        return circuits.working().shown(which).stream()
                .filter(s -> !s.band().well())
                .filter(s -> s.gauge().told() || !s.band().code().isEmpty())
                .map(Working.Shown::gauge)
                .toList();
    }

    /** For as long as its modules need to believe what they see. */
    private void looked(Part.Watcher watcher) {
        for (double t = 0;
                t <= PinWatch.SET_SECONDS + PinWatch.LOOK_SECONDS;
                t += PinWatch.LOOK_SECONDS) {
            circuits.watch(PinWatch.LOOK_SECONDS, watcher);
        }
    }
}
