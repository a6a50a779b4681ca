/**
 * What each cylinder contributes to the running of the engine. Start with {@link
 * brightlantern.core.cylinder.CylinderStudy}.
 */
package brightlantern.core.cylinder;
