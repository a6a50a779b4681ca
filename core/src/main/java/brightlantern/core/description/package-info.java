/**
 * What a vehicle's description is composed of: each package of the trade owns its slice of it, with
 * defaults and checks, and {@code vehicle} composes them. Read first: {@link
 * brightlantern.core.description.Slice}.
 */
package brightlantern.core.description;
