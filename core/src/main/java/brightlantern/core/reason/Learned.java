package brightlantern.core.reason;

import brightlantern.core.suspect.Evidence;

/**
 * A piece of evidence that was learned.
 *
 * @param logs natural logarithm of its likelihood under each hypothesis
 */
record Learned(Evidence piece, double[] logs) {}
