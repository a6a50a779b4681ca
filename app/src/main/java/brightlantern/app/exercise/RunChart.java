package brightlantern.app.exercise;

import brightlantern.app.page.Chart;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;

/** Command, feedback and current of a run on one chart. */
final class RunChart {
    /** What is no percentage is drawn so that its most reaches this height. */
    private static final double HEIGHT = 80;

    private RunChart() {}

    /**
     * All that was read while an output was led.
     *
     * @param legend what each line is, in their order
     */
    record Led(Chart chart, List<String> legend) {}

    static Led of(Take take, VehicleDescription d, List<String> ids) {
        List<Chart.Series> series = new ArrayList<>();
        List<String> legend = new ArrayList<>();
        for (String id : ids) {
            Take.Column column = take.columns().get(id);
            if (column == null || d.value(id).isEmpty()) {
                continue;
            }
            Value v = d.value(id).get();
            double[] t = new double[column.size()];
            double[] y = new double[column.size()];
            double most = 1e-9;
            for (int i = 0; i < t.length; i++) {
                t[i] = column.seconds(i);
                y[i] = Scaling.shown(v, column.value(i));
                most = Double.isFinite(y[i]) ? Math.max(most, Math.abs(y[i])) : most;
            }
            boolean percent = v.show().equals("%");
            for (int i = 0; i < t.length && !percent; i++) {
                y[i] *= HEIGHT / most;
            }
            legend.add(
                    percent
                            ? v.name()
                            : "%s (10 is %s %s)"
                                    .formatted(v.name(), Units.told(10 * most / HEIGHT), v.show()));
            series.add(new Chart.Series("", t, y));
        }
        return new Led(Chart.of("seconds", "%", 0, 100, series), legend);
    }
}
