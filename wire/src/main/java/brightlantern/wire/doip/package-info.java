/**
 * Diagnostics over IP, ISO 13400-2:2012: messages as values, their codec, discovery over UDP and
 * one connection over TCP. Start with {@link brightlantern.wire.doip.DoipMessage}.
 */
package brightlantern.wire.doip;
