/**
 * The study of a controlled quantity against its target along a stretch of a take. Start with
 * {@link brightlantern.core.study.target.TargetStudy}.
 */
package brightlantern.core.study.target;
