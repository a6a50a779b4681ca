package brightlantern.app.watch;

import brightlantern.core.signal.Value;
import brightlantern.core.study.steps.SteppedExperiment;
import brightlantern.core.study.steps.SteppedExperiment.Reading;
import brightlantern.core.study.steps.SteppedExperiment.Settling;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A stepped experiment as it is kept.
 *
 * @param input value id that is read as the input; empty when it is typed
 * @param inputName what is set by hand
 * @param answer value id
 * @param low and high: permitted band of the answer, in the unit shown; empty where there is none
 */
record Experiment(
        String name,
        String input,
        String inputName,
        String answer,
        double settleSeconds,
        double drift,
        Optional<Double> low,
        Optional<Double> high,
        List<Reading> readings) {
    Settling settling() {
        return new Settling(settleSeconds, drift);
    }

    Experiment with(Reading reading) {
        List<Reading> all = new ArrayList<>(readings);
        all.add(reading);
        return new Experiment(
                name, input, inputName, answer, settleSeconds, drift, low, high, List.copyOf(all));
    }

    Experiment without(int index) {
        List<Reading> all = new ArrayList<>(readings);
        all.remove(index);
        return new Experiment(
                name, input, inputName, answer, settleSeconds, drift, low, high, List.copyOf(all));
    }

    SteppedExperiment study() {
        return SteppedExperiment.of(readings);
    }

    /** What it says so far, with the units of the values as the description shows them. */
    String sentence(VehicleDescription d) {
        return study().sentence(
                        low.orElse(Double.NaN),
                        high.orElse(Double.NaN),
                        d.value(input).map(Value::show).orElse(""),
                        d.value(answer).map(Value::show).orElse(""));
    }
}
