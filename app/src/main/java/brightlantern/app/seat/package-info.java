/**
 * The driver's seat of stand-in vehicles. It belongs to the stand-ins, not to the diagnosis; real
 * vehicles have none.
 */
package brightlantern.app.seat;
