package brightlantern.core.take;

/**
 * When a step of a run was entered and left.
 *
 * @param from and to: seconds since the run began
 */
public record Stay(String step, double from, double to) {}
