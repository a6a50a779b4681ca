package brightlantern.standin.plant;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;

/**
 * What coils and injectors draw while they are on: L·di/dt against the ohms that are in the way,
 * and the step of an armature that moves.
 */
final class FeedCurrents {
    /** Clamp round the feed of a coil, A; the cylinder follows. */
    static final String COIL = "coil-";

    /** Clamp round the feed of an injector, A; the cylinder follows. */
    static final String INJECTOR = "injector-";

    /** Clamp round the feed that all coils share, A. */
    static final String COILS = "coils";

    /** Clamp round the feed that all injectors share, A. */
    static final String INJECTORS = "injectors";

    /** The firing of a cylinder begins so long before its dead centre, degrees. */
    static final double FIRES_BEFORE = 6;

    private static final double COIL_SECONDS = 0.0026;
    private static final double COIL_AMPS = 14;
    private static final double COIL_RISES = 0.004;
    private static final double INJECTS_AT = 400;
    private static final double INJECTS_SECONDS = 0.0015;
    private static final double INJECTS_MORE = 0.004;
    private static final double INJECTOR_AMPS = 1;
    private static final double INJECTOR_RISES = 0.0006;

    /** The armature moves then, and what it induces takes so much of the current for a moment. */
    private static final double OPENS_SECONDS = 0.0009;

    private static final double OPENS_SHARE = 0.09;
    private static final double OPENS_FOR = 0.00012;

    /** With less of its current it stays shut. */
    private static final double HOLDS_SHARE = 0.35;

    /** Less of a current is none. */
    private static final double LEAST_SHARE = 1e-3;

    /** Slower than this it stands, degrees a second. */
    private static final double TURNS_DEGREES = 60;

    private final Crank crank;
    private final boolean diesel;

    /** Crank angle at which each cylinder is at its firing dead centre, degrees. */
    private final double[] phase;

    /** What the circuits let flow, as a share of what each is made for. */
    private final Map<String, Double> shares = new HashMap<>();

    FeedCurrents(Crank crank, EngineSpec spec, double[] phase) {
        this.crank = crank;
        this.diesel = spec.diesel();
        this.phase = phase;
    }

    /** Whether a clamp can be laid there. */
    boolean isPlace(String place) {
        return place.equals(INJECTORS)
                || place.equals(COILS) && !diesel
                || place.matches("(" + COIL + "|" + INJECTOR + ")[1-9][0-9]?")
                        && numberOf(place) <= phase.length
                        && !(diesel && place.startsWith(COIL));
    }

    private static int numberOf(String feed) {
        return Integer.parseInt(feed.substring(feed.lastIndexOf('-') + 1));
    }

    /** Looks at the circuits of what is measured; they stay so until the next look. */
    void look(Means means, Set<String> places) {
        for (int k = 1; k <= phase.length; k++) {
            if (places.contains(COILS)
                    || places.contains(EngineWaves.SPARKS)
                    || places.contains(COIL + k)) {
                shares.put(COIL + k, means.current(COIL + k));
            }
            if (places.contains(INJECTORS) || places.contains(INJECTOR + k)) {
                shares.put(INJECTOR + k, means.current(Crank.INJECTOR_COIL + k));
            }
        }
    }

    /**
     * Amps at a place.
     *
     * @param angle of the crank, degrees
     * @param perSecond degrees a second
     * @param load from 0 to 1
     */
    double amps(String feed, double angle, double perSecond, double load) {
        if (perSecond < TURNS_DEGREES) {
            return 0;
        }
        if (!feed.equals(COILS) && !feed.equals(INJECTORS)) {
            return one(feed.startsWith(COIL), numberOf(feed), angle, perSecond, load);
        }
        double all = 0;
        for (int k = 1; k <= phase.length; k++) {
            all += one(feed.equals(COILS), k, angle, perSecond, load);
        }
        return all;
    }

    private double one(boolean coil, int cylinder, double angle, double perSecond, double load) {
        double at = (angle - phase[cylinder - 1] + 1440) % 720;
        return coil ? coil(cylinder, at, perSecond) : injector(cylinder, at, perSecond, load);
    }

    /** With more ohms it ends lower, and is there sooner. */
    private static double rising(double amps, double share, double since, double rises) {
        return share < LEAST_SHARE ? 0 : share * amps * (1 - Math.exp(-since / (rises * share)));
    }

    private double coil(int cylinder, double at, double perSecond) {
        double since = COIL_SECONDS - ((1440 - FIRES_BEFORE - at) % 720) / perSecond;
        return since > 0 && crank.coilIsWhole(cylinder)
                ? rising(COIL_AMPS, shares.get(COIL + cylinder), since, COIL_RISES)
                : 0;
    }

    /** What a coil has drawn when it is switched off, as a share of what is right. */
    double coilAtEnd(int cylinder) {
        return crank.coilIsWhole(cylinder)
                ? rising(1, shares.get(COIL + cylinder), COIL_SECONDS, COIL_RISES)
                        / rising(1, 1, COIL_SECONDS, COIL_RISES)
                : 0;
    }

    private double injector(int cylinder, double at, double perSecond, double load) {
        double since = (at - INJECTS_AT) / perSecond;
        if (since <= 0
                || since >= INJECTS_SECONDS + INJECTS_MORE * load
                || !crank.isInjecting(cylinder)) {
            return 0;
        }
        double share = shares.get(INJECTOR + cylinder);
        double amps = rising(INJECTOR_AMPS, share, since, INJECTOR_RISES);
        if (share < HOLDS_SHARE || crank.shareOf(cylinder) <= 0) {
            return amps;
        }
        double off = (since - OPENS_SECONDS / share) / OPENS_FOR;
        return amps * (1 - OPENS_SHARE * Math.exp(-off * off));
    }
}
