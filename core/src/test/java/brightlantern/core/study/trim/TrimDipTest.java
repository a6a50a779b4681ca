package brightlantern.core.study.trim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import brightlantern.core.take.Columns;
import brightlantern.core.take.Take;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;

class TrimDipTest {
    @Test
    void aDipIsTimedAgainstItsMark() {
        Random random = new Random(8);
        Take take =
                new Take(
                        Map.of(
                                "trim",
                                Columns.of(
                                        60,
                                        t ->
                                                6
                                                        + 0.3 * random.nextGaussian()
                                                        - (t > 31.2 && t < 34 ? 5 : 0))),
                        List.of(
                                new Take.Mark(15, "at the hose"),
                                new Take.Mark(30, "at the gasket"),
                                new Take.Mark(59.8, "too late")));
        List<TrimDip> dips = TrimDip.of(take, "trim");
        assertThat(dips).hasSize(2);
        assertThat(dips.get(0).dips()).isFalse();
        assertThat(dips.get(0).sentence()).contains("does not dip after the mark 'at the hose'");
        assertThat(dips.get(1).dips()).isTrue();
        assertThat(dips.get(1).after()).isCloseTo(1.3, within(0.2));
        assertThat(dips.get(1).by()).isCloseTo(5.6, within(0.8));
        assertThat(TrimDip.of(take, "other")).isEmpty();
    }
}
