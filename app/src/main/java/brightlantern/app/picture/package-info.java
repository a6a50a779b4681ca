/** Pictures, films, sounds and papers that are kept with a job as evidence. */
package brightlantern.app.picture;
