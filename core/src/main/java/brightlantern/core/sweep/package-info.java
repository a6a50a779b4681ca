/**
 * One pass over every module of a vehicle, what it found, and how two such passes differ. Start
 * with {@link brightlantern.core.sweep.Sweep}.
 */
package brightlantern.core.sweep;
