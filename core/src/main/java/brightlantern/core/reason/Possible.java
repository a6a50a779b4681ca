package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;

/**
 * What a check may come to.
 *
 * @param seen what it shows, in words
 * @param chance that it shows this, 0 … 1
 * @param piece as evidence
 */
public record Possible(String seen, double chance, Evidence piece) {}
