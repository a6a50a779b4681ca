/** The first stage: find the vehicle, read who it is, take down the complaint. */
package brightlantern.app.intake;
