package brightlantern.app.sweep;

import brightlantern.app.page.JobPages;
import brightlantern.core.network.ControlModule;
import brightlantern.core.network.NetworkModel;
import brightlantern.core.sweep.CodeWeigher;
import brightlantern.core.sweep.Sweep;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Which part each code of a sweep plays, with what the sweep says of the network. */
@Component
class CodeParts {
    private final NetworkFindings network;

    CodeParts(NetworkFindings network) {
        this.network = network;
    }

    List<CodeWeigher.Weighed> weigh(JobPages.Context context, Sweep sweep) {
        return weigh(context, sweep, suspected(context, sweep));
    }

    /**
     * The same when it is known already what the sweep points to on the wire.
     *
     * @param suspected by {@link #suspected}
     */
    List<CodeWeigher.Weighed> weigh(
            JobPages.Context context, Sweep sweep, Optional<NetworkModel.Element> suspected) {
        Set<String> fitted = network.fitted(context);
        Set<String> absent =
                context.description().modules().stream()
                        .map(ControlModule::id)
                        .filter(m -> !fitted.contains(m))
                        .collect(Collectors.toSet());
        return CodeWeigher.weigh(
                sweep.codes(),
                context.description(),
                context.job().symptoms(),
                suspected.map(
                        e ->
                                new CodeWeigher.BrokenWire(
                                        name(e),
                                        (from, to) ->
                                                network.lost(context.description(), e, from, to))),
                absent);
    }

    static String name(NetworkModel.Element element) {
        return element.heardAt();
    }

    /** What a whole sweep points to on the wire, if it does. */
    Optional<NetworkModel.Element> suspected(JobPages.Context context, Sweep sweep) {
        return Optional.of(sweep).filter(Sweep::whole).flatMap(s -> network.suspected(context, s));
    }
}
