package brightlantern.standin;

import brightlantern.standin.plant.PortagePlant.Moment;

/** The monitors that the van's modules run themselves, and what a module does when one fails. */
final class PortageMonitors {
    private static final double BOOST_BEHIND_KPA = 22;
    private static final double BOOST_BEHIND_SECONDS = 6;
    private static final double BOOST_GOOD_SECONDS = 10;
    private static final double LOW_SUPPLY_VOLTS = 10.5;
    private static final double LOW_SUPPLY_SECONDS = 3;
    private static final double LAMP_SECONDS = 2;

    private double behind;
    private double good;
    private double low;
    private double lamp;

    void reset() {
        behind = 0;
        good = 0;
        low = 0;
        lamp = 0;
    }

    /**
     * @param limit what the engine module does when it sees boost stay behind
     */
    void watch(Moment m, double dt, Works.Sink sink, Runnable limit) {
        if (m.key() != 2) {
            return;
        }
        boost(m, dt, sink, limit);
        low = m.supply() < LOW_SUPPLY_VOLTS && !m.cranking() ? low + dt : 0;
        if (low > LOW_SUPPLY_SECONDS) {
            sink.report("engine", "P0562-00", true);
        }
        if (m.trailer()) {
            lamp += dt;
            if (lamp > LAMP_SECONDS) {
                sink.report("trailer", "B1021-13", m.lampOpen());
                lamp = 0;
            }
        }
    }

    private void boost(Moment m, double dt, Works.Sink sink, Runnable limit) {
        boolean judged = m.running() && !m.limited() && m.demand() > 0.7 && m.rpm() > 1500;
        if (!judged) {
            return;
        }
        boolean lags = m.boostTarget() - m.boost() > BOOST_BEHIND_KPA;
        behind = Math.max(0, behind + (lags ? dt : -dt / 2));
        good = lags ? 0 : good + dt;
        if (behind > BOOST_BEHIND_SECONDS) {
            behind = 0;
            sink.report("engine", "P0299-00", true);
            limit.run();
        } else if (good > BOOST_GOOD_SECONDS && behind <= 0) {
            good = 0;
            sink.report("engine", "P0299-00", false);
        }
    }
}
