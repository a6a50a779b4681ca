/**
 * The network end of a stand-in: a DoIP entity (ISO 13400-2:2012) on a loopback address of its own.
 */
package brightlantern.standin.gateway;
