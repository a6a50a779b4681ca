/**
 * Is the shown mileage true? All that modules know of distance, hours and counts is laid side by
 * side. Start with {@link brightlantern.core.odometer.OdometerCheck}.
 */
package brightlantern.core.odometer;
