package brightlantern.core.reason;

import brightlantern.core.capture.ContactStudy;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Finding;
import brightlantern.core.suspect.FindingOutcome;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What is moved by hand to see whether it comes and goes: connectors, relays, fuses, earths. */
final class Shaken {
    static final String STEADY = ContactStudy.STEADY;
    static final String JUMPS = ContactStudy.JUMPS;
    private static final double MINUTES = 3;

    private final String id;
    private final String act;
    private final String name;
    private final ProbePoint at;

    private Shaken(String id, String act, String name, ProbePoint at) {
        this.id = id;
        this.act = act;
        this.name = name;
        this.at = at;
    }

    /** All that can be moved in some circuits, by the id of its finding. */
    static Map<String, Shaken> of(List<Circuit> circuits) {
        Map<String, Shaken> all = new LinkedHashMap<>();
        for (Circuit c : circuits) {
            for (Segment s : c.segments()) {
                of(c, s).ifPresent(x -> all.putIfAbsent(id(x.id), x));
            }
        }
        return all;
    }

    private static Optional<Shaken> of(Circuit c, Segment s) {
        ProbePoint at = c.point(s.from());
        return s.pin()
                .map(p -> new Shaken(p.plug(), "Move the harness at ", p.plug(), at))
                .or(
                        () ->
                                s.isTapped()
                                        ? Optional.of(
                                                new Shaken(
                                                        s.id(),
                                                        "Tap and move ",
                                                        DrawnSuspects.lower(s.name()),
                                                        at))
                                        : Optional.empty());
    }

    /** The finding that tells whether something jumps while a connector or a part is moved. */
    static String id(String moved) {
        return ContactStudy.MOVED + moved;
    }

    static boolean isFinding(String findingId) {
        return findingId.startsWith(ContactStudy.MOVED);
    }

    Finding finding() {
        return new Finding(
                id(id),
                "Moved: " + name,
                List.of(
                        new FindingOutcome(STEADY, "all steady", 1 - DrawnCircuits.MISREAD),
                        new FindingOutcome(
                                JUMPS, "something flickers or jumps", DrawnCircuits.MISREAD)),
                "");
    }

    Check check() {
        return new Check.Look(
                id(id),
                act + name + " and watch what hangs on it (" + at.place() + ")",
                "trace",
                List.of(id(id)),
                at.minutes() + MINUTES,
                "What comes and goes is sound while nobody touches it; shaken, it shows.",
                "");
    }
}
