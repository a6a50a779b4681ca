/**
 * Open protocols as bytes and sockets: DoIP (ISO 13400-2), UDS (ISO 14229-1) and SCPI (IEEE 488.2).
 *
 * <p>Codecs are pure functions and apart from the sockets. Nothing here knows a job, a vehicle
 * description or a fault. Read {@link brightlantern.wire.doip.DoipCodec} first, then {@link
 * brightlantern.wire.uds.UdsClient}.
 */
package brightlantern.wire;
