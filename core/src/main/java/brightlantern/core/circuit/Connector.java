package brightlantern.core.circuit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A connector, with all that sits in it on whatever sheet.
 *
 * @param pins by their numbers
 */
public record Connector(String plug, List<Pin> pins) {
    /**
     * What sits at a pin.
     *
     * @param contact the contact, as a part
     * @param at the point at which a probe touches it
     * @param wires that lead to it
     * @param rest volts at rest, everything switched off, at a typical supply
     * @param work the most that a setting moves it to; the same where none does
     * @param setting under which that is; empty for none
     */
    public record Pin(
            String number,
            Circuit circuit,
            Segment contact,
            ProbePoint at,
            List<Segment> wires,
            double rest,
            double work,
            String setting) {}

    /** The connector of that name; empty where no sheet has one. */
    public static Optional<Connector> of(List<Circuit> circuits, String plug) {
        List<Pin> pins = new ArrayList<>();
        for (Circuit c : circuits) {
            for (Segment s : c.segments()) {
                s.pin()
                        .filter(p -> p.plug().equals(plug))
                        .ifPresent(p -> pins.add(pin(c, s, p.number())));
            }
        }
        pins.sort(
                Comparator.comparingInt((Pin p) -> p.number().length()).thenComparing(Pin::number));
        return pins.isEmpty() ? Optional.empty() : Optional.of(new Connector(plug, pins));
    }

    private static Pin pin(Circuit c, Segment contact, String number) {
        String at = contact.from();
        double rest = volts(c, at, Set.of());
        double work = rest;
        String setting = "";
        for (Setting s : c.settings()) {
            double under = Setting.unplugs(s.id()) ? rest : volts(c, at, Set.of(s.id()));
            if (Math.abs(under - rest) > Math.abs(work - rest)) {
                work = under;
                setting = s.name();
            }
        }
        List<Segment> wires =
                c.segments().stream()
                        .filter(s -> s.kind().isLine())
                        .filter(s -> s.from().equals(at) || s.to().equals(at))
                        .toList();
        return new Pin(number, c, contact, c.point(at), wires, rest, work, setting);
    }

    private static double volts(Circuit c, String at, Set<String> settings) {
        return new CircuitModel(c)
                .solve(OperatingState.idle(GaugeState.TYPICAL_VOLTS).moving(settings), List.of())
                .volts()
                .get(at);
    }
}
