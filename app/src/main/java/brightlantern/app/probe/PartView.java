package brightlantern.app.probe;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Connector;
import brightlantern.core.circuit.Lost;
import brightlantern.core.circuit.ProbePoint;
import brightlantern.core.circuit.Segment;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The page of one part of the circuits, or of a connector.
 *
 * @param doubt how sure it is that the fault is there, in words; empty when it hardly is
 * @param lost what no longer works without it, by the sheet that shows it
 * @param pins of a connector; empty for all else
 * @param face of a connector whose pins are counted; null for all else
 */
record PartView(
        String name,
        String place,
        String doubt,
        List<ProbeView.SheetLink> sheets,
        Map<ProbeView.SheetLink, List<String>> lost,
        List<PinRow> pins,
        FaceView face) {
    /**
     * A pin of a connector.
     *
     * @param wires that lead to it, and where they come from
     * @param rest volts at rest
     * @param work volts at work, and when; empty where that is no other
     */
    record PinRow(
            String number,
            String circuit,
            String sheet,
            String point,
            String name,
            String wires,
            String rest,
            String work) {}

    /** Volts that are no other. */
    private static final double SAME_VOLTS = 0.05;

    /**
     * The page of a part, or of a connector; empty where there is none of that name.
     *
     * @param doubt part → probability that the fault is there
     */
    static Optional<PartView> of(VehicleDescription d, String id, Map<String, Double> doubt) {
        Optional<Connector> connector = Connector.of(d.circuits(), id);
        if (connector.isPresent()) {
            return Optional.of(connector(d, connector.get(), doubt));
        }
        List<Circuit> with = d.wiring().with(id);
        return with.isEmpty() ? Optional.empty() : Optional.of(part(d, id, with, doubt));
    }

    private static PartView connector(
            VehicleDescription d, Connector its, Map<String, Double> doubt) {
        Set<String> contacts =
                its.pins().stream().map(p -> p.contact().id()).collect(Collectors.toSet());
        double sure = contacts.stream().mapToDouble(c -> doubt.getOrDefault(c, 0.0)).sum();
        return new PartView(
                "Connector " + its.plug(),
                place(its.pins().get(0).at()),
                doubt(sure),
                sheets(its.pins().stream().map(Connector.Pin::circuit).distinct().toList()),
                lost(d, contacts),
                its.pins().stream().map(PartView::row).toList(),
                FaceView.of(its).orElse(null));
    }

    private static PartView part(
            VehicleDescription d, String id, List<Circuit> with, Map<String, Double> doubt) {
        Circuit first = with.get(0);
        Component part = first.component(id).orElseThrow();
        return new PartView(
                part.name(),
                first.probe(part.from())
                        .or(() -> first.probe(part.to()))
                        .map(PartView::place)
                        .orElse("no end of it can be reached"),
                doubt(doubt.getOrDefault(id, 0.0)),
                sheets(with),
                lost(d, Set.of(id)),
                List.of(),
                null);
    }

    private static String place(ProbePoint at) {
        return String.format(Locale.ROOT, "%s, %.0f min to get at", at.place(), at.minutes());
    }

    private static String doubt(double sure) {
        return sure <= 0
                ? ""
                : String.format(
                        Locale.ROOT,
                        "After what was found, the fault is here with %.0f %%.",
                        100 * sure);
    }

    private static List<ProbeView.SheetLink> sheets(List<Circuit> circuits) {
        return circuits.stream().map(PartView::sheet).toList();
    }

    private static ProbeView.SheetLink sheet(Circuit c) {
        return new ProbeView.SheetLink(c.id(), c.name(), false);
    }

    private static Map<ProbeView.SheetLink, List<String>> lost(
            VehicleDescription d, Set<String> open) {
        Map<ProbeView.SheetLink, List<String>> all = new LinkedHashMap<>();
        for (Lost l : Lost.with(d.circuits(), open)) {
            all.computeIfAbsent(sheet(l.circuit()), s -> new ArrayList<>())
                    .add(l.gauge().name() + " " + l.shows().name());
        }
        return all;
    }

    private static PinRow row(Connector.Pin p) {
        String wires =
                p.wires().stream()
                        .map(w -> w.name() + " to " + other(p, w).name())
                        .collect(Collectors.joining("; "));
        return new PinRow(
                p.number(),
                p.circuit().id(),
                p.circuit().name(),
                p.at().id(),
                p.at().name(),
                wires,
                volts(p.rest()),
                Math.abs(p.work() - p.rest()) < SAME_VOLTS
                        ? ""
                        : volts(p.work()) + ", " + p.setting());
    }

    private static ProbePoint other(Connector.Pin p, Segment wire) {
        return p.circuit().point(wire.from().equals(p.at().id()) ? wire.to() : wire.from());
    }

    private static String volts(double volts) {
        // a floating millivolt would read -0.00
        return String.format(Locale.ROOT, "%.2f V", Math.abs(volts) < 0.005 ? 0 : volts);
    }
}
