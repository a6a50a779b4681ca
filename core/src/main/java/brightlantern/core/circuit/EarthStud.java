package brightlantern.core.circuit;

/**
 * Where earth wires are bolted to the body.
 *
 * @param minutes to get at it
 */
public record EarthStud(String id, String name, String place, double minutes) {}
