/**
 * What must be shown before a repair counts as proven, ticked off from what was recorded. Start
 * with {@link brightlantern.core.proof.Proof}.
 */
package brightlantern.core.proof;
