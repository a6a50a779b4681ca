package brightlantern.core.reason;

/**
 * How one finding moved one suspect.
 *
 * @param evidenceIndex place of the finding among those that were weighed
 * @param log10Odds log10 of how much likelier the finding is under this suspect than under the
 *     others together
 * @param foretold what it should have come to under the suspect; empty where no figure is foretold
 */
public record Contribution(int evidenceIndex, double log10Odds, String foretold) {}
