/**
 * Guided tests as values: steps, gates, and runs that can be stopped, kept, gone on with and played
 * again from their log. Start with {@link brightlantern.core.procedure.Procedure} and {@link
 * brightlantern.core.procedure.ProcedureRun}.
 */
package brightlantern.core.procedure;
