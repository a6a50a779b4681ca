package brightlantern.core.odometer;

import brightlantern.core.description.OrEmpty;

/**
 * Something that tells how far the vehicle has run.
 *
 * @param kind distance (km), hours, or count
 * @param least and most km an hour or a count stands for; both 1 for a distance
 * @param independent whether its module counts by itself, rather than being told by the cluster
 * @param history whether it holds entries with their times rather than one figure
 */
public record Mileage(
        String id,
        String name,
        String module,
        String kind,
        int did,
        int bytes,
        double scale,
        double least,
        double most,
        boolean independent,
        boolean history) {
    public Mileage {
        scale = OrEmpty.factor(scale);
        least = OrEmpty.factor(least);
        most = OrEmpty.factor(most);
    }
}
