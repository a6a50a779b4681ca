package brightlantern.app;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.standin.StandInVehicle;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Vehicles are found by asking where they may be, and by listening. */
class FindingTest {
    private static final String ASKED = "127.0.85.2";
    private static final String HEARD = "127.0.85.3";
    private static final String EAR = "127.0.85.1";

    @TempDir Path data;

    @Test
    void whatIsSetAtTheStartCountsAndWhoAnnouncesItselfIsHeard() throws Exception {
        Map<String, String> settings =
                Map.of("lantern.find", ASKED + ", 127.0.85.9", "lantern.announcements", EAR);
        try (Garage garage = new Garage(data, settings)) {
            StandInVehicle asked = garage.vehicle("oriel-finch", false, ASKED);
            StandInVehicle heard = garage.vehicle("oriel-heron", false, HEARD);
            Visitor tech = garage.visitor("tech");
            assertThat(tech.get("/jobs/new"))
                    .contains(asked.vin())
                    .as("it has not said anything yet")
                    .doesNotContain(heard.vin());
            heard.announceTo(new InetSocketAddress(EAR, 13400));
            Garage.until("the announced one", () -> tech.reads("/jobs/new").contains(heard.vin()));
            assertThat(tech.get("/jobs/new")).contains("announced itself").contains(asked.vin());
        }
    }
}
