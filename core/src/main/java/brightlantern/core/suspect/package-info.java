/**
 * Suspects, the findings that speak for or against them, and the checks that tell them apart. Start
 * with {@link brightlantern.core.suspect.Causes}, then {@link brightlantern.core.suspect.Evidence}.
 */
package brightlantern.core.suspect;
