package brightlantern.app.sweep;

import brightlantern.app.page.JobPages;
import brightlantern.core.code.CodeWeigher;
import brightlantern.core.sweep.Sweep;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Which part each code of a sweep plays, with what the sweep says of the network. */
@Component
class CodeParts {
    private final NetworkFindings network;

    CodeParts(NetworkFindings network) {
        this.network = network;
    }

    List<CodeWeigher.Weighed> weigh(JobPages.Context context, Sweep sweep) {
        return CodeWeigher.weigh(
                sweep.codes(),
                context.description(),
                context.job().symptoms(),
                brokenWire(context, sweep));
    }

    /** What a whole sweep points to on the wire, if it does. */
    Optional<CodeWeigher.BrokenWire> brokenWire(JobPages.Context context, Sweep sweep) {
        return Optional.of(sweep)
                .filter(Sweep::whole)
                .flatMap(s -> network.suspected(context, s))
                .map(
                        e ->
                                new CodeWeigher.BrokenWire(
                                        e.name() + " (" + e.place() + ")",
                                        (from, to) ->
                                                network.lost(context.description(), e, from, to)));
    }
}
