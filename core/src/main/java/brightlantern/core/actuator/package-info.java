/**
 * Electric actuators: the equations of a motor that moves a load, and the judgement of a run. Start
 * with {@link brightlantern.core.actuator.Motor}.
 */
package brightlantern.core.actuator;
