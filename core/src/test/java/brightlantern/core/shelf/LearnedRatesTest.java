package brightlantern.core.shelf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.reason.Reasoner;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class LearnedRatesTest {
    private final VehicleDescription heron = Vehicles.named("oriel-heron");
    private final Suspect flawed = heron.suspect("alternator-diode").orElseThrow();
    private final Suspect other = heron.suspect("alternator").orElseThrow();

    private ShelfCase of(Suspect cause, String origin) {
        return new ShelfCase(
                1,
                heron.id(),
                heron.name(),
                "",
                Set.of(),
                Set.of(),
                List.of(),
                cause.name(),
                "x",
                cause.id(),
                "",
                0,
                0,
                origin);
    }

    /** The same part in eight of ten. */
    private List<ShelfCase> eightOfTen(String origin) {
        List<ShelfCase> cases = new ArrayList<>();
        for (int i = 0; i < 10; i++) {
            cases.add(of(i < 8 ? flawed : other, origin));
        }
        return cases;
    }

    private static double share(VehicleDescription d, Suspect s) {
        double total = d.suspects().stream().mapToDouble(Suspect::common).sum();
        return d.suspect(s.id()).orElseThrow().common() / total;
    }

    @Test
    void aFlawOfAWholeKindRaisesItByTheComputedAmount() {
        double before = share(heron, flawed);
        VehicleDescription taught = LearnedRates.applied(heron, eightOfTen(""));
        // (200 p + 8) / (200 + 10)
        assertThat(share(taught, flawed)).isCloseTo((200 * before + 8) / 210, within(1e-12));
        Suspect unnamed = heron.suspect("rings-1").orElseThrow();
        assertThat(share(taught, unnamed))
                .isCloseTo(share(heron, unnamed) * 200 / 210, within(1e-12));
        List<Evidence> told = List.of(new Evidence.SymptomTold("charge-lamp"));
        double surer = new Reasoner(taught).rank(told).of(flawed.id()).orElseThrow().sureness();
        assertThat(surer)
                .isGreaterThan(
                        2
                                * new Reasoner(heron)
                                        .rank(told)
                                        .of(flawed.id())
                                        .orElseThrow()
                                        .sureness());
    }

    /** One case of one cylinder says as much of the part, and little of the cylinder. */
    @Test
    void aCaseOfOneCylinderSpeaksForThatPartOfAll() {
        VehicleDescription loader = Vehicles.named("stonebarrow-wl9");
        Suspect third = loader.suspect("rings-3").orElseThrow();
        ShelfCase one =
                new ShelfCase(
                        1,
                        loader.id(),
                        loader.name(),
                        "",
                        Set.of(),
                        Set.of(),
                        List.of(),
                        third.name(),
                        "x",
                        third.id(),
                        "",
                        0,
                        0,
                        "");
        VehicleDescription taught = LearnedRates.applied(loader, List.of(one));
        double all = 0;
        double before = 0;
        for (int n = 1; n <= 6; n++) {
            Suspect its = loader.suspect("rings-" + n).orElseThrow();
            before += share(loader, its);
            all += share(taught, its);
        }
        assertThat(all).isCloseTo((200 * before + 1) / 201, within(1e-12));
        // (10 / 6 + 1) of (10 + 1), and 10 / 6 of it
        assertThat(share(taught, third) / all).isCloseTo(16 / 66.0, within(1e-9));
        assertThat(share(taught, loader.suspect("rings-5").orElseThrow()) / all)
                .isCloseTo(10 / 66.0, within(1e-9));
    }

    @Test
    void itTeachesNothingOfAnotherKindOfVehicle() {
        VehicleDescription finch = Vehicles.named("oriel-finch");
        assertThat(LearnedRates.applied(finch, eightOfTen(""))).isSameAs(finch);
        assertThat(LearnedRates.of(finch, eightOfTen(""))).isEmpty();
    }

    @Test
    void whatCameFromElsewhereCountsHalf() {
        assertThat(LearnedRates.of(heron, eightOfTen("Mill Lane")))
                .filteredOn(l -> l.suspectId().equals(flawed.id()))
                .singleElement()
                .satisfies(l -> assertThat(l.cases()).isEqualTo(4))
                .satisfies(l -> assertThat(l.of()).isEqualTo(5));
    }

    @Test
    void casesGoFromOneWorkshopToAnotherAndAreMarked() {
        CaseFile file =
                CaseFile.of("Mill Lane", List.of(of(flawed, ""), of(other, "the yard")), List.of());
        assertThat(file.taken())
                .extracting(ShelfCase::origin)
                .containsExactly("Mill Lane", "the yard");
        assertThat(file.taken()).noneMatch(ShelfCase::isOwn);
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new CaseFile("something", "x", file.cases(), List.of()).taken())
                .withMessageContaining("bright-lantern-cases-1");
        assertThatIllegalArgumentException()
                .isThrownBy(() -> CaseFile.of("x", List.of(), List.of()).taken())
                .withMessageContaining("0 cases");
    }

    @Test
    void aCaseNeedsNoMoreThanTheSchemaAsksForAndIsNotABook() {
        ShelfCase bare =
                new ShelfCase(
                        0,
                        heron.id(),
                        null,
                        null,
                        null,
                        null,
                        null,
                        "a",
                        "b",
                        null,
                        null,
                        0,
                        0,
                        null);
        assertThat(CaseFile.of("Mill Lane", List.of(bare), List.of()).taken())
                .singleElement()
                .satisfies(c -> assertThat(c.codes()).isEmpty())
                .satisfies(c -> assertThat(c.complaint()).isEmpty());
        ShelfCase book =
                new ShelfCase(
                        0,
                        heron.id(),
                        "",
                        "x".repeat(30_000),
                        Set.of(),
                        Set.of(),
                        List.of(),
                        "a",
                        "b",
                        "",
                        "",
                        0,
                        0,
                        "");
        assertThatIllegalArgumentException()
                .isThrownBy(() -> CaseFile.of("x", List.of(bare, book), List.of()).taken())
                .withMessageContaining("case 2 has 30")
                .withMessageContaining("at most 20000");
    }

    @Test
    void aSearchWantsAllItsWords() {
        ShelfCase c = of(flawed, "");
        assertThat(c.hasWords("")).isTrue();
        assertThat(c.hasWords(flawed.name().toUpperCase())).isTrue();
        assertThat(c.hasWords(flawed.name() + " nowhere")).isFalse();
    }
}
