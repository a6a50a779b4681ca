package brightlantern.core.reason;

/** Figures that hold for evidence of any kind. */
final class Odds {
    /** Share of findings that are simply wrong: a slipped probe, a misread figure. */
    static final double BLUNDER = 0.02;

    /** Share of figures from an instrument that are simply wrong. */
    private static final double SLIPPED = 0.002;

    /** Of findings under an unknown cause, this share looks healthy; the rest may be anything. */
    static final double UNKNOWN_HEALTHY = 0.6;

    private Odds() {}

    /** Share of figures that a hypothesis leaves to chance. */
    static double anything(Hypothesis h) {
        return h.isUnknown() ? 1 - UNKNOWN_HEALTHY : SLIPPED;
    }
}
