package brightlantern.standin.module;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.wire.Bytes;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** A module and its code memory, request by request, without sockets. */
class UdsModuleTest {
    private static final int BOOST = 0x029900;
    private static final Bytes FRAME = Bytes.hex("01 2001 2710");

    private final CodeMemory memory =
            new CodeMemory(
                    List.of(
                            new CodeMemory.Supported(BOOST, 0x80, true),
                            new CodeMemory.Supported(0x056200, 0x20, false)));
    private final AtomicBoolean awake = new AtomicBoolean(true);
    private final AtomicBoolean allowed = new AtomicBoolean(true);
    private final AtomicReference<OptionalDouble> output =
            new AtomicReference<>(OptionalDouble.empty());
    private final UdsModule module =
            new UdsModule(0x1010, 10, memory, awake::get)
                    .identifier(0xF190, () -> Bytes.text("ZZTPG22D2M1000417"))
                    .identifier(0x2001, () -> Bytes.of(0x12, 0x34))
                    .output(0x3001, new UdsModule.Output(() -> 42.0, output::set, allowed::get))
                    .routine(0x0201, () -> 0);

    /** The last reply to a request given in hex, in hex; empty when there is none. */
    private String ask(String request) {
        List<UdsModule.Reply> replies = module.handle(Bytes.hex(request));
        return replies.isEmpty() ? "" : replies.get(replies.size() - 1).data().toString();
    }

    @Test
    void identifiersOneOrSeveral() {
        assertThat(ask("22 2001")).isEqualTo("62 20 01 12 34");
        assertThat(ask("22 2001 2001")).isEqualTo("62 20 01 12 34 20 01 12 34");
        assertThat(ask("22 2001 9999")).isEqualTo("7F 22 31");
        assertThat(ask("22 20")).isEqualTo("7F 22 13");
    }

    @Test
    void unknownServicesAndKindsAreRefused() {
        assertThat(ask("99")).isEqualTo("7F 99 11");
        assertThat(ask("19 77")).isEqualTo("7F 19 12");
        assertThat(ask("10 05")).isEqualTo("7F 10 12");
        assertThat(ask("3E 00")).isEqualTo("7E 00");
        assertThat(ask("3E 80")).isEmpty();
        assertThat(ask("3E 01")).isEqualTo("7F 3E 12");
        assertThat(ask("11 01")).isEqualTo("51 01");
        assertThat(ask("11 81")).isEmpty();
        assertThat(ask("11 07")).isEqualTo("7F 11 12");
        assertThat(ask("10 83")).isEmpty();
    }

    @Test
    void oneCodeIsClearedAlone() {
        memory.report(BOOST, true, FRAME);
        memory.report(0x056200, true, FRAME);
        assertThat(ask("14 029900")).isEqualTo("54");
        assertThat(memory.failed(BOOST)).isFalse();
        assertThat(memory.failed(0x056200)).isTrue();
        assertThat(ask("14 123456")).isEqualTo("7F 14 31");
        assertThat(ask("14 FFFFFF")).isEqualTo("54");
        assertThat(memory.failed(0x056200)).isFalse();
    }

    @Test
    void outputsNeedTheSessionTheConditionAndComeBack() {
        assertThat(ask("2F 3001 03 64")).isEqualTo("7F 2F 7F");
        assertThat(ask("10 03")).startsWith("50 03");
        assertThat(ask("2F 3001 03 64")).isEqualTo("6F 30 01 03 54");
        assertThat(output.get()).hasValue(50);
        assertThat(ask("2F 3001 03 FF")).isEqualTo("7F 2F 31");
        allowed.set(false);
        assertThat(ask("2F 3001 03 64")).isEqualTo("7F 2F 83");
        assertThat(ask("2F 3001 00")).startsWith("6F 30 01 00");
        assertThat(output.get()).isEmpty();
    }

    @Test
    void theDefaultSessionAndAResetGiveOutputsBack() {
        for (String leave : List.of("10 01", "11 01")) {
            ask("10 03");
            ask("2F 3001 03 64");
            assertThat(output.get()).isPresent();
            ask(leave);
            assertThat(output.get()).as(leave).isEmpty();
        }
    }

    @Test
    void slowServicesAskForTimeFirst() {
        ask("10 03");
        List<UdsModule.Reply> replies = module.handle(Bytes.hex("31 01 0201"));
        assertThat(replies).hasSize(2);
        assertThat(replies.get(0).data()).isEqualTo(Bytes.hex("7F 31 78"));
        assertThat(replies.get(1).data()).isEqualTo(Bytes.hex("71 01 02 01"));
        assertThat(ask("31 01 0999")).isEqualTo("7F 31 31");
    }

    @Test
    void asleepOrUnpluggedSaysNothing() {
        awake.set(false);
        assertThat(ask("3E 00")).isEmpty();
        awake.set(true);
        module.behave(UdsModule.Behaviour.SILENT);
        assertThat(ask("3E 00")).isEmpty();
    }

    @Test
    void aCodeIsPendingThenConfirmedInTheSecondCycleAndAges() {
        memory.newCycle();
        memory.report(BOOST, true, FRAME);
        assertThat(ask("19 02 FF")).contains("02 99 00 27");
        memory.newCycle();
        assertThat(ask("19 02 04")).as("pending, test not yet run").contains("02 99 00 64");
        memory.report(BOOST, true, FRAME);
        assertThat(ask("19 02 08")).contains("02 99 00 AF");
        assertThat(ask("19 01 08")).isEqualTo("59 01 FF 01 00 01");
        for (int cycle = 0; cycle < 40; cycle++) {
            memory.newCycle();
            memory.report(BOOST, false, FRAME);
        }
        memory.newCycle();
        assertThat(ask("19 02 08")).as("aged out").isEqualTo("59 02 FF");
    }

    @Test
    void firstAndLastFramesAndCountersAndTheClear() {
        memory.report(BOOST, true, Bytes.hex("01 2001 0001"));
        for (int i = 2; i < 5; i++) {
            memory.newCycle();
            memory.report(BOOST, true, Bytes.of(0x01, 0x20, 0x01, 0x00, i));
        }
        assertThat(ask("19 04 029900 FF")).endsWith("01 01 20 01 00 01 02 01 20 01 00 04");
        assertThat(ask("19 04 029900 01")).endsWith("01 01 20 01 00 01");
        assertThat(ask("19 06 029900 FF")).endsWith("01 04 02 00 03 03");
        assertThat(ask("19 03")).isEqualTo("59 03 02 99 00 01 02 99 00 02");
        assertThat(ask("19 04 123456 FF")).isEqualTo("7F 19 31");
        assertThat(ask("14 FFFFFF")).isEqualTo("54");
        assertThat(ask("19 02 2F")).isEqualTo("59 02 FF");
        assertThat(ask("19 0A")).isEqualTo("59 0A FF 02 99 00 50 05 62 00 50");
        assertThat(ask("19 04 029900 FF")).isEqualTo("59 04 02 99 00 50");
    }

    private void confirm() {
        for (int cycle = 0; cycle < 2; cycle++) {
            memory.newCycle();
            memory.report(BOOST, true, FRAME);
        }
    }

    @Test
    void severityAndTheEmissionGroup() {
        confirm();
        memory.report(0x056200, true, FRAME);
        assertThat(ask("19 09 029900")).isEqualTo("59 09 FF 80 00 02 99 00 AF");
        assertThat(ask("19 08 20 FF")).isEqualTo("59 08 FF 20 00 05 62 00 27");
        assertThat(ask("19 42 33 08 FF")).isEqualTo("59 42 33 FF E0 04 80 02 99 00 AF");
        assertThat(ask("19 42 FE 08 FF")).as("another group").isEqualTo("7F 19 31");
    }

    @Test
    void aPermanentCodeOutlivesTheClearUntilItsOwnMonitorPassed() {
        confirm();
        assertThat(ask("19 55 33")).isEqualTo("59 55 33 FF 04 02 99 00 AF");
        ask("14 FFFFFF");
        assertThat(ask("19 42 33 08 FF")).isEqualTo("59 42 33 FF E0 04");
        assertThat(ask("19 15")).contains("02 99 00");
        memory.newCycle();
        assertThat(ask("19 15")).as("no result yet").contains("02 99 00");
        memory.report(BOOST, false, FRAME);
        memory.newCycle();
        assertThat(ask("19 15")).isEqualTo("59 15 FF");
    }

    @Test
    void theLampGoesOutAfterThreeGoodCycles() {
        confirm();
        for (int left = 2; left >= 0; left--) {
            memory.newCycle();
            memory.report(BOOST, false, FRAME);
            memory.newCycle();
            assertThat(ask("19 06 029900 03")).endsWith("03 0" + left);
        }
        assertThat(ask("19 09 029900"))
                .as("failed since the clear, no lamp")
                .endsWith("02 99 00 68");
    }

    @RepeatedTest(2000)
    void noRequestIsTooStrange(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        byte[] request = new byte[1 + random.nextInt(12)];
        random.nextBytes(request);
        for (UdsModule.Reply reply : module.handle(Bytes.of(request))) {
            assertThat(reply.data().size()).isPositive();
            assertThat(reply.millis()).isBetween(0L, 5000L);
        }
    }
}
