package brightlantern.standin.plant;

import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.DoubleSupplier;

/**
 * Battery, what charges it, and what draws from it: an open voltage that falls with the charge that
 * is drawn, and a resistance inside (Thévenin's equivalent). Volts, ohms, ampere.
 */
final class Supply {
    static final double FULL_VOLTS = 12.7;

    private static final double AMPERE_HOURS = 70;

    /** Volts between a full and a flat battery. */
    private static final double SPAN = 1.6;

    private static final double FLAT_VOLTS = 9;
    private static final double CHARGED_VOLTS = 14.1;
    private static final double CHARGER_VOLTS = 13.6;

    /** Volts that an open battery gains in a second of being charged. */
    private static final double GAINS = 0.0003;

    private static final double WHOLE_OHM = 0.011;

    /** Healthy cables of a starter. */
    static final double PLUS_OHM = 0.001;

    static final double EARTH_OHM = 0.0007;

    private static final double SLEEP_AMPS = 0.03;
    private static final double KEY_AMPS = 14;
    private static final double ACCESSORY_AMPS = 4;

    /** So much of what one start shows is taken over. */
    private static final double LEARNS = 0.7;

    private static final double LONG_ENOUGH = 0.3;

    /** An alternator without one of its diodes holds no more than this. */
    private static final double LESS_VOLTS = 13.3;

    private static final double PULLEY = 2.8;
    private static final int POLE_PAIRS = 6;

    /** What its current makes of it in battery and cables, V for all of it. */
    private static final double RIPPLE_VOLTS = 0.6;

    /** Mean of what a three-phase bridge gives, as a share of a phase's peak: 3·√3/π. */
    private static final double BRIDGE_MEAN = 3 * Math.sqrt(3) / Math.PI;

    private final double starterAmps;
    private final double doorsOpenAmps;

    private boolean gives = true;
    private double regulated = CHARGED_VOLTS;
    private double ohm = WHOLE_OHM;
    private double sleepAmps = SLEEP_AMPS;
    private double open = FULL_VOLTS - 0.05;
    private double volts = FULL_VOLTS - 0.05;

    private double plusOhm = PLUS_OHM;
    private double earthOhm = EARTH_OHM;
    private double lost;
    private boolean diodeLost;
    private boolean alternates;
    private double turned;
    private double hertz;
    private double learned = WHOLE_OHM;
    private double before;
    private double least;
    private double cranked;

    Supply(double starterAmps, double doorsOpenAmps) {
        this.starterAmps = starterAmps;
        this.doorsOpenAmps = doorsOpenAmps;
    }

    double volts() {
        return volts;
    }

    double plusOhm() {
        return plusOhm;
    }

    double earthOhm() {
        return earthOhm;
    }

    /** The act of measuring what it draws at rest. */
    static final String CLAMP = "clamp-battery";

    static final String CLAMPS = "Lock it, let it sleep, and clamp the battery cable";

    /** What is seen of it. */
    String clamped() {
        return String.format(Locale.ROOT, "It draws %.2f A at rest.", sleepAmps);
    }

    /**
     * @param turns whether the engine turns the alternator fast enough
     * @param dt seconds; may be long while nothing runs, as overnight
     */
    void step(Whole whole, boolean turns, boolean doorsOpen, double dt) {
        Driver driver = whole.driver();
        double amps =
                (driver.key() == 2 ? KEY_AMPS : driver.key() == 1 ? ACCESSORY_AMPS : sleepAmps)
                        + (doorsOpen ? doorsOpenAmps : 0)
                        + (whole.cranking() ? starterAmps : 0);
        lost = whole.cranking() ? starterAmps * (plusOhm + earthOhm) : 0;
        alternates = turns && gives;
        hertz = whole.rpm() * PULLEY * POLE_PAIRS / 60;
        open =
                alternates || driver.charger()
                        ? Math.min(FULL_VOLTS, open + dt * GAINS)
                        : Math.max(FLAT_VOLTS, open - amps * dt / 3600 / AMPERE_HOURS * SPAN);
        double wanted =
                alternates
                        ? diodeLost ? Math.min(regulated, LESS_VOLTS) : regulated
                        : driver.charger() ? CHARGER_VOLTS : open - amps * ohm;
        learn(whole.cranking(), dt);
        volts += (wanted - volts) * Math.min(1, dt / 0.05);
    }

    /** What the supply loses while the starter draws tells the battery's resistance. */
    private void learn(boolean cranking, double dt) {
        if (cranking) {
            cranked += dt;
            least = Math.min(least, volts);
            return;
        }
        if (cranked > LONG_ENOUGH) {
            learned += LEARNS * ((before - least) / starterAmps - learned);
        }
        cranked = 0;
        before = volts;
        least = volts;
    }

    /**
     * The volts of the next {@code seconds} as an oscilloscope has them: three phases through six
     * diodes, of which one may be lost.
     */
    double[] wave(double seconds, int count) {
        double[] wave = new double[count];
        for (int i = 0; i < count; i++) {
            turned += 2 * Math.PI * hertz * seconds / count;
            wave[i] = volts + (alternates ? RIPPLE_VOLTS * (bridge(turned) / BRIDGE_MEAN - 1) : 0);
        }
        turned %= 2 * Math.PI;
        return wave;
    }

    private double bridge(double at) {
        double top = diodeLost ? -1 : Math.sin(at);
        double bottom = Math.sin(at);
        for (int phase = 1; phase < 3; phase++) {
            double its = Math.sin(at - phase * 2 * Math.PI / 3);
            top = Math.max(top, its);
            bottom = Math.min(bottom, its);
        }
        return top - bottom;
    }

    Map<String, DoubleSupplier> sensors() {
        return Map.of(
                "battery.inner",
                () -> 1000 * learned,
                "alternator.gap",
                () -> alternates && diodeLost ? 1 : 0,
                "starter.lost",
                () -> lost);
    }

    /** What {@link #fail} knows. */
    static final Set<String> MODES =
            Set.of("gives", "regulated", "battery", "draws", "diode", "plus-cable", "earth-cable");

    /**
     * Breaks the battery or what charges it: {@code gives} is the alternator (1 whole, 0 dead),
     * {@code regulated} volts, {@code battery} ohms inside, {@code draws} ampere at rest, {@code
     * diode} whether one of its six is lost (1), {@code plus-cable} and {@code earth-cable} ohms of
     * what leads to the starter and back.
     */
    void fail(String mode, double size) {
        switch (mode) {
            case "gives" -> gives = size > 0.5;
            case "regulated" -> regulated = size;
            case "plus-cable" -> plusOhm = size;
            case "earth-cable" -> earthOhm = size;
            case "diode" -> diodeLost = size > 0.5;
            case "battery" -> {
                ohm = size;
                if (size <= WHOLE_OHM) {
                    isNew();
                }
            }
            case "draws" -> {
                sleepAmps = size;
                // what drew is mended, and the battery charged
                open = size > SLEEP_AMPS ? open : FULL_VOLTS;
            }
            default -> throw new IllegalArgumentException("A supply cannot break by " + mode);
        }
    }

    /** A new battery is told to the module that watches it. */
    private void isNew() {
        open = FULL_VOLTS;
        learned = WHOLE_OHM;
    }
}
