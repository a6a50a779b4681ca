/** The fifth stage: a meter on the circuit, and what it should read. */
package brightlantern.app.probe;
