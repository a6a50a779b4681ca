package brightlantern.core.reason;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import brightlantern.core.circuit.Circuit;
import brightlantern.core.circuit.Component;
import brightlantern.core.circuit.Consumer;
import brightlantern.core.circuit.Gauge;
import brightlantern.core.circuit.Segment;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A lamp that was replaced last month is hardly burnt again; its plug may have been left loose. */
class HistoryMechanismTest {
    private record Lit(String symptom, String lamp, String contact) {}

    static Stream<String> vehicles() {
        return Vehicles.all();
    }

    private static String suspect(VehicleDescription d, String part) {
        return d.suspects().stream()
                .filter(
                        s ->
                                s.effect().orElse(null) instanceof Effect.Series series
                                        && series.of().equals(part))
                .map(Suspect::id)
                .findFirst()
                .orElse("");
    }

    /** A consumer that does not work when it should, with a contact in its plug. */
    private static Lit first(VehicleDescription d) {
        for (Circuit c : d.circuits()) {
            for (Gauge g : c.gauges().stream().filter(x -> x.told() && !x.isOff()).toList()) {
                for (Component part : c.components()) {
                    if (!(part instanceof Consumer) || !g.name().contains(part.name())) {
                        continue;
                    }
                    for (Segment s : c.segments()) {
                        boolean at =
                                s.pin().isPresent()
                                        && (s.to().equals(part.from())
                                                || s.from().equals(part.from()));
                        if (at
                                && !suspect(d, part.id()).isEmpty()
                                && !suspect(d, s.id()).isEmpty()) {
                            return new Lit(
                                    DrawnCircuits.symptomId(g),
                                    suspect(d, part.id()),
                                    suspect(d, s.id()));
                        }
                    }
                }
            }
        }
        throw new AssertionError("no lamp in " + d.id());
    }

    private static double odds(Reasoners reasoners, Lit lit, Evidence... beside) {
        List<Evidence> all =
                Stream.concat(Stream.of(new Evidence.SymptomTold(lit.symptom())), Stream.of(beside))
                        .toList();
        Ranking ranking = reasoners.of(all).rank(all);
        return ranking.of(lit.lamp()).orElseThrow().sureness()
                / ranking.of(lit.contact()).orElseThrow().sureness();
    }

    @ParameterizedTest
    @MethodSource("vehicles")
    void whatWasRenewedIsRarerAndItsPlugMoreOftenBad(String id) {
        VehicleDescription d = Vehicles.derived(id);
        Reasoners reasoners = new Reasoners(d);
        Lit lit = first(d);
        double before = odds(reasoners, lit);
        double after = odds(reasoners, lit, new Evidence.WorkedOn(lit.lamp(), 0));
        // a fifth as often, against five times as often
        assertThat(after / before).isCloseTo(0.2 / 5, withinPercentage(1));
        assertThat(odds(reasoners, lit, new Evidence.WorkedOn(lit.lamp(), 12)) / before)
                .as("it fades within the year")
                .isCloseTo((1 - 0.8 / Math.E) / (1 + 4 / Math.E), withinPercentage(1));
        assertThat(odds(reasoners, lit, new Evidence.WorkedOn(lit.lamp(), 400)) / before)
                .isCloseTo(1, withinPercentage(1));
        assertThat(odds(reasoners, lit, new Evidence.WorkedOn("nobody", 0)) / before)
                .as("what is not described is nobody's")
                .isCloseTo(1, withinPercentage(1));
    }

    @Test
    void whatWearsIsRarerBeforeItHasWornAndTheRestStaysAsItIs() {
        VehicleDescription d = Vehicles.derived("oriel-heron");
        Reasoner reasoner = new Reasoners(d).of(List.of());
        double ratio = share(reasoner, "disc-front") / share(reasoner, "rim");
        assertThat(d.suspect("disc-front").orElseThrow().wears()).isEqualTo(60_000);
        assertThat(d.suspect("rim").orElseThrow().wears()).isZero();
        for (double[] expected :
                new double[][] {{6_000, 0.1}, {30_000, Math.pow(0.5, 1.5)}, {300_000, 1.2}}) {
            Evidence driven = new Evidence.Driven(expected[0], 0);
            assertThat(
                            share(reasoner, "disc-front", driven)
                                    / share(reasoner, "rim", driven)
                                    / ratio)
                    .as("%.0f km", expected[0])
                    .isCloseTo(expected[1], within(0.01));
        }
    }

    @Test
    void whatAgesIsRarerInANewVehicleHoweverFarItWent() {
        VehicleDescription d = Vehicles.derived("oriel-heron");
        Reasoner reasoner = new Reasoners(d).of(List.of());
        double ratio = share(reasoner, "battery-aged") / share(reasoner, "rim");
        for (double[] expected :
                new double[][] {
                    {60_000, 1, 1}, {6_000, 6, 1}, {6_000, 3, Math.pow(0.5, 1.5)}, {6_000, 0, 0.1}
                }) {
            Evidence driven = new Evidence.Driven(expected[0], expected[1]);
            assertThat(
                            share(reasoner, "battery-aged", driven)
                                    / share(reasoner, "rim", driven)
                                    / ratio)
                    .as("%.0f km, %.0f years", expected[0], expected[1])
                    .isCloseTo(expected[2], within(0.01));
        }
    }

    private static double share(Reasoner reasoner, String suspect, Evidence... known) {
        return reasoner.rank(List.of(known)).standings().stream()
                .filter(s -> s.suspectId().equals(suspect))
                .mapToDouble(Standing::sureness)
                .findFirst()
                .orElseThrow();
    }
}
