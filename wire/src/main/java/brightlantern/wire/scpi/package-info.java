/**
 * SCPI-1999 over a plain TCP socket, one line a command: the parsing of lines, number formats of
 * IEEE 488.2, and a client.
 */
package brightlantern.wire.scpi;
