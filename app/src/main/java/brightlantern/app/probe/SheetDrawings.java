package brightlantern.app.probe;

import brightlantern.app.job.Findings;
import brightlantern.app.page.Drawings;
import brightlantern.app.page.JobPages;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.suspect.Evidence;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Sheets on which volts were lost, with what was read at each point. */
@Component
class SheetDrawings implements Drawings {
    private static final int MOST = 2;

    private final Findings findings;

    SheetDrawings(Findings findings) {
        this.findings = findings;
    }

    /**
     * @param volts the newest reading of each point
     */
    record Paper(CircuitSheet sheet, List<Volts> volts) {}

    record Volts(int x, int y, String told, boolean lost) {}

    @Override
    public List<Drawing> of(JobPages.Context context, Instant repaired) {
        Map<String, List<Evidence.Reading>> taken = new LinkedHashMap<>();
        for (Findings.Finding f : findings.of(context.job().id())) {
            if (f.at().isBefore(repaired)
                    && f.evidence().orElse(null) instanceof Evidence.Reading reading) {
                taken.computeIfAbsent(reading.circuitId(), c -> new ArrayList<>()).add(reading);
            }
        }
        List<Drawing> drawings = new ArrayList<>();
        taken.forEach(
                (id, readings) -> {
                    Optional<Circuit> circuit = context.description().circuit(id);
                    if (circuit.isPresent()
                            && drawings.size() < MOST
                            && readings.stream().anyMatch(r -> !r.right())) {
                        drawings.add(drawn(circuit.get(), readings));
                    }
                });
        return drawings;
    }

    private static Drawing drawn(Circuit circuit, List<Evidence.Reading> readings) {
        CircuitSheet sheet = CircuitSheet.of(circuit, List.of(), "", readings, Map.of());
        List<Volts> volts = new ArrayList<>();
        for (CircuitSheet.Pin pin : sheet.pins()) {
            readings.stream()
                    .filter(r -> r.pointId().equals(pin.id()))
                    .reduce((older, newer) -> newer)
                    .ifPresent(
                            r ->
                                    volts.add(
                                            new Volts(
                                                    pin.x(),
                                                    pin.y(),
                                                    String.format(Locale.ROOT, "%.2f V", r.volts()),
                                                    !r.right())));
        }
        return new Drawing(
                circuit.name() + ": what was read before the repair",
                "probe/sheet-paper",
                new Paper(sheet, volts));
    }
}
