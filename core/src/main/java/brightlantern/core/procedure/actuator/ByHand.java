package brightlantern.core.procedure.actuator;

import brightlantern.core.actuator.Actuator;
import brightlantern.core.actuator.Response;
import brightlantern.core.procedure.Act.Leg;
import brightlantern.core.procedure.Study;
import brightlantern.core.signal.Scaling;
import brightlantern.core.signal.Value;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a technician makes an actuator do: positions one after another, each held for a time.
 * Written as {@code 20 % for 2 s, 90 % for 1.5 s}; on and off are 100 % and 0 %.
 */
public final class ByHand {
    /** Longer than this nobody stands and looks. */
    public static final double MOST_SECONDS = 120;

    public static final int MOST_LEGS = 60;

    /** Shorter ones end before the module has answered. */
    public static final double LEAST_SECONDS = 0.2;

    private static final Pattern LEG =
            Pattern.compile(
                    "(?:(\\d+(?:[.,]\\d+)?)\\s*%|(on|off))\\s*(?:for)?\\s*(\\d+(?:[.,]\\d+)?)\\s*s",
                    Pattern.CASE_INSENSITIVE);
    private static final Pattern ID = Pattern.compile("hand-([^~]+)~(.+)");

    /** At rest it is judged over the last part of each leg. */
    private static final double REST_SHARE = 0.3;

    /** A leg shorter than this is no place to come to rest, s. */
    private static final double JUDGED_SECONDS = 0.8;

    private static final int MOST_TOLD = 10;

    /** Tells what each leg brought. */
    public static final Study STUDY =
            Study.of(List.of("right", "wrong", "not-judged"), ByHand::judge);

    private ByHand() {}

    /**
     * The same parts for so many times.
     *
     * @throws IllegalArgumentException when that is too much, or nothing
     */
    public static List<Leg> pulses(List<Leg> one, int times) {
        List<Leg> legs = new ArrayList<>();
        for (int i = 0; i < times && legs.size() <= MOST_LEGS; i++) {
            legs.addAll(one);
        }
        return checked(legs);
    }

    /**
     * Legs as a person writes them, with commas, semicolons or new lines between.
     *
     * @throws IllegalArgumentException names the leg, and what was expected
     */
    public static List<Leg> legs(String typed) {
        List<Leg> legs = new ArrayList<>();
        // a comma between digits is a decimal comma
        for (String part : typed.split("[;\\n]|(?<!\\d),|,(?!\\d)")) {
            if (part.isBlank()) {
                continue;
            }
            Matcher leg = LEG.matcher(part.trim());
            if (!leg.matches()) {
                throw new IllegalArgumentException(
                        "expected parts like '40 % for 2 s' or 'on for 1 s' with commas between, found '"
                                + part.trim()
                                + "'");
            }
            double to =
                    leg.group(1) != null
                            ? number(leg.group(1))
                            : leg.group(2).equalsIgnoreCase("on") ? 100 : 0;
            legs.add(new Leg(to, number(leg.group(3))));
        }
        return checked(legs);
    }

    private static double number(String digits) {
        return Double.parseDouble(digits.replace(',', '.'));
    }

    private static List<Leg> checked(List<Leg> legs) {
        if (legs.isEmpty() || legs.size() > MOST_LEGS) {
            throw new IllegalArgumentException(
                    "expected 1 to " + MOST_LEGS + " parts, found " + legs.size());
        }
        for (Leg leg : legs) {
            if (!(leg.to() >= 0 && leg.to() <= 100)) {
                throw new IllegalArgumentException(
                        "expected 0 to 100 %, found " + plain(leg.to()) + " %");
            }
            if (!(leg.seconds() >= LEAST_SECONDS)) {
                throw new IllegalArgumentException(
                        "expected at least "
                                + plain(LEAST_SECONDS)
                                + " s, found "
                                + plain(leg.seconds())
                                + " s");
            }
        }
        double whole = legs.stream().mapToDouble(Leg::seconds).sum();
        if (whole > MOST_SECONDS) {
            throw new IllegalArgumentException(
                    "expected at most "
                            + plain(MOST_SECONDS)
                            + " s altogether, found "
                            + plain(whole)
                            + " s");
        }
        return List.copyOf(legs);
    }

    private static String plain(double number) {
        return number == Math.rint(number)
                ? String.valueOf((long) number)
                : String.format(Locale.ROOT, "%.4g", number).replaceAll("0+$", "");
    }

    /** Legs in words. */
    static String told(List<Leg> legs) {
        return legs.stream()
                .map(l -> plain(l.to()) + " % for " + plain(l.seconds()) + " s")
                .collect(Collectors.joining(", "));
    }

    /** Id of the procedure that leads an actuator so; the legs can be read out of it again. */
    public static String id(String actuator, List<Leg> legs) {
        return "hand-"
                + actuator
                + "~"
                + legs.stream()
                        .map(l -> plain(l.to()) + "x" + plain(l.seconds()))
                        .collect(Collectors.joining("_"));
    }

    /**
     * What an id says.
     *
     * @param actuator its id
     */
    record Asked(String actuator, List<Leg> legs) {}

    /** Empty when the id is none of these. */
    static Optional<Asked> asked(String id) {
        Matcher whole = ID.matcher(id);
        if (!whole.matches()) {
            return Optional.empty();
        }
        try {
            return Optional.of(
                    new Asked(
                            whole.group(1),
                            checked(
                                    Stream.of(whole.group(2).split("_"))
                                            .map(l -> l.split("x"))
                                            .map(l -> new Leg(number(l[0]), number(l[1])))
                                            .toList())));
        } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException nonsense) {
            return Optional.empty();
        }
    }

    private static Study.Verdict judge(Study.Material m) {
        VehicleDescription d = m.description();
        Actuator a = d.actuator(m.about()).orElseThrow();
        Take take = m.take();
        List<String> reasons = new ArrayList<>();
        boolean any = false;
        boolean right = true;
        if (a.hasFeedback()) {
            List<ActuatorRun.Sample> samples = ActuatorRun.samples(take, a);
            for (int[] leg : held(samples)) {
                List<ActuatorRun.Sample> its = samples.subList(leg[0], leg[1]);
                double lasted = its.get(its.size() - 1).seconds() - its.get(0).seconds();
                if (lasted < JUDGED_SECONDS) {
                    continue;
                }
                double command = its.get(0).command();
                double rest =
                        its.stream()
                                .skip((long) Math.floor((1 - REST_SHARE) * its.size()))
                                .mapToDouble(ActuatorRun.Sample::feedback)
                                .average()
                                .orElse(Double.NaN);
                boolean there = Math.abs(rest - command) <= a.endError();
                any = true;
                right &= there;
                if (!there || reasons.size() < MOST_TOLD) {
                    reasons.add(
                            String.format(
                                    Locale.ROOT,
                                    "Told %.0f %%, it came to %.1f %%%s.",
                                    command,
                                    rest,
                                    there
                                            ? ""
                                            : String.format(
                                                    Locale.ROOT,
                                                    ", more than %.0f %% off",
                                                    a.endError())));
                }
            }
        }
        Stream.concat(a.current().stream(), a.responds().stream().map(Response::value))
                .distinct()
                .forEach(v -> spread(d, take, v, reasons));
        return new Study.Verdict(
                !any ? "not-judged" : right ? "right" : "wrong",
                any ? Optional.of(right) : Optional.empty(),
                !any
                        ? a.name() + " did what is shown below."
                        : right
                                ? a.name() + " goes where it is told."
                                : a.name() + " does not come to where it is told.",
                reasons,
                Optional.empty());
    }

    /** First index and the one after the last of each stretch with one command. */
    private static List<int[]> held(List<ActuatorRun.Sample> samples) {
        List<int[]> held = new ArrayList<>();
        int from = 0;
        for (int i = 1; i <= samples.size(); i++) {
            if (i == samples.size()
                    || Math.abs(samples.get(i).command() - samples.get(from).command())
                            > UpAndDown.SAME_PERCENT) {
                held.add(new int[] {from, i});
                from = i;
            }
        }
        return held;
    }

    private static void spread(
            VehicleDescription d, Take take, String value, List<String> reasons) {
        Take.Column c = take.columns().get(value);
        Value v = d.value(value).orElse(null);
        if (c == null || v == null || c.size() == 0) {
            return;
        }
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < c.size(); i++) {
            if (Double.isFinite(c.value(i))) {
                least = Math.min(least, c.value(i));
                most = Math.max(most, c.value(i));
            }
        }
        if (least <= most) {
            reasons.add(
                    "%s: %s to %s %s"
                                    .formatted(
                                            v.name(),
                                            Scaling.show(v, least),
                                            Scaling.show(v, most),
                                            v.show())
                                    .trim()
                            + ".");
        }
    }
}
