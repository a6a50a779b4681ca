package brightlantern.standin.instrument;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.wire.scpi.InstrumentSearch;
import brightlantern.wire.scpi.ScpiClient;
import java.net.InetAddress;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.junit.jupiter.api.Test;

/** What announces itself is found, and answers where it said. */
class InstrumentSearchTest {
    private static final String NAME = "Meter of a test, " + ProcessHandle.current().pid();

    @Test
    void whatAnnouncesItselfIsFound() throws Exception {
        InetAddress own = InetAddress.getByName("127.0.0.1");
        Meter meter = new Meter(point -> OptionalDouble.of(12.4), (point, load) -> {});
        try (ScpiServer server = new ScpiServer(own, 0, meter);
                InstrumentSearch.Announcer announcer =
                        new InstrumentSearch.Announcer(own, "search-test")) {
            announcer.announce(NAME, "STAND-IN METER", server.port());
            Optional<InstrumentSearch.Found> found = Optional.empty();
            for (int i = 0; i < 5 && found.isEmpty(); i++) {
                List<InstrumentSearch.Found> all = InstrumentSearch.search(Duration.ofSeconds(2));
                found = all.stream().filter(f -> f.name().equals(NAME)).findFirst();
            }
            assertThat(found).isPresent();
            assertThat(found.get().model()).isEqualTo("STAND-IN METER");
            assertThat(found.get().address()).isEqualTo("127.0.0.1:" + server.port());
            try (ScpiClient client = new ScpiClient(found.get().at(), Duration.ofSeconds(2))) {
                assertThat(client.query("*IDN?")).contains("METER");
            }
        }
    }
}
