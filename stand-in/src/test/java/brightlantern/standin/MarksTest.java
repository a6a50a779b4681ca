package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.standin.instrument.StatusModel;
import brightlantern.standin.plant.Circuits;
import brightlantern.wire.WireFormatException;
import brightlantern.wire.scpi.ScpiLine;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

/** A meter at the pins of the crank's sensor counts the marks that pass it. */
class MarksTest {
    private static final String AT_MODULE = "X1.62";
    private static final String AT_SENSOR = "X97.2";

    /** A wheel of sixty of which two are missing. */
    private static final int MARKS = 58;

    private final StandInVehicle v = Yard.common().built("oriel-finch");

    private double asked(String point, String question) throws WireFormatException {
        StatusModel status = new StatusModel();
        v.meter().answer(ScpiLine.parse("ROUT:CLOS (@" + point + ")"), status);
        byte[] answer = v.meter().answer(ScpiLine.parse(question), status);
        return Double.parseDouble(new String(answer, StandardCharsets.US_ASCII).trim());
    }

    @Test
    void theyAreCountedWhereTheyArrive() throws WireFormatException {
        v.simulation().crank();
        v.live(20);
        double each = MARKS * v.simulation().plant().rpm() / 60;
        assertThat(asked(AT_MODULE, "MEAS:FREQ?")).isCloseTo(each, within(0.1 * each));
        assertThat(asked(AT_MODULE, "MEAS:VOLT:AC?")).isGreaterThan(1);
        Circuits circuits = v.simulation().circuits().orElseThrow();
        circuits.fail("series", "W-crank-sensor", 1e9);
        // the sensor goes on telling while it turns, and nobody hears it
        assertThat(asked(AT_MODULE, "MEAS:FREQ?")).isGreaterThan(1e37);
        assertThat(asked(AT_SENSOR, "MEAS:FREQ?")).isCloseTo(each, within(0.3 * each));
        circuits.mend("W-crank-sensor");
        v.driver(v.simulation().driver().key(0));
        v.live(1);
        v.driver(v.simulation().driver().key(2));
        v.live(1);
    }
}
