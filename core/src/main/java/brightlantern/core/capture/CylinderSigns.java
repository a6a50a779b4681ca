package brightlantern.core.capture;

/**
 * What one cranking shows of a cylinder, each as a share.
 *
 * @param cylinder its number
 * @param compression peak of the starting current against the middle cylinder; NaN without a clamp
 * @param intake and exhaust and crankcase: gas that comes there near its compression dead centre,
 *     beyond what the middle cylinder lets there, as a share of the lane's own swing; NaN without
 *     that lane
 * @param left gas that is left when its exhaust valve opens, against the middle cylinder, as a
 *     share of the exhaust lane's swing; below zero when it lost some; NaN without that lane
 */
public record CylinderSigns(
        int cylinder,
        double compression,
        double intake,
        double exhaust,
        double crankcase,
        double left) {}
