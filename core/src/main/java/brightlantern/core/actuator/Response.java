package brightlantern.core.actuator;

/**
 * A value that follows an actuator.
 *
 * @param by change from low to high at least, in the value's own unit; negative when it falls
 * @param seconds after the command until it begins to move, at most
 */
public record Response(String value, double by, double seconds) {}
