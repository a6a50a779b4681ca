package brightlantern.standin;

import static org.assertj.core.api.Assertions.assertThat;

import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.PressureStudy;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/**
 * What is read in captures: mechanical faults of random size on all engines, and healthy ones, each
 * cranked once before the stand-in's oscilloscope. {@code -Dseed=N -Druns=N}; a line a figure.
 */
class CaptureBench {
    private static final Set<String> MODES = Set.of("exhaust-valve", "intake-valve", "rings");

    private final Random random = new Random(Long.getLong("seed", 1));
    private final int runs = Integer.getInteger("runs", 60);
    private final Yard yard = new Yard(random);

    @Test
    void oneCranking() {
        int right = 0;
        int accused = 0;
        int fuel = 0;
        int lost = 0;
        int tight = 0;
        for (int i = 0; i < runs; i++) {
            String id = yard.drawn();
            CrankingStudy.Judgement healthy = ScopedCapture.judged(yard.built(id));
            if (!healthy.holds()) {
                accused++;
                System.out.println("truth: accused " + id + ": " + healthy);
            }
            StandInVehicle v = yard.built(id);
            List<Mechanics.Failing> leaks =
                    v.simulation().damage().failings().stream()
                            .filter(f -> MODES.contains(f.at().get(0).mode()))
                            .toList();
            Mechanics.Failing failing = leaks.get(random.nextInt(leaks.size()));
            v.simulation()
                    .damage()
                    .fail(
                            failing,
                            failing.least()
                                    + random.nextDouble() * (failing.most() - failing.least()));
            Mechanics.At at = failing.at().get(0);
            CrankingStudy.Judgement judgement = ScopedCapture.judged(v);
            boolean hit = judgement.outcome().equals(at.mode() + "-" + at.of());
            right += hit ? 1 : 0;
            if (!hit) {
                System.out.println(
                        "truth: missed " + id + ", " + failing.name() + ": " + judgement);
            }
            lost += pressure(v, Integer.parseInt(at.of())).equals("leaks") ? 1 : 0;
            StandInVehicle weak = yard.built(id);
            weak.simulation().fail("crank", "gives", "1", 0.4);
            fuel += ScopedCapture.judged(weak).holds() ? 1 : 0;
            tight += pressure(weak, 1).equals("tight") ? 1 : 0;
        }
        double n = runs;
        Yard.line(
                "capture", "cylinder and kind right", right / n, "at least 0.9", right >= 0.9 * n);
        Yard.line("capture", "healthy engines accused", accused, "0", accused == 0);
        Yard.line(
                "capture",
                "missing fuel told from a leak",
                fuel / n,
                "at least 0.9",
                fuel >= 0.9 * n);
        Yard.line(
                "capture",
                "loss told by the pressure in its cylinder",
                lost / n,
                "at least 0.9",
                lost >= 0.9 * n);
        Yard.line("capture", "tight cylinders told so", tight / n, "all", tight == runs);
        assertThat(right).isGreaterThanOrEqualTo((int) (0.9 * runs));
        assertThat(accused).isZero();
    }

    private static String pressure(StandInVehicle v, int cylinder) {
        return ScopedCapture.pressed(v, cylinder)
                .map(PressureStudy.Judgement::outcome)
                .orElse("none");
    }
}
