package brightlantern.core.suspect;

/**
 * @param kind series (ohms added in a segment) or drag (load current of a motor multiplied)
 * @param of segment or motor
 * @param from smallest, to largest severity
 */
public record Effect(String kind, String circuit, String of, double from, double to) {}
