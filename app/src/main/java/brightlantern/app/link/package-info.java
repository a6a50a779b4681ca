/**
 * The living connection to a vehicle: one a vehicle, shared by all pages; live values; who may
 * command.
 */
package brightlantern.app.link;
