package brightlantern.standin;

import brightlantern.core.capture.CapturePlan;
import brightlantern.core.capture.CrankingStudy;
import brightlantern.core.capture.DepartureStudy;
import brightlantern.core.capture.SparkStudy;
import brightlantern.core.capture.StartingStudy;
import brightlantern.core.capture.ToothStudy;
import brightlantern.core.cylinder.CylinderStudy;
import brightlantern.core.learned.LearnedStudy;
import brightlantern.core.learned.LearnedValue;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.study.target.Follow;
import brightlantern.core.study.target.TargetStudy;
import brightlantern.core.study.trim.TrimSet;
import brightlantern.core.study.trim.TrimStudy;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import brightlantern.standin.plant.Driver;
import brightlantern.standin.plant.Driver.Program;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a technician does at a stand-in that needs no meter: drives that are studied, and looking.
 */
final class MechanicalChecks {
    private final StandInVehicle v;
    private final VehicleDescription d;

    MechanicalChecks(StandInVehicle vehicle) {
        this.v = vehicle;
        this.d = vehicle.description();
    }

    /** What is found; empty for what cannot be done here. */
    Optional<Evidence> done(String finding) {
        Optional<LearnedValue> learned =
                d.learned().stream().filter(l -> l.finding().equals(finding)).findFirst();
        if (learned.isPresent()) {
            return Optional.of(new Evidence.Outcome(finding, learned(learned.get())));
        }
        if (finding.startsWith(CapturePlan.PRESSURE)) {
            int cylinder = Integer.parseInt(finding.substring(CapturePlan.PRESSURE.length()));
            return ScopedCapture.pressed(v, cylinder)
                    .map(j -> new Evidence.Outcome(finding, j.outcome()));
        }
        Optional<String> outcome =
                switch (finding) {
                    case "cylinders" -> cylinders();
                    case "trims" -> trims();
                    case "rail", "climb" -> followed(finding);
                    case "cranking" ->
                            ScopedCapture.cranked(v).map(CrankingStudy.Judgement::outcome);
                    case "left-first" ->
                            ScopedCapture.leaving(v).map(DepartureStudy.Judgement::outcome);
                    case "teeth" -> ScopedCapture.toothed(v).map(ToothStudy.Judgement::outcome);
                    case "sparks" -> ScopedCapture.sparked(v).map(SparkStudy.Judgement::outcome);
                    case "plugs" -> Optional.of(plugs());
                    case "starting" ->
                            ScopedCapture.started(v).map(StartingStudy.Judgement::outcome);
                    case "ripple" -> Optional.of(ScopedCapture.rippled(v).outcome());
                    case "weak-why" -> Optional.of(weakWhy());
                    case "intake-smoke" ->
                            Optional.of(said("smoke-intake", "hose", "leaves", "none"));
                    case "smoke" -> Optional.of(said("smoke", "hose", "leak", "none"));
                    case "purge-pinch" -> Optional.of(pinched());
                    case "charging" -> Optional.of(charging());
                    case "start-volts" -> Optional.of(startVolts());
                    case "rest-draw" ->
                            v.simulation().acts().containsKey("clamp-battery")
                                    ? Optional.of(said("clamp-battery", "0.03", "little", "much"))
                                    : Optional.empty();
                    case "cell-sag" -> Optional.of(cells());
                    default -> measured(finding);
                };
        return outcome.map(o -> new Evidence.Outcome(finding, o));
    }

    private String plugs() {
        String seen = v.simulation().act("look-plugs");
        Matcher which = Pattern.compile("cylinder (\\d+)").matcher(seen);
        return which.find()
                ? (seen.contains("burnt") ? "gap-" : "fouled-") + which.group(1)
                : "sound";
    }

    private String learned(LearnedValue learned) {
        Value value = d.value(learned.value()).orElseThrow();
        double told = Scaling.shown(value, v.reading(learned.value()));
        return LearnedStudy.of(
                        learned, value, List.of(new LearnedStudy.Reading(Instant.EPOCH, told)))
                .outcome();
    }

    private Optional<String> measured(String finding) {
        return v.simulation().measures().stream()
                .filter(m -> m.finding().equals(finding))
                .findFirst()
                .map(m -> m.fails().holds(v.simulation().measured(m)) ? "bad" : "good");
    }

    private Take drive(Program... way) {
        Take take = DrivenTake.of(v, way);
        v.simulation().driver(Driver.away());
        v.live(20);
        v.simulation().driver(Driver.away().key(2));
        v.live(3);
        return take;
    }

    private Optional<String> cylinders() {
        return d.cylinders()
                .flatMap(c -> CylinderStudy.study(drive(Program.STAND), c))
                .map(CylinderStudy.Verdict::outcome);
    }

    private Optional<String> trims() {
        TrimSet set = d.trims().get(0);
        return TrimStudy.study(drive(Program.STAND, Program.CRUISE, Program.CLIMB), set)
                .map(TrimStudy.Verdict::outcome);
    }

    /** Whether what a module wants is reached under load. */
    private Optional<String> followed(String finding) {
        Follow follow =
                d.follows().stream()
                        .filter(f -> f.finding().equals(finding))
                        .findFirst()
                        .orElseThrow();
        return TargetStudy.study(
                        drive(Program.STAND, Program.CLIMB, Program.CLIMB),
                        follow,
                        d.finding(finding).orElseThrow(),
                        d.signals(),
                        Map.of())
                .map(TargetStudy.Verdict::outcome);
    }

    private String said(String act, String sign, String with, String without) {
        return v.simulation().act(act).contains(sign) ? with : without;
    }

    /** As the plan asks: starting current, then intake, then exhaust. */
    private String weakWhy() {
        if (said("clamp-starter", "lower", "lower", "").isEmpty()) {
            // the plan begins with the question which cylinder stands out
            return cylinders().filter("even"::equals).isPresent() ? "none" : "fuel";
        }
        return said("feel-intake", "weaker", "y", "").isEmpty()
                ? said("feel-exhaust", "blurred", "exhaust-valve", "rings")
                : "intake-valve";
    }

    /** Whether the short-term trim falls when the purge hose is pinched at idle. */
    private String pinched() {
        drive(Program.STAND);
        v.simulation().crank();
        v.live(30);
        double before = v.reading("trim.sum");
        v.simulation().act("pinch-purge");
        v.live(15);
        double after = v.reading("trim.sum");
        v.simulation().act("release-purge");
        v.simulation().driver(Driver.away().key(2));
        return before - after > 3 ? "goes-right" : "no-change";
    }

    private void stopped() {
        v.simulation().driver(Driver.away());
        v.live(5);
        v.simulation().driver(Driver.away().key(2));
        v.live(2);
    }

    private String charging() {
        stopped();
        double rest = v.reading("engine.supply");
        v.simulation().crank();
        v.live(6);
        double charge = v.reading("engine.supply");
        boolean runs = v.simulation().running();
        v.simulation().driver(Driver.away().key(2));
        v.live(5);
        return !runs || rest < 12
                ? "low-rest"
                : charge < 13.2 ? "dead" : charge > 15.2 ? "over" : "charges";
    }

    private String startVolts() {
        stopped();
        double least = v.reading("engine.supply");
        v.simulation().crank();
        for (int i = 0; i < 30; i++) {
            v.live(0.05);
            least = Math.min(least, v.reading("engine.supply"));
        }
        v.simulation().driver(Driver.away().key(2));
        v.live(5);
        return least < 9.6 ? "low" : "fine";
    }

    private String cells() {
        double rest = v.reading("cell.most") - v.reading("cell.least");
        v.simulation().crank();
        v.live(5);
        v.simulation().driver(v.simulation().driver().drive(Program.CRUISE));
        double most = 0;
        for (int i = 0; i < 200; i++) {
            v.live(0.1);
            most = Math.max(most, v.reading("cell.most") - v.reading("cell.least"));
        }
        v.simulation().driver(Driver.away().key(2));
        v.live(20);
        return rest > 0.04 ? "at-rest" : most > 0.05 ? "with-current" : "together";
    }
}
