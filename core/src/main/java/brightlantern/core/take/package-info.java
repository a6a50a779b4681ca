/**
 * Recordings of live values: columns in memory, compressed chunks for keeping, CSV for everybody
 * else. Start with {@link brightlantern.core.take.Take}.
 */
package brightlantern.core.take;
