/**
 * What modules learn of their vehicle, and how far each is from what it can make up for. Read
 * first: {@link LearnedValue}, then {@link LearnedStudy}.
 */
package brightlantern.core.learned;
