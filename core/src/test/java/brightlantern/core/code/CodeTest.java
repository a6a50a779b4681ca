package brightlantern.core.code;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import brightlantern.core.sweep.CodeWeigher;
import brightlantern.core.sweep.Sweep;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import brightlantern.core.sweep.SweepComparison;
import brightlantern.core.sweep.SweepComparison.Change;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.vehicle.Vehicles;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

class CodeTest {
    private static final VehicleDescription PORTAGE = Vehicles.portage();

    @Test
    void codesAreWrittenAndReadAlike() {
        for (int number = 0; number <= 0xFFFFFF; number += 61) {
            assertThat(Dtc.parse(new Dtc(number).toString()).number()).isEqualTo(number);
        }
    }

    @Test
    void codesByHand() {
        assertThat(new Dtc(0x029900)).hasToString("P0299-00");
        assertThat(new Dtc(0xC10013)).hasToString("U0100-13");
        assertThat(new Dtc(0x902113)).hasToString("B1021-13");
        assertThatThrownBy(() -> Dtc.parse("P299"))
                .hasMessageContaining("P0299-00")
                .hasMessageContaining("'P299'");
    }

    @Test
    void statusInWords() {
        assertThat(new DtcStatus(0x2F).words()).first().isEqualTo("fails now");
        assertThat(new DtcStatus(0x68).words())
                .containsExactly(
                        "confirmed, not failing now", "test not yet run in this key cycle");
        assertThat(new DtcStatus(0x50).standing()).isEqualTo(DtcStatus.Standing.QUIET);
        assertThat(new DtcStatus(0x24).standing()).isEqualTo(DtcStatus.Standing.PENDING);
    }

    private static StoredCode code(String module, String code, int status, int frames) {
        List<StoredCode.Frame> list = new ArrayList<>();
        for (int i = 1; i <= frames; i++) {
            list.add(
                    new StoredCode.Frame(
                            i, Map.of("engine.speed", 2500.0 + 40 * i, "coolant", 40.0 * i)));
        }
        return new StoredCode(module, module, code, code, status, list, frames, 0);
    }

    @Test
    void theCodeOfTheComplaintLeadsThoughAnotherFailsNow() {
        List<CodeWeigher.Weighed> weighed =
                CodeWeigher.weigh(
                        List.of(
                                code("trailer", "B1021-13", 0x2F, 1),
                                code("engine", "P0299-00", 0x28, 2)),
                        PORTAGE,
                        Set.of("flat-on-climbs"));
        assertThat(weighed.get(0).code().code()).isEqualTo("P0299-00");
        assertThat(weighed.get(0).lead()).isTrue();
        assertThat(weighed.get(1).aside()).isTrue();
        assertThat(weighed.get(0).reasons())
                .anyMatch(r -> r.contains("same thing as the complaint"));
    }

    @Test
    void presentBeatsStoredBeatsHistory() {
        assertThat(
                        CodeWeigher.weigh(
                                List.of(
                                        code("engine", "P0234-00", 0x20, 1),
                                        code("engine", "P0234-00", 0x08, 1),
                                        code("engine", "P0234-00", 0x01, 1)),
                                PORTAGE,
                                Set.of()))
                .extracting(w -> w.code().status())
                .containsExactly(0x01, 0x08, 0x20);
    }

    @Test
    void framesTellWhatBothOccasionsHadInCommon() {
        List<FrameComparison.Row> rows =
                FrameComparison.rows(code("engine", "P0299-00", 8, 2), PORTAGE.signals());
        assertThat(rows)
                .anySatisfy(
                        r -> {
                            assertThat(r.name()).isEqualTo("Engine speed");
                            assertThat(r.alike()).contains(true);
                        });
        assertThat(rows)
                .anySatisfy(
                        r -> {
                            assertThat(r.name()).isEqualTo("Coolant temperature");
                            assertThat(r.alike()).contains(false);
                        });
    }

    @Test
    void threeFramesAreThreeColumnsAndAllMustBeAlike() {
        List<FrameComparison.Row> rows =
                FrameComparison.rows(code("engine", "P0299-00", 8, 3), PORTAGE.signals());
        FrameComparison.Row speed =
                rows.stream()
                        .filter(r -> r.name().equals("Engine speed"))
                        .findFirst()
                        .orElseThrow();
        assertThat(speed.readings()).containsExactly("2540", "2580", "2620");
        assertThat(speed.alike()).contains(true);
        assertThat(
                        FrameComparison.rows(code("engine", "P0299-00", 8, 1), PORTAGE.signals())
                                .get(0)
                                .alike())
                .isEmpty();
    }

    private static StoredCode at(String code, double... kilometres) {
        List<StoredCode.Frame> frames = new ArrayList<>();
        for (double km : kilometres) {
            frames.add(
                    new StoredCode.Frame(
                            frames.size() + 1,
                            Map.of(
                                    "odometer",
                                    km,
                                    "engine.speed",
                                    2500 + km % 7,
                                    "coolant",
                                    km / 900)));
        }
        return new StoredCode("engine", "Engine", code, code, 8, frames, 1, 0);
    }

    @Test
    void codesThatCameTogetherAreOneOccasionAndWhatWasAlikeIsTold() {
        Occasions found =
                Occasions.of(
                        List.of(at("P0299-00", 80_000, 84_000.4), at("P0401-00", 84_000)),
                        PORTAGE.signals(),
                        "clock");
        assertThat(found.occasions()).hasSize(2);
        assertThat(found.occasions().get(0).codes())
                .extracting(StoredCode::code)
                .containsExactly("P0299-00");
        assertThat(found.occasions().get(1).codes())
                .extracting(StoredCode::code)
                .containsExactlyInAnyOrder("P0299-00", "P0401-00");
        assertThat(found.common())
                .anySatisfy(
                        c -> {
                            assertThat(c.name()).isEqualTo("Engine speed");
                            assertThat(c.text()).endsWith("rpm");
                        });
        assertThat(Occasions.of(List.of(at("P0299-00", 5)), PORTAGE.signals(), "clock").common())
                .isEmpty();
        assertThat(
                        Occasions.of(
                                        List.of(at("P0299-00", Double.NaN)),
                                        PORTAGE.signals(),
                                        "clock")
                                .occasions())
                .isEmpty();
    }

    @Test
    void urgencyByTheSeverityByte() {
        StoredCode bare = at("P0299-00", 1);
        assertThat(bare.urgency()).isEmpty();
        for (var expected : Map.of(0x80, "now", 0x40, "halt", 0x20, "service").entrySet()) {
            assertThat(
                            new StoredCode(
                                            "e",
                                            "E",
                                            "P0299-00",
                                            "n",
                                            8,
                                            List.of(),
                                            1,
                                            0,
                                            Optional.empty(),
                                            expected.getKey(),
                                            "")
                                    .urgency())
                    .endsWith(expected.getValue());
        }
    }

    private static Sweep sweep(Answer engine, String software, StoredCode... codes) {
        return new Sweep(
                Instant.EPOCH,
                Optional.of(Instant.EPOCH),
                List.of(
                        new ModuleResult(
                                "engine",
                                "Engine",
                                "drive",
                                engine,
                                "",
                                Map.of("software", software),
                                List.of(codes),
                                5)));
    }

    @Test
    void sweepsAreCompared() {
        Sweep before =
                sweep(
                        Answer.ANSWERED,
                        "S1",
                        code("engine", "P0299-00", 0x28, 1),
                        code("engine", "P0101-00", 0x28, 1));
        Sweep after =
                sweep(
                        Answer.ANSWERED,
                        "S2",
                        code("engine", "P0299-00", 0x2F, 1),
                        code("engine", "P0562-00", 0x28, 1));
        SweepComparison.Result result = SweepComparison.compare(before, after);
        assertThat(result.codes())
                .extracting(c -> c.code().code() + " " + c.change())
                .containsExactlyInAnyOrder("P0562-00 NEW", "P0299-00 CAME_BACK", "P0101-00 GONE");
        assertThat(result.modules())
                .singleElement()
                .satisfies(m -> assertThat(m.after()).isEqualTo("S2"));
    }

    @Test
    void aSilentModulesCodesAreNotGone() {
        SweepComparison.Result result =
                SweepComparison.compare(
                        sweep(Answer.ANSWERED, "S1", code("engine", "P0299-00", 0x28, 1)),
                        sweep(Answer.SILENT, "S1"));
        assertThat(result.codes())
                .singleElement()
                .satisfies(c -> assertThat(c.change()).isEqualTo(Change.UNKNOWN));
    }

    @Test
    void aCodeNobodyDescribedIsToldByTheStandards() {
        assertThat(StandardCodes.meaning(Dtc.parse("P0299-00")))
                .isEqualTo("Boost pressure too low");
        assertThat(StandardCodes.meaning(Dtc.parse("P0201-13")))
                .isEqualTo("Injector 1 circuit: circuit open");
        assertThat(StandardCodes.meaning(Dtc.parse("B1A21-87")))
                .isEqualTo("Body, the maker's own code: message missing");
        assertThat(StandardCodes.meaning(Dtc.parse("U0198-00")))
                .isEqualTo("Network, missing messages");
        assertThat(StandardCodes.makersOwn(Dtc.parse("P1234-00"))).isTrue();
        assertThat(StandardCodes.makersOwn(Dtc.parse("P3500-00"))).isFalse();
        assertThat(StandardCodes.failure(new Dtc(0x1234FE))).isEmpty();
    }

    @Test
    void everyCodeHasSomeMeaning() {
        for (int number = 0; number <= 0xFFFFFF; number += 4093) {
            assertThat(StandardCodes.meaning(new Dtc(number))).isNotBlank().doesNotContain("null");
        }
    }

    private static StoredCode low(String module, String code, double volts) {
        return new StoredCode(
                module,
                module,
                code,
                code,
                0x2F,
                List.of(new StoredCode.Frame(1, Map.of("body.supply", volts))),
                1,
                0);
    }

    @Test
    void knockOnCodesAndThoseOfALowSupplyDoNotLead() {
        var finch = Vehicles.named("oriel-finch");
        List<CodeWeigher.Weighed> weighed =
                CodeWeigher.weigh(
                        List.of(
                                code("engine", "P0171-00", 0x2F, 1),
                                code("tank", "P0496-00", 0x2F, 1),
                                low("body", "B1318-00", 9.6)),
                        finch,
                        Set.of("rough-idle"));
        assertThat(weighed)
                .extracting(w -> w.code().code() + " " + w.role())
                .containsExactly("P0496-00 LEAD", "P0171-00 KNOCK_ON", "B1318-00 ASIDE");
        assertThat(weighed.get(1).reasons()).contains("Brought along by P0496-00.");
        assertThat(weighed.get(2).reasons().get(0)).contains("has 9.6 V");
    }

    @Test
    void missingMessagesFollowTheBrokenWireAndOneStandsForIt() {
        var cairn = Vehicles.named("velmont-cairn");
        CodeWeigher.BrokenWire wire =
                new CodeWeigher.BrokenWire("X31", (from, to) -> from.equals("park-brake"));
        List<CodeWeigher.Weighed> weighed =
                CodeWeigher.weigh(
                        List.of(
                                code("park-brake", "C1B00-00", 0x2F, 1),
                                code("brakes", "U0128-00", 0x2F, 1)),
                        cairn,
                        Set.of("many-warnings"),
                        Optional.of(wire),
                        Set.of());
        assertThat(weighed.get(0).code().code()).isEqualTo("U0128-00");
        assertThat(weighed.get(0).lead()).isTrue();
        assertThat(weighed.get(1).knockOn()).isTrue();
    }
}
