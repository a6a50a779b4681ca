package brightlantern.app.sweep;

import brightlantern.core.network.ControlModule;
import brightlantern.core.network.Network;
import brightlantern.core.network.NetworkReasoner;
import brightlantern.core.network.RollCall;
import brightlantern.core.signal.Words;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** A roll call as rows, elements and a matrix. */
final class RollCallRows {
    static final int SHOWN = 6;

    private RollCallRows() {}

    /**
     * One module in the table.
     *
     * @param rate and delay in words; empty before the first answer
     */
    record Row(
            String id,
            String name,
            String bus,
            String state,
            String rate,
            String rateRunning,
            String asked,
            String delay,
            int changes,
            boolean fitted,
            String reason) {}

    record Element(
            String name,
            String sure,
            int width,
            String place,
            String minutes,
            List<String> reasons) {}

    /** Who misses whom: a row a listener, a column a missing one. */
    record Matrix(List<String> missing, List<MatrixRow> rows) {}

    record MatrixRow(String listener, List<String> cells) {}

    static BusMap.Mark mark(ControlModule module, Optional<RollCaller.Call> call, Set<String> has) {
        if (!has.contains(module.id())) {
            return new BusMap.Mark("absent", 0, "not fitted");
        }
        if (module.id().equals(Network.GATEWAY)) {
            return new BusMap.Mark("answered", 0, "asks the others");
        }
        String state =
                call.map(c -> c.heard().get(module.id()))
                        .map(RollCaller.Heard::state)
                        .orElse("waiting");
        return new BusMap.Mark(
                state,
                0,
                switch (state) {
                    case "answered" -> "answers every time";
                    case "silent" -> "silent";
                    case "flickering" -> "comes and goes";
                    default -> "not asked yet";
                });
    }

    static String rate(RollCall.Tally tally) {
        return tally.asked() == 0 ? "" : String.format(Locale.ROOT, "%.0f %%", 100 * tally.rate());
    }

    static Element element(NetworkReasoner.Standing s) {
        return new Element(
                s.name(),
                Words.percent(s.sureness()),
                (int) Math.round(200 * s.sureness()),
                s.element().map(e -> e.place()).orElse(""),
                s.element()
                        .map(e -> String.format(Locale.ROOT, "%.0f min", e.minutes()))
                        .orElse(""),
                s.reasons());
    }

    static Matrix matrix(VehicleDescription d, RollCall heard) {
        List<ControlModule> missing =
                d.modules().stream()
                        .filter(
                                m ->
                                        heard.misses().stream()
                                                .anyMatch(x -> x.missing().equals(m.id())))
                        .toList();
        List<MatrixRow> rows = new ArrayList<>();
        for (ControlModule listener : d.modules()) {
            boolean complains =
                    heard.misses().stream().anyMatch(x -> x.listener().equals(listener.id()));
            if (complains) {
                rows.add(
                        new MatrixRow(
                                listener.name(),
                                missing.stream()
                                        .map(
                                                m ->
                                                        heard.misses()
                                                                        .contains(
                                                                                new RollCall.Miss(
                                                                                        listener
                                                                                                .id(),
                                                                                        m.id()))
                                                                ? "misses"
                                                                : listener.watches()
                                                                                .contains(m.id())
                                                                        ? "hears"
                                                                        : "")
                                        .toList()));
            }
        }
        return new Matrix(missing.stream().map(ControlModule::name).toList(), rows);
    }
}
