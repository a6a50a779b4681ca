/**
 * Unified diagnostic services, ISO 14229-1:2013: requests and answers as bytes, refusals in words,
 * and a client that keeps the timings. Start with {@link brightlantern.wire.uds.UdsClient}.
 */
package brightlantern.wire.uds;
