package brightlantern.app.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

/** Who commands a vehicle, and how that passes on. */
class CommandLeaseTest {
    private final CommandLease lease = new CommandLease();

    @Test
    void oneAtATimeAndWhoeverHasItKeepsIt() {
        lease.claim("ann");
        lease.claim("ann");
        assertThatThrownBy(() -> lease.claim("bert"))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("ann is commanding this vehicle now");
        lease.release("bert");
        assertThat(lease.holder()).contains("ann");
        lease.release("ann");
        lease.claim("bert");
        assertThat(lease.holder()).contains("bert");
    }

    @Test
    void itPassesOnOnlyWithItsHoldersWordAndToWhoAsked() {
        lease.claim("ann");
        lease.handOver("ann");
        assertThat(lease.holder()).as("nobody asked").contains("ann");
        lease.ask("bert");
        assertThat(lease.asked()).contains("bert");
        lease.handOver("bert");
        lease.handOver("carl");
        assertThat(lease.holder()).as("not theirs to give").contains("ann");
        lease.handOver("ann");
        assertThat(lease.holder()).contains("bert");
        assertThat(lease.asked()).isEmpty();
        assertThatThrownBy(() -> lease.claim("ann")).hasMessageContaining("bert");
    }

    @Test
    void itLapsesAfterATimeOfSilenceAndNotBefore() {
        long[] now = {Long.MAX_VALUE - 5_000_000_000L};
        CommandLease silent = new CommandLease(() -> now[0]);
        silent.claim("ann");
        now[0] += 29_000_000_000L;
        assertThatThrownBy(() -> silent.claim("bert")).hasMessageContaining("ann");
        silent.claim("ann");
        now[0] += 31_000_000_000L;
        assertThat(silent.holder()).isEmpty();
        silent.claim("bert");
        assertThat(silent.holder()).contains("bert");
    }

    @Test
    void aWishOfNobodyElseIsNone() {
        lease.ask("ann");
        assertThat(lease.asked()).as("there is nobody to ask").isEmpty();
        lease.claim("ann");
        assertThat(lease.asked()).as("one's own").isEmpty();
    }
}
