/**
 * What is known of a kind of vehicle: the description that all other packages read, its reader with
 * file and line in every complaint, and the VIN. Start with {@link
 * brightlantern.core.vehicle.VehicleDescription}.
 */
package brightlantern.core.vehicle;
