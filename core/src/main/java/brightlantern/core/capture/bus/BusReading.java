package brightlantern.core.capture.bus;

import brightlantern.core.capture.CaptureReading;
import brightlantern.core.network.Bus;
import java.util.List;

/**
 * What a capture of its wires says of one bus.
 *
 * @param stations in the order of the wire, the gateway first
 */
public record BusReading(Bus bus, List<BusStudy.Station> stations, BusStudy.Judgement judgement)
        implements CaptureReading {
    public BusReading {
        stations = List.copyOf(stations);
    }

    @Override
    public String sentence() {
        return bus.name() + ": " + judgement.sentence();
    }

    @Override
    public List<String> reasons() {
        return judgement.reasons();
    }

    @Override
    public boolean holds() {
        return judgement.holds();
    }

    /** Wires are no finding of a description: what they show is evidence of its own kind. */
    @Override
    public List<Told> tells() {
        return List.of();
    }
}
