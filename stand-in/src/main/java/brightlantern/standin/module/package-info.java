/**
 * Simulated control modules: their code memory, their monitors and their answers to UDS (ISO
 * 14229-1:2013).
 */
package brightlantern.standin.module;
