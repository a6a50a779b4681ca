package brightlantern.core.procedure;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Which procedures a symptom, a code or a suspect calls for, with the descriptions that ship. */
class ProposalTest {
    private static List<Proposal> of(String vehicle, Proposal.Known known) throws IOException {
        return Proposal.of(ProcedureReaderTest.of(vehicle), known);
    }

    private static Proposal.Known known(
            List<String> symptoms, List<String> codes, List<String> suspects) {
        return new Proposal.Known(symptoms, codes, suspects, Map.of());
    }

    private static List<String> ids(List<Proposal> proposals) {
        return proposals.stream().map(p -> p.procedure().id()).toList();
    }

    @Test
    void nothingKnownCallsForNothing() throws IOException {
        assertThat(of("oriel-finch", known(List.of(), List.of(), List.of()))).isEmpty();
        assertThat(of("oriel-finch", known(List.of("x"), List.of("P9999-00"), List.of("y"))))
                .isEmpty();
    }

    @Test
    void theOneWithMostReasonsComesFirstAndSaysThem() throws IOException {
        List<Proposal> all =
                of(
                        "oriel-finch",
                        known(
                                List.of("hard-start-after-fill"),
                                List.of("P0496-00", "P0171-00"),
                                List.of("purge-valve")));
        assertThat(ids(all).subList(0, 2)).containsExactly("leak-test", "pinch-purge");
        assertThat(all.get(0).because())
                .containsExactly("hard-start-after-fill", "P0496-00", "purge-valve");
    }

    @Test
    void aStarStandsForAllThatBeginSo() throws IOException {
        assertThat(ids(of("oriel-heron", known(List.of(), List.of("P0117-00"), List.of()))))
                .containsExactly("two-wire-sensor");
    }

    @Test
    void familiesComeAfterWhatIsNamed() throws IOException {
        List<Proposal> all =
                of(
                        "tamarack-portage",
                        new Proposal.Known(
                                List.of("flat-on-climbs"),
                                List.of("P0299-00"),
                                List.of(),
                                Map.of("boost", List.of("flat-on-climbs", "P0299-00"))));
        assertThat(ids(all).get(0)).isEqualTo("shared-earth");
        assertThat(ids(all)).contains("low-power", "actuator-does-not-move");
        assertThat(all.get(1).because()).containsExactly("flat-on-climbs", "P0299-00");
    }
}
