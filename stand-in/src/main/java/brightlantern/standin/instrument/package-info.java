/** Simulated instruments behind SCPI. */
package brightlantern.standin.instrument;
