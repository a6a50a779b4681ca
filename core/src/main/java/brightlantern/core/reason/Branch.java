package brightlantern.core.reason;

/**
 * What a check may come to, and where that leads.
 *
 * @param known what would be known then, in a sentence
 * @param next the check that would come then; empty when none would
 */
public record Branch(Possible possible, String known, String next) {}
