/**
 * Possible causes, evidence for and against them weighed by Bayes, and the check that would tell
 * most. Start with {@link brightlantern.core.suspect.Reasoner}.
 */
package brightlantern.core.suspect;
