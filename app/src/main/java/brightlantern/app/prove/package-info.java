/** The seventh stage: what was repaired, and whether it held; reports; the case. */
package brightlantern.app.prove;
