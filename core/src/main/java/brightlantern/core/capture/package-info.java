/**
 * A capture: lanes that were sampled evenly by an oscilloscope, and what can be read in them.
 * {@link brightlantern.core.capture.Capture} is what is recorded, {@link
 * brightlantern.core.capture.Extents} what makes any zoom of it quick, and {@link
 * brightlantern.core.capture.CrankingStudy} reads the mechanical condition of an engine from one
 * cranking.
 */
package brightlantern.core.capture;
