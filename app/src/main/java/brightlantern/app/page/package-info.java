/**
 * What all stages' pages share: the frame with top bar, path of stages and evidence rail, and a few
 * formats.
 */
package brightlantern.app.page;
