/**
 * Actuators driven as procedures, and what their movement tells. Start with {@link
 * brightlantern.core.procedure.actuator.ActuatorProcedures}, then {@link
 * brightlantern.core.procedure.actuator.ActuatorRun}.
 */
package brightlantern.core.procedure.actuator;
