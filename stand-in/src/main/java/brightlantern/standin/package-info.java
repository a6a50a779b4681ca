/**
 * Simulated vehicles and instruments that ship with the program. They speak DoIP, UDS and SCPI over
 * real sockets; which fault they were given is known here and nowhere else. Read {@link
 * brightlantern.standin.StandInVehicle} first.
 */
package brightlantern.standin;
