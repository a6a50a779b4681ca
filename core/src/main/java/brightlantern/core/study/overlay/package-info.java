/**
 * The same stretch of two takes laid over each other. Start with {@link
 * brightlantern.core.study.overlay.Overlay}.
 */
package brightlantern.core.study.overlay;
