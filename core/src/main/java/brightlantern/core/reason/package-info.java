/**
 * How evidence is weighed over suspects, and which check tells most next. Start with {@link
 * brightlantern.core.reason.Reasoner}.
 */
package brightlantern.core.reason;
