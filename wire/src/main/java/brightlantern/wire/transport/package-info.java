/**
 * What lies beneath UDS, whatever carries it: a transport to the modules of one vehicle, and the
 * network on which vehicles are found. Start with {@link brightlantern.wire.transport.Transport}.
 */
package brightlantern.wire.transport;
