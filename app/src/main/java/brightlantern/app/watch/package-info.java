/** The third stage: live values, takes and what they show. */
package brightlantern.app.watch;
