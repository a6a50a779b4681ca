/**
 * All procedures of a vehicle: read from their files, made from its actuators, with the studies
 * that judge them. Start with {@link brightlantern.core.procedure.library.ProcedureReader}.
 */
package brightlantern.core.procedure.library;
