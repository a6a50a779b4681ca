package brightlantern.standin;

import brightlantern.core.code.Dtc;
import brightlantern.standin.plant.PortagePlant.Moment;

/** The monitors that the van's modules run themselves, and what a module does when one fails. */
final class PortageMonitors {
    private static final double BOOST_BEHIND_KPA = 22;
    private static final double BOOST_BEHIND_SECONDS = 6;
    private static final double BOOST_GOOD_SECONDS = 10;
    private static final double LOW_SUPPLY_VOLTS = 10.5;
    private static final double LOW_SUPPLY_SECONDS = 3;
    private static final double LAMP_SECONDS = 2;

    private final PortageVan van;
    private double behind;
    private double good;
    private double low;
    private double lamp;

    PortageMonitors(PortageVan van) {
        this.van = van;
    }

    void reset() {
        behind = 0;
        good = 0;
        low = 0;
        lamp = 0;
    }

    void watch(Moment m, double dt) {
        if (m.key() != 2) {
            return;
        }
        boost(m, dt);
        low = m.supply() < LOW_SUPPLY_VOLTS && !m.cranking() ? low + dt : 0;
        if (low > LOW_SUPPLY_SECONDS) {
            report("engine", "P0562-00", true);
        }
        if (m.trailer()) {
            lamp += dt;
            if (lamp > LAMP_SECONDS) {
                report("trailer", "B1021-13", m.lampOpen());
                lamp = 0;
            }
        }
    }

    private void boost(Moment m, double dt) {
        boolean judged = m.running() && !m.limited() && m.demand() > 0.7 && m.rpm() > 1500;
        if (!judged) {
            return;
        }
        boolean lags = m.boostTarget() - m.boost() > BOOST_BEHIND_KPA;
        behind = Math.max(0, behind + (lags ? dt : -dt / 2));
        good = lags ? 0 : good + dt;
        if (behind > BOOST_BEHIND_SECONDS) {
            behind = 0;
            report("engine", "P0299-00", true);
            van.plant().limit();
        } else if (good > BOOST_GOOD_SECONDS && behind <= 0) {
            good = 0;
            report("engine", "P0299-00", false);
        }
    }

    private void report(String module, String code, boolean failed) {
        van.module(module).memory().report(Dtc.parse(code).number(), failed, van.frame(module));
    }
}
