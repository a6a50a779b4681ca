/**
 * The vehicle's buses as wires: what each break, short, dead module or lost supply would silence,
 * and from answers, silence and codes of missed messages back to where the wire is broken. Start
 * with {@link brightlantern.core.network.NetworkModel}.
 */
package brightlantern.core.network;
