package brightlantern.app.prove;

import brightlantern.app.page.NextCard;
import brightlantern.core.proof.RepairWays;
import brightlantern.core.reason.Ranking;
import brightlantern.core.suspect.Repair;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The repairs that are offered for the leading causes. */
final class RepairOptions {
    /** Repairs of suspects further down are hardly what anybody did. */
    private static final int OPTIONS = 14;

    private RepairOptions() {}

    /**
     * @param price of work and parts
     */
    record Option(String suspectId, String suspect, double sureness, Repair repair, double price) {
        /** Worth a line of its own: not all but ruled out. */
        public boolean likely() {
            return sureness >= 0.01;
        }
    }

    /** Suspects whose repair is worth a line of its own. */
    static List<String> likely(List<Option> options) {
        return options.stream().filter(Option::likely).map(Option::suspectId).toList();
    }

    /** What is said instead of offering a repair when what was found is not to be mended. */
    static Optional<String> told(VehicleDescription d, Ranking ranking) {
        return ranking.accused()
                .flatMap(a -> d.suspect(a.suspectId()))
                .filter(s -> s.repair().told())
                .map(s -> NextCard.told(s.name()));
    }

    /**
     * @param minute price of a minute of work
     */
    static List<Option> options(VehicleDescription d, Ranking ranking, double minute) {
        List<Option> options = new ArrayList<>();
        ranking.standings().stream()
                .limit(OPTIONS)
                .forEach(
                        s ->
                                d.suspect(s.suspectId())
                                        .filter(suspect -> !suspect.repair().told())
                                        .ifPresent(
                                                suspect ->
                                                        options.add(
                                                                new Option(
                                                                        suspect.id(),
                                                                        suspect.name(),
                                                                        s.sureness(),
                                                                        suspect.repair(),
                                                                        RepairWays.price(
                                                                                suspect,
                                                                                minute)))));
        return options;
    }
}
