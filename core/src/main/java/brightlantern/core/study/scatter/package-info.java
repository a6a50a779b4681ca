/**
 * Two values against each other, a third as colour. Start with {@link
 * brightlantern.core.study.scatter.Scatter}.
 */
package brightlantern.core.study.scatter;
