package brightlantern.core.procedure;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Runs of the procedures that ship, without any vehicle. */
class ProcedureRunTest {
    private static ProcedureRun begin(String vehicle, String id) throws IOException {
        return ProcedureRun.begin(ProcedureReaderTest.named(vehicle, id));
    }

    private static ProcedureRun typed(ProcedureRun run, double number) {
        return run.with(new Event.Typed(run.at(), number));
    }

    private static ProcedureRun chosen(ProcedureRun run, String choice) {
        return run.with(new Event.Chosen(run.at(), choice));
    }

    private static ProcedureRun did(ProcedureRun run, Map<String, Double> readings) {
        return run.with(new Event.Did(run.at(), readings));
    }

    @Test
    void aPlanGoesItsWayAndConcludes() throws IOException {
        ProcedureRun run = begin("oriel-heron", "three-wire-sensor");
        run = run.with(new Event.Pressed("unplug"));
        run = typed(run, 5.02);
        assertThat(run.at()).isEqualTo("earth");
        assertThat(run.verdicts().get(0).says()).isEqualTo("The reference holds.");
        assertThat(run.been()).contains("unplug", "reference", "earth").doesNotContain("signal");
        assertThat(run.verdicts().get(0).reasons().get(0))
                .contains("Reference under the lamp: 5.02 V");
        run = typed(run, 1.4);
        assertThat(run.status()).isEqualTo(ProcedureRun.Status.CONCLUDED);
        assertThat(run.ended()).startsWith("Follow the earth wire");
        assertThat(run.verdicts())
                .extracting(ProcedureRun.Verdict::passes)
                .containsExactly(Optional.of(true), Optional.of(false), Optional.of(false));
    }

    @Test
    void nonsenseAndWhatComesTooLateCountForNothing() throws IOException {
        ProcedureRun run = begin("oriel-heron", "three-wire-sensor");
        assertThat(run.with(new Event.Typed("reference", 5))).isEqualTo(run);
        ProcedureRun asked = run.with(new Event.Pressed("unplug"));
        assertThat(asked.with(new Event.Pressed("unplug"))).isEqualTo(asked);
        assertThat(typed(asked, 900)).isEqualTo(asked);
        assertThat(typed(asked, Double.NaN)).isEqualTo(asked);
        assertThat(chosen(asked, "yes")).isEqualTo(asked);
        assertThat(asked.with(new Event.Resumed("reference"))).isEqualTo(asked);
    }

    @Test
    void whatIsHeldIsKnownAndABreakLeadsBackToWhereNothingWas() throws IOException {
        ProcedureRun run = begin("stonebarrow-wl9", "cut-out");
        run = run.with(new Event.Held("settle"));
        run = did(run, Map.of());
        assertThat(run.at()).isEqualTo("off-1");
        assertThat(run.holding()).isEmpty();
        run = did(run, Map.of());
        assertThat(run.holding()).containsExactly("injector-1");
        assertThat(run.safe()).isEqualTo("off-1");
        ProcedureRun broken = run.with(new Event.Stopped(run.at(), "The page went away."));
        assertThat(broken.status()).isEqualTo(ProcedureRun.Status.BROKEN_OFF);
        assertThat(broken.holding()).isEmpty();
        assertThat(broken.with(new Event.Pressed("x"))).isEqualTo(broken);
        ProcedureRun again = broken.with(new Event.Resumed(broken.at()));
        assertThat(again.running()).isTrue();
        assertThat(again.at()).isEqualTo("off-1");
        run = did(run, Map.of());
        run = did(run, Map.of());
        assertThat(run.at()).isEqualTo("rest-1");
        assertThat(run.holding()).isEmpty();
    }

    @Test
    void aLogPlayedAgainGivesTheSameRun() throws IOException {
        Procedure procedure = ProcedureReaderTest.named("oriel-heron", "charging");
        List<Event> log = new ArrayList<>();
        ProcedureRun run = ProcedureRun.begin(procedure);
        for (Event event :
                List.of(
                        new Event.Held("stopped"),
                        new Event.Did("rest", volts("rest", 12.4)),
                        new Event.Held("run"),
                        new Event.Did("charge", volts("charge", 14.1)),
                        new Event.Pressed("load"),
                        new Event.Did("loaded", volts("loaded", 12.2)))) {
            log.add(event);
            run = run.with(event);
        }
        assertThat(run.ended()).startsWith("The belt slips");
        assertThat(ProcedureRun.replay(procedure, log)).isEqualTo(run);
        ProcedureRun half = ProcedureRun.replay(procedure, log.subList(0, 3));
        assertThat(half.at()).isEqualTo("charge");
    }

    private static Map<String, Double> volts(String as, double volts) {
        String id = Scene.reading(as, "engine.supply");
        return Map.of(id, volts, id + ".least", volts, id + ".most", volts, id + ".spread", 0.0);
    }

    @Test
    void anInstructionNotFollowedIsToldAsSuch() throws IOException {
        ProcedureRun run = begin("oriel-heron", "charging").with(new Event.Late("stopped"));
        assertThat(run.ended()).contains("An instruction was not followed, no fault was found");
        assertThat(run.verdicts().get(0).passes()).isEmpty();
    }

    @Test
    void aLoopEndsWhenItsCounterIsDownOrItsLimitReached() throws IOException {
        ProcedureRun run = did(begin("stonebarrow-wl9", "learn-crank"), Map.of());
        for (int left = 2; left >= 0; left--) {
            assertThat(run.at()).isEqualTo("up");
            run = run.with(new Event.Held("up")).with(new Event.Held("release"));
            run = did(run, Map.of(Scene.result("learn-crank", "left"), (double) left));
        }
        assertThat(run.at()).isEqualTo("stop");
        assertThat(did(run, Map.of()).ended())
                .isEqualTo("The module has learned the crank signal.");

        ProcedureRun endless = did(begin("stonebarrow-wl9", "learn-crank"), Map.of());
        for (int i = 0; i < 12; i++) {
            endless = endless.with(new Event.Held("up")).with(new Event.Held("release"));
            endless = did(endless, Map.of(Scene.result("learn-crank", "left"), 3.0));
        }
        assertThat(endless.at()).isEqualTo("gave-up");
    }

    @Test
    void aRefusalEndsTheRunWithItsWords() throws IOException {
        ProcedureRun run = begin("quillon-ember", "balance");
        run = did(run, Map.of());
        run = run.with(new Event.Refused("start", "conditions not correct"));
        assertThat(run.status()).isEqualTo(ProcedureRun.Status.BROKEN_OFF);
        assertThat(run.ended()).isEqualTo("The vehicle refused: conditions not correct");
    }

    @Test
    void aStudysOutcomeDecidesTheWay() throws IOException {
        ProcedureRun run = did(begin("oriel-finch", "leak-test"), Map.of());
        run = did(run, Map.of());
        run = did(run, Map.of(Scene.result("leak-test", "state"), 2.0));
        assertThat(run.at()).isEqualTo("judged");
        ProcedureRun leak = run.with(judged("leak", false));
        assertThat(leak.at()).isEqualTo("pinch");
        assertThat(leak.verdicts().get(0).tells()).containsEntry("tank-test", "leak");
        assertThat(run.with(judged("tight", true)).ended()).isEqualTo("The leak test is done.");
        ProcedureRun pinched = did(did(chosen(leak, "yes"), Map.of()), Map.of());
        pinched =
                pinched.with(
                        new Event.Judged(
                                "pinched", "tight", Optional.of(true), "Tight.", List.of()));
        assertThat(pinched.verdicts().get(2).tells()).containsEntry("tank-pinched", "holds");
    }

    /** A replacement up to the codes that are read at its end; the old ones were these. */
    private static ProcedureRun replaced(String before) throws IOException {
        ProcedureRun run = begin("tamarack-portage", "replace-trailer");
        run = run.with(new Event.Kept("codes-before", Map.of("before-codes", before)));
        run = run.with(new Event.Kept("read-old", Map.of(Scene.item("wanted", "vin"), "5A")));
        run = chosen(run, "carry").with(new Event.Held("key-off"));
        run = run.with(new Event.Pressed("swap")).with(new Event.Held("key-on"));
        run = chosen(run.with(new Event.Kept("read-new", Map.of())), "go");
        run = did(did(did(run, Map.of()), Map.of()), Map.of());
        return run.with(new Event.Held("off-again")).with(new Event.Held("on-again"));
    }

    @Test
    void newCodesAreToldFromOldOnesAndFromThoseThatPassAgain() throws IOException {
        String old = "Body, B1000-00 Old";
        ProcedureRun run = replaced(old);
        assertThat(run.at()).isEqualTo("codes-after");
        ProcedureRun same =
                run.with(new Event.Kept(run.at(), Map.of("after-codes", old + " (fails now)")));
        assertThat(verdict(same).says()).isEqualTo("No code came since.");
        assertThat(verdict(same).passes()).contains(true);
        ProcedureRun fresh =
                run.with(
                        new Event.Kept(
                                run.at(),
                                Map.of("after-codes", "Trailer, B2A10-55 New (fails now)")));
        assertThat(verdict(fresh).says()).isEqualTo("1 code came since and fails now.");
        assertThat(verdict(fresh).reasons())
                .containsExactly("new: Trailer, B2A10-55 New (fails now)", "gone: " + old);
        ProcedureRun passing =
                run.with(
                        new Event.Kept(
                                run.at(), Map.of("after-codes", old + "\nTrailer, B2A10-55 New")));
        assertThat(verdict(passing).passes()).contains(true);
        assertThat(verdict(passing).says()).contains("1 came meanwhile and passes");
    }

    private static ProcedureRun.Verdict verdict(ProcedureRun run) {
        return run.verdicts().get(run.verdicts().size() - 1);
    }

    private static Event judged(String outcome, boolean passes) {
        return new Event.Judged("judged", outcome, Optional.of(passes), "So.", List.of());
    }
}
