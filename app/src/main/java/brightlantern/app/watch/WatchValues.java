package brightlantern.app.watch;

import brightlantern.app.link.LiveFeed;
import brightlantern.app.link.VehicleLink;
import brightlantern.app.page.JobPages;
import brightlantern.core.network.ControlModule;
import brightlantern.core.signal.SamplingCost;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.core.watch.StudyNeeds;
import jakarta.servlet.http.HttpSession;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** The values that are watched: those chosen, and what reading them costs. */
final class WatchValues {

    private WatchValues() {}

    /** A value that may be chosen, with what it would cost. */
    record Candidate(Shown value, String words, String cost) {}

    /** What the chosen values cost, in words. */
    static String cost(VehicleDescription d, Map<String, Integer> counts, LiveFeed feed) {
        if (counts.isEmpty()) {
            return "Nothing is chosen.";
        }
        List<String> parts = new ArrayList<>();
        SamplingCost.rates(counts, VehicleLink.PACK, feed::answerMillis)
                .forEach(
                        (m, hz) ->
                                parts.add(
                                        String.format(
                                                Locale.ROOT,
                                                "%s %d at about %s Hz",
                                                d.module(m).map(ControlModule::name).orElse(m),
                                                counts.get(m),
                                                Units.told(hz))));
        return String.join("; ", parts)
                + ". Up to "
                + VehicleLink.PACK
                + " values of one module are of one moment.";
    }

    static String words(Value v) {
        return (v.name() + " " + v.id() + " " + v.module() + " " + String.join(" ", v.words()))
                .toLowerCase(Locale.ROOT);
    }

    /**
     * The chosen values; to begin with, those that the description says belong to a target and what
     * must follow it.
     */
    static Set<String> chosen(JobPages.Context context, HttpSession session) {
        Object kept = session.getAttribute("watch-" + context.job().id());
        if (kept instanceof List<?> list) {
            Set<String> ids = new LinkedHashSet<>();
            list.forEach(v -> ids.add(v.toString()));
            return ids;
        }
        return StudyNeeds.looked(context.description());
    }
}
