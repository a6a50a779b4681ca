package brightlantern.app.capture;

import brightlantern.app.job.Takes;
import brightlantern.app.page.UnitChoices;
import brightlantern.core.capture.LiveBeside;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Live values that a take of the job recorded while a capture ran, as further lanes of it. */
@Component
class LiveLanes {
    private static final int MOST = 12;

    private final Takes takes;
    private final UnitChoices units;

    LiveLanes(Takes takes, UnitChoices units) {
        this.takes = takes;
        this.units = units;
    }

    /**
     * Lanes in the columns of a picture, none of them shown before somebody wants it.
     *
     * @param seconds that the capture lasts
     * @param from and to: seconds of it
     */
    List<Map<String, Object>> of(
            Captures.Head head,
            VehicleDescription description,
            double seconds,
            double from,
            double to,
            int columns) {
        List<Map<String, Object>> lanes = new ArrayList<>();
        for (Takes.TakeHead t : takes.of(head.jobId())) {
            double later = Duration.between(t.started(), head.began()).toNanos() / 1e9;
            boolean over =
                    t.ended().filter(e -> e.isBefore(head.began().minusSeconds(1))).isPresent();
            // one that goes on would be read anew with each picture
            boolean goesOn = t.ended().isEmpty() && takes.running().contains(head.jobId());
            if (t.setAside() || goesOn || over || later < -seconds || !t.source().isEmpty()) {
                continue;
            }
            for (Map.Entry<String, Take.Column> e : takes.ended(t).columns().entrySet()) {
                Optional<Value> value = description.value(e.getKey());
                if (value.isPresent()
                        && lanes.size() < MOST
                        && LiveBeside.isWithin(e.getValue(), later, seconds)) {
                    String unit = units.unit(value.get().unit());
                    Double[] its = LiveBeside.columns(e.getValue(), later, from, to, columns);
                    lanes.add(
                            Map.of(
                                    "name",
                                    value.get().name() + ", live",
                                    "unit",
                                    unit,
                                    "aside",
                                    true,
                                    "scale",
                                    Units.convertDifference(1, value.get().unit(), unit),
                                    "offset",
                                    Units.convert(0, value.get().unit(), unit),
                                    "extents",
                                    its));
                }
            }
        }
        return lanes;
    }
}
