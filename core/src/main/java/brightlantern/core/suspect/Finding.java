package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Optional;

/**
 * A finding with a fixed set of outcomes.
 *
 * @param element of the network, for which every outcome speaks that is rare on a healthy vehicle;
 *     empty for findings of which the suspects tell themselves
 */
public record Finding(String id, String name, List<FindingOutcome> outcomes, String element) {
    public Finding {
        outcomes = OrEmpty.list(outcomes);
        element = OrEmpty.text(element);
    }

    /**
     * @throws NoSuchElementException when it has no such outcome
     */
    public FindingOutcome outcome(String outcomeId) {
        return known(outcomeId)
                .orElseThrow(
                        () ->
                                new NoSuchElementException(
                                        "finding " + id + " has no outcome '" + outcomeId + "'"));
    }

    /** One of its outcomes; empty for the end of a range, at which two instruments agree. */
    public Optional<FindingOutcome> known(String outcomeId) {
        return outcomes.stream().filter(o -> o.id().equals(outcomeId)).findFirst();
    }
}
