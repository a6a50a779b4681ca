/**
 * Diagnostic trouble codes: their format, their status byte in words, their freeze frames, and
 * which of many matters. Start with {@link brightlantern.core.code.StoredCode}.
 */
package brightlantern.core.code;
