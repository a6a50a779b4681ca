package brightlantern.core.sweep;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.code.StoredCode;
import brightlantern.core.sweep.Sweep.Answer;
import brightlantern.core.sweep.Sweep.ModuleResult;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class SweepTableTest {
    private static final StoredCode BOOST =
            new StoredCode("engine", "Engine", "P0299-00", "Boost, too low", 0x2F, List.of(), 3, 0);

    private static Sweep sweep(ModuleResult... modules) {
        return new Sweep(Instant.EPOCH, Optional.of(Instant.EPOCH), List.of(modules));
    }

    private static ModuleResult module(String id, Answer answer, StoredCode... codes) {
        return new ModuleResult(
                id,
                id.substring(0, 1).toUpperCase() + id.substring(1),
                "drive",
                answer,
                answer == Answer.SILENT ? "No answer within 1000 ms" : "",
                Map.of("software", "S1"),
                List.of(codes),
                20);
    }

    @Test
    void aSweepAsCsvAndAsText() {
        SweepTable table =
                SweepTable.of(
                        "Sweep",
                        List.of("a van"),
                        sweep(
                                module("engine", Answer.ANSWERED, BOOST),
                                module("audio", Answer.SILENT)),
                        List.of(
                                new CodeWeigher.Weighed(
                                        BOOST,
                                        1,
                                        CodeWeigher.Role.LEAD,
                                        List.of("It fails now."))));
        assertThat(table.csv())
                .isEqualTo(
                        "module,code,meaning,part,status,times,why\r\n"
                                + "Engine,P0299-00,\"Boost, too low\",lead code,fails now,3,It fails now.\r\n"
                                + "Audio,,,,silent,,No answer within 1000 ms\r\n");
        assertThat(table.text())
                .isEqualTo(
                        """
                        Sweep
                        a van

                        module  code      meaning         part       status     times  why
                        Engine  P0299-00  Boost, too low  lead code  fails now  3      It fails now.
                        Audio                                        silent            No answer within 1000 ms
                        """);
    }

    @Test
    void aComparisonNamesEveryChange() {
        Sweep before = sweep(module("engine", Answer.ANSWERED), module("audio", Answer.ANSWERED));
        Sweep after =
                sweep(
                        module("engine", Answer.ANSWERED, BOOST),
                        new ModuleResult(
                                "audio",
                                "Audio",
                                "drive",
                                Answer.ANSWERED,
                                "",
                                Map.of("software", "S2"),
                                List.of(),
                                20));
        SweepTable table =
                SweepTable.of("Compared", List.of(), SweepComparison.compare(before, after));
        assertThat(table.rows())
                .containsExactly(
                        List.of("new", "Engine", "P0299-00", "Boost, too low", ""),
                        List.of("changed", "Audio", "", "software", "S1 → S2"));
    }
}
