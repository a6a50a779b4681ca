/** The sixth stage: which cause, and how do we know. */
package brightlantern.app.trace;
