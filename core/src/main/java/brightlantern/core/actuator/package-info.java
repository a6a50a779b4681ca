/**
 * What modules can be told to move or to switch. Start with {@link
 * brightlantern.core.actuator.Actuator}.
 */
package brightlantern.core.actuator;
