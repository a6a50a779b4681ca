/**
 * An input set by hand step by step, and what answers. Start with {@link
 * brightlantern.core.study.steps.SteppedExperiment}.
 */
package brightlantern.core.study.steps;
