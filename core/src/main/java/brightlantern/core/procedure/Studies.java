package brightlantern.core.procedure;

import brightlantern.core.actuator.ActuatorRun;
import brightlantern.core.actuator.ByHand;
import brightlantern.core.actuator.Responses;
import brightlantern.core.battery.PackStudy;
import brightlantern.core.cylinder.CutOut;
import brightlantern.core.take.Take;
import brightlantern.core.tank.TankTest;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The core's studies by the names under which procedures ask for them. */
public final class Studies {
    /** Names of studies that procedures made by the program ask for. */
    public static final String STROKES = "strokes";

    public static final String UP_AND_DOWN = "up-and-down";

    public static final String RESPONSES = "responses";

    public static final String BY_HAND = "by-hand";

    public static final String PACK = "pack";

    /** Ids of cells begin so; a number follows. */
    public static final String CELLS = "cell.";

    private static final List<String> PACK_OUTCOMES =
            List.of(
                    PackStudy.TOGETHER,
                    PackStudy.WITH_CURRENT,
                    PackStudy.AT_REST,
                    PackStudy.TOO_LITTLE);

    /** Cells of a balanced pack lie so close together at rest, V. */
    private static final double USUALLY_APART = 0.025;

    /** Resistances of cells of one make differ by less than this, mΩ. */
    private static final double USUALLY_STEEP = 0.5;

    private static final Map<String, Study> ALL = new LinkedHashMap<>();

    static {
        ALL.put("cut-out", CutOut.STUDY);
        ALL.put("tank", TankTest.STUDY);
        ALL.put(STROKES, ActuatorRun.STROKES);
        ALL.put(UP_AND_DOWN, ActuatorRun.STEPS);
        ALL.put(RESPONSES, Responses.STUDY);
        ALL.put(BY_HAND, ByHand.STUDY);
        ALL.put(PACK, Study.of(PACK_OUTCOMES, Studies::pack));
    }

    /**
     * The cells of a pack, each against its fellows.
     *
     * @param current id of the pack's current
     * @param with apart (V) and steep (mΩ), from which on a cell stands out
     */
    public static PackStudy.Verdict cells(Take take, String current, Map<String, Double> with) {
        return PackStudy.judge(
                take,
                CELLS,
                current,
                with.getOrDefault("apart", USUALLY_APART),
                with.getOrDefault("steep", USUALLY_STEEP));
    }

    /** The cells of a pack; {@code about} is the value of its current. */
    private static Study.Verdict pack(Study.Material m) {
        PackStudy.Verdict v = cells(m.take(), m.about(), m.with());
        return new Study.Verdict(
                v.outcome(),
                v.outcome().equals(PackStudy.TOO_LITTLE)
                        ? Optional.empty()
                        : Optional.of(v.outcome().equals(PackStudy.TOGETHER)),
                v.sentence(),
                v.reasons(),
                Optional.empty());
    }

    private Studies() {}

    public static boolean knows(String study) {
        return ALL.containsKey(study);
    }

    /** Most cylinders that any engine here has; a study may name each. */
    private static final int MOST_CYLINDERS = 16;

    /** What a study may come to. */
    public static List<String> outcomes(String study) {
        return knows(study) ? ALL.get(study).outcomes(MOST_CYLINDERS) : List.of();
    }

    public static Study.Verdict judge(String study, Study.Material material) {
        return ALL.get(study).judge(material);
    }
}
