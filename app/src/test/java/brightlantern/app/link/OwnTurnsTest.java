package brightlantern.app.link;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** One that waits or breaks holds up none of the others. */
@Timeout(30)
class OwnTurnsTest {
    @Test
    void eightThatHangDoNotDelayTheNinth() throws Exception {
        try (OwnTurns<String> turns = new OwnTurns<>("test")) {
            CountDownLatch never = new CountDownLatch(1);
            AtomicInteger begun = new AtomicInteger();
            for (int round = 0; round < 3; round++) {
                for (int ill = 0; ill < 8; ill++) {
                    turns.turn(
                            "ill " + ill,
                            () -> {
                                begun.incrementAndGet();
                                await(never);
                            });
                }
            }
            CountDownLatch good = new CountDownLatch(1);
            turns.turn("good", good::countDown);
            assertThat(good.await(5, TimeUnit.SECONDS)).isTrue();
            never.countDown();
            assertThat(begun.get()).isLessThanOrEqualTo(8);
        }
    }

    @Test
    void whatBrokeIsTriedAgain() throws Exception {
        try (OwnTurns<String> turns = new OwnTurns<>("test")) {
            CountDownLatch broke = new CountDownLatch(1);
            turns.turn(
                    "one",
                    () -> {
                        broke.countDown();
                        throw new IllegalStateException("told on purpose by the test");
                    });
            broke.await();
            CountDownLatch again = new CountDownLatch(1);
            for (int i = 0; i < 500 && again.getCount() > 0; i++) {
                turns.turn("one", again::countDown);
                TimeUnit.MILLISECONDS.sleep(10);
            }
            assertThat(again.getCount()).isZero();
        }
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }
}
