/**
 * Captures: recording the lanes of an oscilloscope, keeping and showing them, and filing what is
 * read in them. {@link brightlantern.app.capture.CaptureController} first.
 */
package brightlantern.app.capture;
