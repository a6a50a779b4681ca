/**
 * Circuits as direct-current networks: what a meter should read where, under which load, with which
 * fault. Start with {@link brightlantern.core.circuit.CircuitModel}.
 */
package brightlantern.core.circuit;
