/**
 * What modules have learned of a vehicle: read with every sweep and on a page of its own, kept over
 * all jobs of the vehicle, and weighed. Read first: {@link LearnedDesk}.
 */
package brightlantern.app.learned;
