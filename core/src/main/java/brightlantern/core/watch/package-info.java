/**
 * What is worth watching on a vehicle. Start with {@link brightlantern.core.watch.ProposedLists}.
 */
package brightlantern.core.watch;
