/** The physics of a stand-in vehicle: engine, air, drive, supply and harness, stepped at 500 Hz. */
package brightlantern.standin.plant;
