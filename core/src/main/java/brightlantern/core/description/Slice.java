package brightlantern.core.description;

/**
 * The part of a vehicle's description that one package owns: a record whose components are sections
 * of the description's files. A section that a file leaves out is {@code null} when the record is
 * made, and empty from then on.
 */
public interface Slice {
    /** Tells the identifiers by which other parts may refer to this one. */
    void define(References references);

    /** Checks that what this part refers to is described; called when all have been defined. */
    void check(References references);
}
