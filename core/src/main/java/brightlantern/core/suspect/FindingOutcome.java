package brightlantern.core.suspect;

/**
 * @param healthy probability on a healthy vehicle
 */
public record FindingOutcome(String id, String name, double healthy) {}
