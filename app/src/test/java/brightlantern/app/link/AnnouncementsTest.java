package brightlantern.app.link;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.wire.transport.VehicleAddress;
import brightlantern.wire.transport.VehicleNetwork.Heard;
import org.junit.jupiter.api.Test;

/** A flood of announcements hides no vehicle that comes after it. */
class AnnouncementsTest {
    private final Announcements heard = new Announcements();

    private void hear(String address, String vin) {
        heard.hear(new Heard(VehicleAddress.kept(address), vin));
    }

    @Test
    void theNewestIsHeardHoweverManyCameBefore() {
        hear("127.0.9.1", "first");
        for (int i = 0; i < 1000; i++) {
            hear("127.1." + i / 200 + "." + i % 200, "flood");
        }
        hear("127.0.9.2", "newest");
        assertThat(heard.all()).hasSize(Announcements.MOST);
        assertThat(heard.all()).extracting(Heard::vin).doesNotContain("first").endsWith("newest");
    }

    @Test
    void anotherVehicleAtAnAddressTakesItsPlace() {
        hear("127.0.9.1", "before");
        hear("127.0.9.2", "other");
        hear("127.0.9.1", "after");
        assertThat(heard.all()).extracting(Heard::vin).containsExactly("other", "after");
    }
}
