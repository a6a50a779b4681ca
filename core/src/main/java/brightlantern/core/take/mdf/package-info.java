/**
 * Takes as ASAM MDF 4 files (ASAM COMMON MDF, version 4.1: an open standard for measured data).
 * Channels, units, times, states and marks; start with {@link
 * brightlantern.core.take.mdf.MdfWriter} and {@link brightlantern.core.take.mdf.MdfReader}.
 */
package brightlantern.core.take.mdf;
