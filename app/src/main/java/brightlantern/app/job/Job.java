package brightlantern.app.job;

import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * One vehicle's visit for one complaint.
 *
 * @param vehicleId id of the description; empty when none fits
 * @param address host of the vehicle's DoIP gateway
 * @param meter host:port of the meter; empty when readings are typed in
 * @param odometer km, as read or told at intake; NaN when nobody knew
 * @param visit what was told when it was brought
 */
public record Job(
        long id,
        Instant opened,
        Optional<Instant> closed,
        String openedBy,
        String vehicleId,
        String vin,
        String address,
        String meter,
        String complaint,
        Set<String> symptoms,
        double odometer,
        String earlier,
        Visit visit) {
    /** A job of a vehicle of which nothing more was told. */
    public Job(
            long id,
            Instant opened,
            Optional<Instant> closed,
            String openedBy,
            String vehicleId,
            String vin,
            String address,
            String meter,
            String complaint,
            Set<String> symptoms,
            double odometer,
            String earlier) {
        this(
                id,
                opened,
                closed,
                openedBy,
                vehicleId,
                vin,
                address,
                meter,
                complaint,
                symptoms,
                odometer,
                earlier,
                Visit.UNTOLD);
    }

    /** The odometer, in words. */
    public String distance() {
        return Double.isNaN(odometer)
                ? "odometer not read"
                : String.format(Locale.ROOT, "%.0f km", odometer);
    }

    public boolean isOpen() {
        return closed.isEmpty();
    }
}
