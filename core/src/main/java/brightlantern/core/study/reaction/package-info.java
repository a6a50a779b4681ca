/**
 * Whether a value moves when another is commanded. Start with {@link
 * brightlantern.core.study.reaction.ReactionCheck}.
 */
package brightlantern.core.study.reaction;
