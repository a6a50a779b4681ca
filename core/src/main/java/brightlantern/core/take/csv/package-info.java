/**
 * Logs from elsewhere as CSV in its many dialects. Start with {@link
 * brightlantern.core.take.csv.CsvLook}, which finds out how a file is written, then {@link
 * brightlantern.core.take.csv.CsvImport}, which reads it.
 */
package brightlantern.core.take.csv;
