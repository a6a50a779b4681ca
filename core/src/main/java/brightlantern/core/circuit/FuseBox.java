package brightlantern.core.circuit;

/**
 * Where fuses sit, fed from the battery by a cable.
 *
 * @param cable id of the cable
 * @param minutes to get at its feed
 */
public record FuseBox(
        String id, String name, String cable, double ohm, String place, double minutes) {}
