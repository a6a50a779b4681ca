package brightlantern.app.exercise;

import brightlantern.app.page.Chart;
import brightlantern.core.actuator.ActuatorRun;
import java.util.List;

/** Command and feedback of a run on one chart. */
final class RunChart {
    private RunChart() {}

    static Chart of(List<ActuatorRun.Sample> samples) {
        return Chart.of(
                "seconds",
                "%",
                0,
                100,
                List.of(
                        new Chart.Series(
                                "command",
                                samples.stream().mapToDouble(ActuatorRun.Sample::seconds).toArray(),
                                samples.stream()
                                        .mapToDouble(ActuatorRun.Sample::command)
                                        .toArray()),
                        new Chart.Series(
                                "feedback",
                                samples.stream().mapToDouble(ActuatorRun.Sample::seconds).toArray(),
                                samples.stream()
                                        .mapToDouble(ActuatorRun.Sample::feedback)
                                        .toArray())));
    }
}
