/**
 * What a capture shows of a network's wires: {@link brightlantern.core.capture.bus.CanDecoder}
 * reads frames out of a lane, {@link brightlantern.core.capture.bus.BusStudy} compares their levels
 * at both ends.
 */
package brightlantern.core.capture.bus;
