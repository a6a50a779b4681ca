package brightlantern.app.watch;

import brightlantern.app.page.Chart;
import brightlantern.core.signal.Value;
import brightlantern.core.study.steps.SteppedExperiment;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** The readings of an experiment as a drawing. */
final class ExperimentChart {

    private ExperimentChart() {}

    static Optional<Chart> chart(Experiment e, Value answer) {
        SteppedExperiment study = e.study();
        if (e.readings().size() < 2 || study.fit().isEmpty()) {
            return Optional.empty();
        }
        SteppedExperiment.Fit fit = study.fit().get();
        double[] x =
                e.readings().stream()
                        .mapToDouble(SteppedExperiment.Reading::input)
                        .sorted()
                        .toArray();
        double[] measured = new double[x.length];
        double[] line = new double[x.length];
        List<SteppedExperiment.Reading> sorted = new ArrayList<>(e.readings());
        sorted.sort(Comparator.comparingDouble(SteppedExperiment.Reading::input));
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < x.length; i++) {
            measured[i] = sorted.get(i).answer();
            line[i] = fit.intercept() + fit.slope() * x[i];
            least = Math.min(least, Math.min(measured[i], line[i]));
            most = Math.max(most, Math.max(measured[i], line[i]));
        }
        double room = Math.max(1e-6, 0.1 * (most - least));
        return Optional.of(
                Chart.of(
                        e.inputName(),
                        answer.show(),
                        least - room,
                        most + room,
                        List.of(
                                new Chart.Series("line", x, line),
                                new Chart.Series("measured", x, measured))));
    }
}
