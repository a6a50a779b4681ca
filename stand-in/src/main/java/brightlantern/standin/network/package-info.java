/**
 * The buses of a stand-in as physical wires, and what breaks on them. Start with {@link
 * brightlantern.standin.network.BusWires}.
 */
package brightlantern.standin.network;
