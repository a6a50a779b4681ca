package brightlantern.core.study.agreement;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Boost and ambient pressure of a van whose engine is off: both sensors feel the same air. */
class AgreementCheckTest {
    private static final VehicleDescription PORTAGE = Vehicles.portage();
    private static final Agreement REST = PORTAGE.agreements().get(0);

    /** Readings under which its conditions hold, with both values at so many of their own unit. */
    private static Map<String, Double> now(double a, double b) {
        Map<String, Double> now = new HashMap<>();
        REST.when()
                .forEach(c -> now.put(c.value(), c.min().orElseGet(() -> c.max().orElseThrow())));
        now.put(REST.a(), a);
        now.put(REST.b(), b);
        return now;
    }

    private static AgreementCheck of(Map<String, Double> now) {
        return AgreementCheck.of(REST, PORTAGE.signals(), now);
    }

    @Test
    void valuesThatLieTogetherAgreeAndOthersDiffer() {
        assertThat(of(now(100, 100.5)).agrees()).contains(true);
        assertThat(of(now(100, 100.5)).sentence()).contains("they agree");
        AgreementCheck apart = of(now(100, 100 + 2 * REST.within()));
        assertThat(apart.agrees()).contains(false);
        assertThat(apart.sentence()).contains("they differ").contains("apart is right");
    }

    @Test
    void whatCannotBeComparedSaysWhy() {
        Map<String, Double> silent = now(100, 100);
        silent.remove(REST.b());
        assertThat(of(silent).agrees()).isEmpty();
        assertThat(of(silent).sentence()).contains("a module does not answer");
        assertThat(of(Map.of()).sentence()).contains("was not compared: it needs");
        assertThat(AgreementCheck.needs(REST)).contains(REST.a(), REST.b());
    }
}
