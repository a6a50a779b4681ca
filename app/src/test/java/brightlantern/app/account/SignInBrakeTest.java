package brightlantern.app.account;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.Test;

/** Passwords cannot be tried in a row, and nobody locks an owner out. */
class SignInBrakeTest {
    private final AtomicLong now = new AtomicLong();
    private final SignInBrake brake = new SignInBrake(now::get);

    private void pass(Duration time) {
        now.addAndGet(time.toNanos());
    }

    @Test
    void eachWrongOneAfterTheFreeOnesDoublesTheWait() {
        for (int i = 0; i < SignInBrake.FREE; i++) {
            assertThat(brake.wait("ann", "a")).isZero();
            brake.wrong("ann", "a");
        }
        assertThat(brake.wait("ann", "a")).isEqualTo(Duration.ofSeconds(1));
        assertThat(brake.wait("bob", "a")).isZero();
        assertThat(brake.wait("ann", "b")).isZero();
        pass(Duration.ofSeconds(1));
        assertThat(brake.wait("ann", "a")).isZero();
        brake.wrong("ann", "a");
        assertThat(brake.wait("ann", "a")).isEqualTo(Duration.ofSeconds(2));
        for (int i = 0; i < 100; i++) {
            brake.wrong("ann", "a");
        }
        assertThat(brake.wait("ann", "a")).isEqualTo(Duration.ofSeconds(60));
        brake.right("ann", "a");
        assertThat(brake.wait("ann", "b")).isPositive();
        pass(Duration.ofMinutes(16));
        brake.wrong("ann", "a");
        assertThat(brake.wait("ann", "a")).isZero();
    }

    @Test
    void theOwnerGetsInWhileOthersTryFromEverywhere() {
        brake.right("ann", "home");
        for (int i = 0; i < 200; i++) {
            brake.wrong("ann", "stranger " + i);
        }
        assertThat(brake.wait("ann", "one more stranger")).isPositive();
        assertThat(brake.wait("ann", "home")).isZero();
    }

    @Test
    void anAddressThatTriesManyNamesWaits() {
        for (int i = 0; i < SignInBrake.FREE_OF_ALL; i++) {
            brake.wrong("name" + i, "a");
        }
        assertThat(brake.wait("yet another", "a")).isPositive();
        assertThat(brake.wait("yet another", "b")).isZero();
    }
}
