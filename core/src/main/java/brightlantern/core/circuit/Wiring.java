package brightlantern.core.circuit;

import brightlantern.core.code.Code;
import brightlantern.core.description.OrEmpty;
import brightlantern.core.description.References;
import brightlantern.core.description.Slice;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The circuit sheets of a vehicle.
 *
 * @param circuits those that are written out, and after them those that are drawn from what is
 *     written of the others
 * @param needs what of them the engine needs
 */
public record Wiring(
        List<Circuit> circuits,
        List<FuseBox> fuseBoxes,
        List<EarthStud> earthStuds,
        List<Feeding> feedings,
        List<Sensing> sensings,
        List<Loop> loops,
        List<Need> needs)
        implements Slice {
    public Wiring {
        fuseBoxes = OrEmpty.list(fuseBoxes);
        earthStuds = OrEmpty.list(earthStuds);
        feedings = OrEmpty.list(feedings);
        sensings = OrEmpty.list(sensings);
        loops = OrEmpty.list(loops);
        needs = OrEmpty.list(needs);
        circuits = drawn(OrEmpty.list(circuits), fuseBoxes, earthStuds, feedings, sensings, loops);
    }

    private static List<Circuit> drawn(
            List<Circuit> written,
            List<FuseBox> fuseBoxes,
            List<EarthStud> earthStuds,
            List<Feeding> feedings,
            List<Sensing> sensings,
            List<Loop> loops) {
        Map<String, FuseBox> boxes = new HashMap<>();
        fuseBoxes.forEach(b -> boxes.put(b.id(), b));
        Map<String, EarthStud> studs = new HashMap<>();
        earthStuds.forEach(e -> studs.put(e.id(), e));
        Set<String> there = written.stream().map(Circuit::id).collect(Collectors.toSet());
        List<Circuit> all = new ArrayList<>(written);
        for (Feeding f : feedings) {
            // what names a box or stud that nobody described is told by the check, not drawn
            if (boxes.containsKey(f.box())
                    && studs.keySet().containsAll(FeedingPlan.studsOf(f))
                    && there.add(f.id())) {
                all.add(FeedingPlan.of(f, boxes, studs));
            }
        }
        for (Sensing s : sensings) {
            if (studs.containsKey(s.stud()) && there.add(s.id())) {
                all.add(SensingPlan.of(s, studs));
            }
        }
        for (Loop l : loops) {
            if (studs.containsKey(l.stud()) && there.add(l.id())) {
                all.add(LoopPlan.of(l, studs));
            }
        }
        return List.copyOf(all);
    }

    /**
     * Parts between which and a part no point lies that a probe can touch: one place to whoever
     * measures.
     *
     * @return ids, the part's own among them
     */
    public Set<String> alike(String partId) {
        Set<String> all = new HashSet<>(Set.of(partId));
        boolean grown = true;
        while (grown) {
            grown = false;
            for (Circuit c : circuits) {
                Set<String> hidden =
                        c.components().stream()
                                .filter(p -> all.contains(p.id()))
                                .flatMap(p -> Stream.of(p.from(), p.to()))
                                .filter(n -> !c.point(n).canBeProbed())
                                .collect(Collectors.toSet());
                for (Component p : c.components()) {
                    boolean there = hidden.contains(p.from()) || hidden.contains(p.to());
                    grown |= there && all.add(p.id());
                }
            }
        }
        return all;
    }

    /** Ids of the parts on sheets of what feeds control modules. */
    public Set<String> feedingModules() {
        return parts(Circuit::feedsModules);
    }

    /** Those of them that feed nothing else. */
    public Set<String> feedingOnlyModules() {
        Set<String> only = feedingModules();
        only.removeAll(parts(c -> !c.feedsModules()));
        return only;
    }

    private Set<String> parts(Predicate<Circuit> which) {
        return circuits.stream()
                .filter(which)
                .flatMap(c -> c.components().stream())
                .map(Component::id)
                .collect(Collectors.toCollection(HashSet::new));
    }

    /** Codes that modules set by what they see at their pins. */
    public List<Code> codes() {
        return GaugeCodes.of(circuits);
    }

    /** The sheets on which a part stands. */
    public List<Circuit> with(String partId) {
        return circuits.stream().filter(c -> c.component(partId).isPresent()).toList();
    }

    /** The sheet of an id, if it is described. */
    public Optional<Circuit> circuit(String circuitId) {
        return circuits.stream().filter(c -> c.id().equals(circuitId)).findFirst();
    }

    @Override
    public void define(References references) {
        references.define("circuits", "a circuit", circuits, Circuit::id);
        for (Circuit c : circuits) {
            references.add(
                    "a motor of circuit " + c.id(),
                    c.motors().stream().map(MotorPart::id).toList());
            references.add(
                    "a segment of circuit " + c.id(),
                    c.segments().stream().map(Segment::id).toList());
            references.add(
                    "a point of circuit " + c.id(),
                    c.points().stream().map(ProbePoint::id).toList());
        }
    }

    @Override
    public void check(References references) {
        references.each(
                "circuits",
                circuits,
                (c, at) -> {
                    Set<String> points =
                            c.points().stream().map(ProbePoint::id).collect(Collectors.toSet());
                    Stream.concat(
                                    Stream.of("BAT+", "BAT-"),
                                    c.components().stream()
                                            .flatMap(p -> Stream.of(p.from(), p.to())))
                            .forEach(id -> at.among("a point", points, id));
                });
        references.each(
                "circuits", circuits, (c, at) -> CircuitCheck.mistakes(c).forEach(at::wrong));
        Set<String> gauges =
                circuits.stream()
                        .flatMap(c -> c.gauges().stream())
                        .map(Gauge::id)
                        .collect(Collectors.toSet());
        references.each(
                "needs",
                needs,
                (n, at) -> {
                    n.gauges().forEach(id -> at.among("a gauge", gauges, id));
                    at.may("a symptom", n.symptom());
                    at.needs("a finding", n.tells().keySet());
                });
        Set<String> pins = new HashSet<>();
        Set<String> boxes = fuseBoxes.stream().map(FuseBox::id).collect(Collectors.toSet());
        Set<String> studs = earthStuds.stream().map(EarthStud::id).collect(Collectors.toSet());
        references.each(
                "feedings",
                feedings,
                (f, at) -> {
                    at.among("a fuse box", boxes, f.box());
                    FeedingPlan.studsOf(f).forEach(id -> at.among("an earth stud", studs, id));
                    for (Feeding.Fed fed : f.feeds()) {
                        at.may("a module", fed.module());
                        at.may("a value", fed.value());
                        fed.pins().forEach(pin -> once(pins, fed.plug(), pin, at));
                    }
                });
        references.each(
                "sensings",
                sensings,
                (s, at) -> {
                    at.among("an earth stud", studs, s.stud());
                    at.needs("a module", s.module());
                    for (Sensing.Felt f : s.sensors()) {
                        at.may("a value", f.value());
                        f.pins().forEach(pin -> once(pins, f.plug(), pin, at));
                        once(pins, s.plug(), f.at(), at);
                        int count = f.kind() == Sensing.Kind.DIVIDER ? 3 : 2;
                        if (f.pins().size() != count) {
                            at.wrong(
                                    "expected "
                                            + count
                                            + " pins of "
                                            + f.id()
                                            + ", found "
                                            + f.pins().size());
                        }
                        if (count == 3 && s.reference().isEmpty()) {
                            at.wrong("expected a reference pin, which " + f.id() + " needs");
                        }
                    }
                });
        checkLoops(references, studs, pins);
    }

    private void checkLoops(References references, Set<String> studs, Set<String> pins) {
        references.each(
                "loops",
                loops,
                (l, at) -> {
                    at.among("an earth stud", studs, l.stud());
                    at.needs("a module", l.module());
                    once(pins, l.plug(), l.out(), at);
                    once(pins, l.plug(), l.back(), at);
                    l.links().forEach(k -> k.pins().forEach(pin -> once(pins, k.plug(), pin, at)));
                });
    }

    private static void once(Set<String> pins, String plug, String pin, References.At at) {
        if (!pins.add(plug + "." + pin)) {
            at.wrong("pin " + pin + " of " + plug + " is used twice, expected once");
        }
    }
}
