/**
 * Starts the stand-ins and fills the demo data; the only place of the application that knows the
 * stand-ins.
 */
package brightlantern.app.demo;
