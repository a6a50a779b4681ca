/**
 * Fuel trims: what the mixture control had to add or take away, in which regime, and where its
 * learning will settle. Start with {@link brightlantern.core.study.trim.TrimStudy}.
 */
package brightlantern.core.study.trim;
