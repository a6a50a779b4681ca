package brightlantern.core.proof;

import brightlantern.core.signal.Condition;
import brightlantern.core.signal.Value;
import brightlantern.core.suspect.Symptom;
import brightlantern.core.take.Take;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * Under which conditions a fault showed, so that a recording can be held against them: those of the
 * freeze frame, or those of the coded complaint.
 *
 * @param from where they come from, in words
 * @param conditions limits of values, in the values' own units
 * @param seconds for how long together they must hold
 */
public record DriveConditions(String from, List<Condition> conditions, double seconds) {
    /**
     * A freeze frame is of one moment: its conditions need not hold for longer than a test takes.
     */
    public static final double FRAME_SECONDS = 5;

    /** A complaint shows within so long, if it shows at all. */
    public static final double COMPLAINT_SECONDS = 20;

    /** Coolant from here on is warm: a frame at 95 °C is met at 75 °C as well. */
    private static final double WARM_CELSIUS = 60;

    /**
     * What of a freeze frame is a condition and not a consequence of the fault, and how near to it
     * is near enough: a share, and what at least, in the value's own unit.
     */
    private static final Map<String, double[]> NEAR = near();

    private static Map<String, double[]> near() {
        Map<String, double[]> near = new LinkedHashMap<>();
        near.put("engine.speed", new double[] {0.25, 200});
        near.put("engine.load", new double[] {0.25, 12});
        near.put("vehicle.speed", new double[] {0.25, 10});
        near.put("coolant", new double[] {0, 20});
        return near;
    }

    public DriveConditions {
        conditions = List.copyOf(conditions);
    }

    /**
     * How far a recording met them.
     *
     * @param seconds for how long together, 0 or more
     * @param missing names of the values that were not recorded
     */
    public record Met(double seconds, List<String> missing) {}

    /**
     * How one of them stands at the newest moment of a recording.
     *
     * @param says the condition in words
     * @param now the value with its unit, or that it is not told
     */
    public record Standing(String says, String now, boolean holds) {}

    /** How each stands at the newest moment of a recording that still runs. */
    public List<Standing> standing(Take take, VehicleDescription description) {
        return conditions.stream()
                .map(
                        c -> {
                            double is = take.at(c.value(), Double.POSITIVE_INFINITY);
                            String unit = description.value(c.value()).map(Value::unit).orElse("");
                            return new Standing(
                                    c.says(),
                                    Double.isFinite(is)
                                            ? "now "
                                                    + String.format(Locale.ROOT, "%.0f", is)
                                                    + " "
                                                    + unit
                                            : "not told",
                                    holds(c, is));
                        })
                .toList();
    }

    /** Conditions that nothing tells of. */
    public static DriveConditions none() {
        return new DriveConditions("", List.of(), 0);
    }

    /** Whether nothing tells of them. */
    public boolean isEmpty() {
        return conditions.isEmpty();
    }

    /** From a freeze frame: value id → value in its own unit. */
    public static DriveConditions ofFrame(
            Map<String, Double> frame, VehicleDescription description) {
        List<Condition> conditions = new ArrayList<>();
        NEAR.forEach(
                (id, near) -> {
                    Double was = frame.get(id);
                    Optional<Value> value = description.value(id);
                    if (was == null || !Double.isFinite(was) || value.isEmpty()) {
                        return;
                    }
                    double within = Math.max(near[0] * Math.abs(was), near[1]);
                    boolean warm = id.equals("coolant") && was >= WARM_CELSIUS;
                    double low = warm ? WARM_CELSIUS : was - within;
                    double most = value.get().unit().equals("%") ? 100 : Double.MAX_VALUE;
                    Optional<Double> high =
                            warm ? Optional.empty() : Optional.of(Math.min(most, was + within));
                    conditions.add(
                            new Condition(
                                    id, Optional.of(low), high, says(value.get(), low, high), ""));
                });
        return conditions.isEmpty()
                ? none()
                : new DriveConditions("the freeze frame", conditions, FRAME_SECONDS);
    }

    private static String says(Value value, double low, Optional<Double> high) {
        String name = value.name().toLowerCase(Locale.ROOT);
        double least = value.signed() ? low : Math.max(0, low);
        return high.map(
                        h ->
                                String.format(
                                        Locale.ROOT,
                                        "%s %.0f to %.0f %s",
                                        name,
                                        least,
                                        h,
                                        value.unit()))
                .orElseGet(
                        () ->
                                String.format(
                                        Locale.ROOT,
                                        "%s %.0f %s or more",
                                        name,
                                        least,
                                        value.unit()));
    }

    /** From the first of the coded symptoms whose description says under what it shows. */
    public static DriveConditions ofComplaint(
            Iterable<String> symptoms, VehicleDescription description) {
        for (String id : symptoms) {
            for (Symptom s : description.symptoms()) {
                if (s.id().equals(id) && !s.under().isEmpty()) {
                    return new DriveConditions(
                            "the complaint (" + s.name() + " " + s.when() + ")",
                            s.under(),
                            COMPLAINT_SECONDS);
                }
            }
        }
        return none();
    }

    /** The conditions in words, joined by commas. */
    public String words() {
        return String.join(", ", conditions.stream().map(Condition::says).toList());
    }

    /**
     * For how long together a take met all of them; a value that was not recorded meets nothing.
     */
    public Met met(Take take, VehicleDescription description) {
        List<String> missing =
                conditions.stream()
                        .map(Condition::value)
                        .filter(v -> !take.columns().containsKey(v))
                        .map(v -> description.value(v).map(Value::name).orElse(v))
                        .distinct()
                        .toList();
        if (conditions.isEmpty() || !missing.isEmpty()) {
            return new Met(0, missing);
        }
        Take.Column clock = take.columns().get(conditions.get(0).value());
        double seconds = 0;
        for (int i = 1; i < clock.size(); i++) {
            double t = clock.seconds(i);
            if (conditions.stream().allMatch(c -> holds(c, take.at(c.value(), t)))) {
                // a gap in the recording shows nothing
                seconds += Math.min(1, t - clock.seconds(i - 1));
            }
        }
        return new Met(seconds, List.of());
    }

    private static boolean holds(Condition c, double is) {
        return Double.isFinite(is)
                && c.min().map(m -> is >= m).orElse(true)
                && c.max().map(m -> is <= m).orElse(true);
    }
}
