package brightlantern.app.probe;

import brightlantern.app.job.Findings;
import brightlantern.app.page.Format;
import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.HiddenResistance;
import brightlantern.core.circuit.Load;
import brightlantern.core.circuit.ProbeCondition;
import brightlantern.core.circuit.Sensed;
import brightlantern.core.circuit.SharedPoints;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;

/** The readings of a job, oldest first. */
final class TakenReadings {
    private record Kept(Findings.Finding finding, Evidence.Reading reading) {
        ProbeCondition condition() {
            return new ProbeCondition(
                    Load.named(reading.load()), reading.moving().stream().findFirst());
        }
    }

    private final List<Kept> all = new ArrayList<>();

    TakenReadings(List<Findings.Finding> findings) {
        for (Findings.Finding f : findings) {
            if (f.evidence().orElse(null) instanceof Evidence.Reading reading) {
                all.add(new Kept(f, reading));
            }
        }
    }

    /** Those in a circuit. */
    List<Evidence.Reading> in(Circuit circuit) {
        return all.stream()
                .map(Kept::reading)
                .filter(r -> r.circuitId().equals(circuit.id()))
                .toList();
    }

    /** Volts of the last one; empty without any. */
    OptionalDouble last() {
        return all.isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(all.get(all.size() - 1).reading().volts());
    }

    /** Whether the last one was taken in this circuit and under this condition. */
    boolean isAs(Circuit circuit, String conditionId) {
        if (all.isEmpty()) {
            return false;
        }
        Kept its = all.get(all.size() - 1);
        return its.reading().circuitId().equals(circuit.id())
                && its.condition().id().equals(conditionId);
    }

    /** As a table, newest first. */
    List<ProbeView.Taken> rows(VehicleDescription description) {
        List<ProbeView.Taken> rows = new ArrayList<>();
        SharedPoints shared = new SharedPoints(description.circuits());
        for (Kept kept : all) {
            Evidence.Reading r = kept.reading();
            // a sheet that is described no more takes its points with it
            Optional<Circuit> circuit = description.circuit(r.circuitId());
            circuit.ifPresent(
                    c ->
                            rows.add(
                                    0,
                                    row(
                                            kept,
                                            c,
                                            shared,
                                            Sensed.at(
                                                    c,
                                                    r.pointId(),
                                                    description::value,
                                                    r.told()))));
        }
        return rows;
    }

    private static ProbeView.Taken row(
            Kept kept, Circuit circuit, SharedPoints shared, Optional<Sensed> sensed) {
        Evidence.Reading r = kept.reading();
        return new ProbeView.Taken(
                Format.time(kept.finding().at()),
                circuit.point(r.pointId()).name(),
                kept.condition().name(circuit),
                String.format(Locale.ROOT, "%.3f", r.volts()),
                kept.condition()
                        .healthy(shared, circuit, r.pointId(), r.supplyVolts(), sensed)
                        .words(),
                r.right() ? "holds" : "fails");
    }

    /** Resistances that a reading with a load and one without give away together. */
    List<String> hidden(Circuit circuit) {
        Map<String, Evidence.Reading> rest = new LinkedHashMap<>();
        Map<String, Evidence.Reading> loaded = new LinkedHashMap<>();
        for (Evidence.Reading r : in(circuit)) {
            if (r.moving().isEmpty()) {
                (Load.named(r.load()) == Load.NOTHING ? rest : loaded).put(r.pointId(), r);
            }
        }
        List<String> sentences = new ArrayList<>();
        loaded.forEach(
                (point, under) -> {
                    if (rest.containsKey(point)) {
                        sentences.add(hidden(circuit, rest.get(point), under));
                    }
                });
        return sentences;
    }

    private static String hidden(
            Circuit circuit, Evidence.Reading without, Evidence.Reading under) {
        boolean earth = circuit.otherPole(under.pointId()).equals(Circuit.PLUS);
        HiddenResistance found =
                HiddenResistance.of(
                        earth ? 0 : under.supplyVolts(),
                        earth ? under.supplyVolts() : 0,
                        without.volts(),
                        under.volts(),
                        Load.named(under.load()));
        return circuit.point(under.pointId()).name() + ": " + found.sentence();
    }

    /** The newest reading of each kind counts: a point that was mended is believed again. */
    String answer() {
        Map<String, Findings.Finding> newest = new LinkedHashMap<>();
        for (Kept kept : all) {
            newest.remove(kept.reading().key());
            newest.put(kept.reading().key(), kept.finding());
        }
        if (newest.isEmpty()) {
            return "Nothing was measured yet. Choose a point on the sheet; the program says what it should read.";
        }
        List<String> wrong =
                newest.values().stream()
                        .filter(f -> !f.passed().orElse(true))
                        .map(Findings.Finding::text)
                        .toList();
        if (!wrong.isEmpty()) {
            boolean holdsNow =
                    all.get(all.size() - 1).finding().passed().orElse(true) && newest.size() > 1;
            return "Not as it should be: "
                    + wrong.get(wrong.size() - 1)
                    + (holdsNow
                            ? " %d of %d readings hold, the last one among them."
                                    .formatted(newest.size() - wrong.size(), newest.size())
                            : "");
        }
        return newest.size() == 1
                ? "The one reading is as it should be."
                : "All " + newest.size() + " readings are as they should be.";
    }
}
