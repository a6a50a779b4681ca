package brightlantern.app.watch;

import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.study.reaction.ReactionCheck;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Whether one value of a take answers another. */
final class TakeReactions {

    private TakeReactions() {}

    /** The verdict with values in the units in which they are shown. */
    static Optional<ReactionCheck.Verdict> reaction(
            Take take, VehicleDescription d, String command, String answer) {
        if (!take.columns().containsKey(command) || !take.columns().containsKey(answer)) {
            return Optional.empty();
        }
        Map<String, Take.Column> both = new HashMap<>();
        for (String id : List.of(command, answer)) {
            both.put(id, inShownUnit(take.columns().get(id), d.value(id)));
        }
        return Optional.of(
                ReactionCheck.check(
                        new Take(both, List.of()),
                        command,
                        answer,
                        d.value(command).map(Value::show).orElse(""),
                        d.value(answer).map(Value::show).orElse("")));
    }

    static Take.Column inShownUnit(Take.Column column, Optional<Value> value) {
        double[] t = new double[column.size()];
        double[] y = new double[column.size()];
        for (int i = 0; i < t.length; i++) {
            t[i] = column.seconds(i);
            double raw = column.value(i);
            y[i] = value.map(v -> Scaling.shown(v, raw)).orElse(raw);
        }
        return new Take.Column(t, y);
    }
}
