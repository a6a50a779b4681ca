package brightlantern.app.watch;

import brightlantern.app.link.LiveFeed;
import brightlantern.app.page.JobPages;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.TimeUnit;

/** Live values over the next few seconds, in the units in which they are shown. */
final class LiveSpan {
    private LiveSpan() {}

    /**
     * @return a column for each id, empty when nothing came
     */
    static Map<String, Take.Column> read(JobPages.Context context, Set<String> ids, double seconds)
            throws InterruptedException {
        ConcurrentLinkedQueue<LiveFeed.Samples> came = new ConcurrentLinkedQueue<>();
        double start = LiveFeed.now();
        try (LiveFeed.Subscription reading =
                context.link().feed().subscribe(context.description(), ids, came::add)) {
            TimeUnit.MILLISECONDS.sleep(Math.round(1000 * seconds));
        }
        Map<String, Take.Column> columns = new LinkedHashMap<>();
        for (String id : ids) {
            Value value = context.description().value(id).orElseThrow();
            List<double[]> rows = new ArrayList<>();
            for (LiveFeed.Samples s : came) {
                if (s.values().containsKey(id)) {
                    rows.add(
                            new double[] {
                                s.epochSeconds() - start, Scaling.shown(value, s.values().get(id))
                            });
                }
            }
            columns.put(
                    id,
                    new Take.Column(
                            rows.stream().mapToDouble(r -> r[0]).toArray(),
                            rows.stream().mapToDouble(r -> r[1]).toArray()));
        }
        return columns;
    }
}
