package brightlantern.core.signal;

import java.util.Optional;

/** A value within limits (its own unit), held by ranges and gates alike. */
public record Condition(
        String value, Optional<Double> min, Optional<Double> max, String says, String opens) {}
