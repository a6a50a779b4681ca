/** Closed jobs boiled down to cases, and how much a new job is like one. */
package brightlantern.core.shelf;
