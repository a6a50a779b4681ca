package brightlantern.standin.plant;

import brightlantern.core.sound.Wav;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleSupplier;

/** The injectors as one hears them click, one after the other, with the engine off. */
public final class Injectors implements Part {
    private static final int ROUNDS = 3;

    private final List<Integer> order;
    private final int seed;
    private volatile int stiff;

    /**
     * @param order cylinders in the order in which they click
     */
    public Injectors(List<Integer> order, int seed) {
        this.order = List.copyOf(order);
        this.seed = seed;
    }

    @Override
    public void step(Whole whole, double dt) {
        // an injector that rests does not change
    }

    @Override
    public Map<String, DoubleSupplier> sensors() {
        return Map.of();
    }

    @Override
    public Optional<Wav> injectors(Whole whole) {
        return Optional.of(InjectorClicks.heard(order, ROUNDS, stiff, whole.coolant(), seed));
    }

    /** One is stiff while it is cold. */
    @Override
    public void fail(String mode, String of, double size) {
        if (mode.equals("stiff")) {
            stiff = size > 0 ? Integer.parseInt(of) : 0;
        } else {
            Part.super.fail(mode, of, size);
        }
    }
}
