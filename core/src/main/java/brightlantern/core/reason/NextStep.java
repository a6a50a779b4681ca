package brightlantern.core.reason;

import brightlantern.core.circuit.Gauge;
import brightlantern.core.signal.Words;
import brightlantern.core.suspect.Check;
import brightlantern.core.suspect.Effect;
import brightlantern.core.suspect.Evidence;
import brightlantern.core.suspect.Suspect;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What to do next in a job. There is always something, until the job is closed. */
public sealed interface NextStep {
    /** A minute of work costs about so much, in the currency of the repairs' prices. */
    double PRICE_OF_A_MINUTE = 1.5;

    /** A repair in vain costs its proof beside itself, another visit, and some of the trust. */
    double MINUTES_IN_VAIN = 60;

    /**
     * To be sure is worth so much more than the minutes that a repair in vain costs on the mean.
     */
    double PRUDENCE = 2;

    /** After a trial the complaint is tried again, and what was found is looked at once more. */
    double MINUTES_OF_A_TRIAL = 10;

    /** What costs more than the worth of so many minutes is not tried. */
    double MOST_OF_A_TRIAL = 60;

    /** A check that is expected to tell less than this, in bits, is not worth the way. */
    double LEAST_BITS = 0.02;

    /** Nothing more is done in it. */
    record Closed() implements NextStep {}

    /** Whoever has not swept knows neither codes nor who is silent. */
    record SweepFirst(String why) implements NextStep {}

    /**
     * The complaint is told in words alone, no code speaks, and they may mean what is described.
     *
     * @param meant the likeliest first, at least one
     */
    record CodeComplaint(List<Symptom> meant) implements NextStep {}

    /** Nothing described covers what is complained of, and nothing that was found says where. */
    record Uncovered(String why) implements NextStep {}

    /**
     * A check that tells something.
     *
     * @param beforeRepair why it comes before the repair of a cause that is named already; empty
     *     while none is
     * @param again whether it was done already and alone stands in the way of a cause
     */
    record DoCheck(NextCheck check, Optional<String> beforeRepair, boolean again)
            implements NextStep {
        DoCheck(NextCheck check, Optional<String> beforeRepair) {
            this(check, beforeRepair, false);
        }
    }

    /** The cause is sure enough for what its repair costs. */
    record Repair(Standing cause) implements NextStep {}

    /**
     * It is likelier than all others together: its repair is a trial.
     *
     * @param why no check comes before it
     */
    record Trial(Standing cause, String why) implements NextStep {}

    /** A repair was done and is not yet proven. */
    record GoOnProving() implements NextStep {}

    /** No described check tells any more. */
    record NothingLeft(String why) implements NextStep {}

    /**
     * Where a job stands.
     *
     * @param swept whether a whole sweep was kept in it
     * @param coded whether its complaint is coded
     * @param meant what its words may mean, while it is not coded and nobody was asked
     * @param repaired whether a repair waits for its proof
     * @param found what was found so far
     * @param next checks not yet done, the most telling first
     */
    record Situation(
            boolean open,
            boolean swept,
            boolean coded,
            List<Symptom> meant,
            boolean repaired,
            Ranking ranking,
            List<Evidence> found,
            List<NextCheck> next) {}

    /** The next step in a situation. */
    static NextStep of(Situation at, VehicleDescription description) {
        if (!at.open()) {
            return new Closed();
        }
        if (at.repaired()) {
            return new GoOnProving();
        }
        if (!at.swept()) {
            return new SweepFirst(
                    at.coded()
                            ? "Who answers and which codes are stored comes before all else."
                            : "The complaint is not coded, so nothing speaks for any cause yet. Who answers and which codes are stored comes first.");
        }
        boolean codesSpeak =
                at.found().stream().anyMatch(e -> e instanceof Evidence.CodeSeen c && c.present());
        if (!at.meant().isEmpty() && !codesSpeak && at.ranking().sureness() < Ranking.POINTED_AT) {
            return new CodeComplaint(at.meant());
        }
        if (!at.coded() && at.found().stream().allMatch(e -> saysNothing(e, description))) {
            return new Uncovered(
                    "No described complaint covers this one, and no module has anything to say: nothing tells where to look. Try it under the conditions of the complaint and record a take, or say in Intake which of the described complaints comes nearest.");
        }
        Optional<NextStep> again = again(at, description);
        if (again.isPresent()) {
            return again.get();
        }
        Optional<Standing> cause = at.ranking().accused();
        if (cause.isEmpty()) {
            Optional<NextCheck> first =
                    at.next().stream().filter(c -> c.bits() >= LEAST_BITS).findFirst();
            boolean tried = isTried(at.ranking().lead(), at.found());
            if (!tried
                    && first.filter(c -> isDearerThanTrial(c, at.ranking(), description))
                            .isPresent()) {
                return new Trial(at.ranking().lead(), cheaper(at.ranking(), first.get()));
            }
            return first.or(() -> unseen(at, description))
                    .<NextStep>map(c -> new DoCheck(c, Optional.empty()))
                    .orElseGet(() -> nothingLeft(at.ranking(), tried, description));
        }
        Optional<NextCheck> end =
                BothEnds.missing(description, cause.get().suspectId(), at.found(), at.next());
        if (end.isPresent()) {
            return new DoCheck(end.get(), Optional.of(notMeasured(cause.get(), end.get())));
        }
        double atStake =
                (1 - cause.get().sureness())
                        * description
                                .suspect(cause.get().suspectId())
                                .map(s -> TwoSteps.inVain(s.repair()))
                                .orElse(0.0);
        double open = at.ranking().openBits();
        return at.next().stream()
                .filter(c -> c.bits() >= LEAST_BITS)
                .filter(
                        c ->
                                c.check().minutes()
                                        < PRUDENCE * atStake * Math.min(1, c.bits() / open))
                .findFirst()
                .<NextStep>map(c -> new DoCheck(c, Optional.of(before(cause.get(), atStake, c))))
                .orElseGet(() -> new Repair(cause.get()));
    }

    /** A trial that did not help tells nothing the second time. */
    private static boolean isTried(Standing lead, List<Evidence> found) {
        return found.contains(new Evidence.RepairFailed(lead.suspectId()));
    }

    /**
     * What was complained of and nobody has looked at: however rare its causes are, it is not given
     * up unseen.
     */
    private static Optional<NextCheck> unseen(Situation at, VehicleDescription description) {
        Set<String> known = at.found().stream().map(Evidence::key).collect(Collectors.toSet());
        Set<String> told =
                at.found().stream()
                        .filter(Evidence.SymptomTold.class::isInstance)
                        .map(e -> ((Evidence.SymptomTold) e).symptomId())
                        .collect(Collectors.toSet());
        Set<String> findings =
                description.circuits().stream()
                        .flatMap(c -> c.gauges().stream())
                        .filter(g -> told.contains(DrawnCircuits.symptomId(g)))
                        .map(Gauge::findingId)
                        .collect(Collectors.toSet());
        return at.next().stream()
                .filter(n -> n.check() instanceof Check.Look l && findings.contains(l.finding()))
                .filter(n -> !known.contains(n.check().key()))
                .findFirst();
    }

    /** Whether a piece tells of no fault: how far it was driven, or that something is well. */
    private static boolean saysNothing(Evidence piece, VehicleDescription description) {
        if (piece instanceof Evidence.Outcome outcome) {
            return description
                    .finding(outcome.findingId())
                    .map(
                            f ->
                                    f.known(outcome.outcomeId())
                                            .map(o -> o.healthy() >= Ranking.POINTED_AT)
                                            .orElse(true))
                    .orElse(false);
        }
        return piece instanceof Evidence.Driven
                || piece instanceof Evidence.WorkedOn
                || piece instanceof Evidence.CodeSeen code && !code.present()
                || piece.passed().orElse(false);
    }

    /** What alone keeps a cause from being named is looked at once more: people err, too. */
    private static Optional<NextStep> again(Situation at, VehicleDescription description) {
        Ranking ranking = at.ranking();
        return ranking.against()
                .filter(
                        look ->
                                ranking.lead().isDescribed()
                                        && ranking.sureness() >= Ranking.ACCUSED
                                        && at.found().stream()
                                                        .filter(f -> f.key().equals(look.key()))
                                                        .count()
                                                == 1)
                .flatMap(found -> checkOf(found, description))
                .map(
                        check ->
                                new DoCheck(
                                        new NextCheck(check, 0, 0, 0, List::of),
                                        Optional.of(again(ranking, check)),
                                        true));
    }

    /** The described check that a piece was found by. */
    private static Optional<Check> checkOf(Evidence found, VehicleDescription description) {
        return description.checks().stream().filter(c -> c.key().equals(found.key())).findFirst();
    }

    private static String leads(Ranking ranking) {
        return ranking.lead().name() + " leads with " + Words.percent(ranking.sureness());
    }

    private static String cheaper(Ranking ranking, NextCheck first) {
        return String.format(
                Locale.ROOT,
                "%s, and to name it by checks would cost the worth of some %.0f minutes, more than to mend it at once and see. Its repair is a trial: prove it, and go on here when it did not help. Who would rather be sure begins with: %s.",
                leads(ranking),
                first.cost(),
                first.check().name());
    }

    private static String again(Ranking ranking, Check check) {
        return leads(ranking)
                + (check instanceof Check.Reading
                        ? ", and only what was read here speaks against it. Read once more: if it reads as before, it is something else."
                        : ", and only what was seen here speaks against it. Look once more: if it looks as before, it is something else.");
    }

    /**
     * Whether naming the lead by checks costs more than to mend it at once and see: a cheap part
     * that is likely tells by itself whether it was. What comes and goes does not.
     */
    private static boolean isDearerThanTrial(
            NextCheck first, Ranking ranking, VehicleDescription description) {
        double sure = ranking.sureness();
        Optional<Suspect> lead = description.suspect(ranking.lead().suspectId());
        if (lead.isEmpty()
                || sure < Ranking.POINTED_AT
                || ranking.alike().size() > 1
                || ranking.against().isPresent()
                || lead.get().effect().orElse(null) instanceof Effect.Loose) {
            return false;
        }
        double wasted = TwoSteps.inMinutes(lead.get().repair()) + MINUTES_OF_A_TRIAL;
        return wasted <= MOST_OF_A_TRIAL && PRUDENCE * (1 - sure) * wasted < sure * first.cost();
    }

    private static NextStep nothingLeft(
            Ranking ranking, boolean tried, VehicleDescription description) {
        if (tried) {
            return new NothingLeft(
                    leads(ranking)
                            + ", but its repair did not help, and no described check is left that would tell. Either that repair was not done as it should be, or it is something that is not on the list: look at the mended part once more, repeat the check that you trust least, and enter what you find in Trace.");
        }
        if (ranking.lead().isDescribed() && ranking.against().isPresent()) {
            return new NothingLeft(
                    leads(ranking)
                            + ", and what was found elsewhere does not let it be ("
                            + ranking.against()
                                    .flatMap(f -> checkOf(f, description))
                                    .map(Check::name)
                                    .orElseGet(() -> ranking.against().get().key())
                            + "). It is likely something that is not on the list, beside it. Look there, and enter what you find in Trace.");
        }
        return ranking.lead().isDescribed() && ranking.sureness() >= Ranking.POINTED_AT
                ? new Trial(
                        ranking.lead(),
                        leads(ranking)
                                + ", and no check is left that would tell more. Its repair is a trial: prove it, and go on here when it did not help.")
                : new NothingLeft(left(ranking));
    }

    private static String notMeasured(Standing cause, NextCheck wanted) {
        return cause.name()
                + " is named with "
                + Words.percent(cause.sureness())
                + (wanted.check() instanceof Check.Look
                        ? ", and nobody looked at it yet."
                        : BothEnds.isUnplugged(wanted)
                                ? ", and nobody measured with what hangs on it unplugged. What pulls it down from outside would show there."
                                : ", and one end of it was not measured yet. What nobody listed would show there.");
    }

    private static String before(Standing cause, double atStake, NextCheck check) {
        return String.format(
                Locale.ROOT,
                "%s is named with %s. If that is wrong, its repair costs the worth of %.0f minutes on the mean; this check takes %.0f.",
                cause.name(),
                Words.percent(cause.sureness()),
                atStake,
                check.check().minutes());
    }

    private static String left(Ranking ranking) {
        return switch (ranking.lead().suspectId()) {
            case Hypothesis.SOMETHING_ELSE ->
                    "No described cause explains what was found, and no described check is left that would tell. Look at the plans in Exercise and at the codes again, try it under the conditions of the complaint, and enter what you find in Trace.";
            case Hypothesis.NOTHING ->
                    "What was checked is as it should be, and no described check is left that would tell. Try it under the conditions of the complaint: record a take, or sweep again when it shows.";
            default ->
                    ranking.lead().name()
                            + " leads with "
                            + Words.percent(ranking.lead().sureness())
                            + ", which is too little to repair it, and no described check is left that would tell. Repeat the check that you trust least, or enter what you find in Trace.";
        };
    }
}
