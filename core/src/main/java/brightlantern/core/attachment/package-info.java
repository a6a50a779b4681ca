/**
 * Pictures, films and papers that are kept with a job: what they are, and what was marked in them.
 */
package brightlantern.core.attachment;
