/**
 * Live values: raw bytes to physical quantity, units, ranges that hold only in their condition.
 * Start with {@link brightlantern.core.signal.Scaling}.
 */
package brightlantern.core.signal;
