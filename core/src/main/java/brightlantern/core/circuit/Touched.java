package brightlantern.core.circuit;

/** What a wire touches whose insulation has worn through. */
public enum Touched {
    /** A bare edge of the body. */
    EARTH(Circuit.MINUS, Wear.CHAFED),
    /** Another wire of its loom that has rubbed through as well, and that has the supply. */
    LIVE(Circuit.PLUS, Wear.CHAFED_LIVE);

    private final String node;
    private final Wear wear;

    Touched(String node, Wear wear) {
        this.node = node;
        this.wear = wear;
    }

    /** The pole of the battery on which it hangs then. */
    String node() {
        return node;
    }

    /** How such a wire ages, and what its repair takes. */
    public Wear wear() {
        return wear;
    }
}
