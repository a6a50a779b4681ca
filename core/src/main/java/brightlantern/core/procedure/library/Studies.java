package brightlantern.core.procedure.library;

import brightlantern.core.battery.PackStudy;
import brightlantern.core.cylinder.CutOut;
import brightlantern.core.procedure.Study;
import brightlantern.core.procedure.actuator.ActuatorProcedures;
import brightlantern.core.take.Take;
import brightlantern.core.tank.TankTest;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The core's studies by the names under which procedures ask for them. */
public final class Studies {
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

    private static final List<String> TANK_OUTCOMES =
            Arrays.stream(TankTest.Outcome.values()).map(TankTest.Outcome::id).toList();

    private static final Study CUT_OUT =
            new Study() {
                @Override
                public List<String> outcomes(int cylinders) {
                    return CutOut.outcomes(cylinders);
                }

                @Override
                public Study.Verdict judge(Study.Material m) {
                    CutOut.Verdict v =
                            m.description()
                                    .cylinders()
                                    .map(
                                            c ->
                                                    CutOut.judge(
                                                            m.take(),
                                                            c.speed(),
                                                            c.roughness(),
                                                            m.stays()))
                                    .orElseGet(
                                            () ->
                                                    CutOut.cannot(
                                                            "The cylinders are not described."));
                    return new Study.Verdict(
                            v.outcome(), v.passes(), v.sentence(), v.reasons(), Optional.empty());
                }
            };

    private static Study.Verdict tank(Study.Material m) {
        TankTest.Verdict v =
                TankTest.judge(
                        m.take(),
                        new TankTest.Spec(
                                m.figure("referenceMm", 0.5),
                                m.figure("referenceKpa", 2.2),
                                m.figure("pumpMostKpa", 5)));
        return new Study.Verdict(
                v.outcome().id(),
                switch (v.outcome()) {
                    case TIGHT -> Optional.of(true);
                    case CANNOT_TELL -> Optional.empty();
                    default -> Optional.of(false);
                },
                v.sentence(),
                v.reasons(),
                Optional.empty());
    }

    private static final Map<String, Study> ALL = new LinkedHashMap<>();

    static {
        ALL.put("cut-out", CUT_OUT);
        ALL.put("tank", Study.of(TANK_OUTCOMES, Studies::tank));
        ALL.putAll(ActuatorProcedures.STUDIES);
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

    /** Whether there is a study of that name. */
    public static boolean knows(String study) {
        return ALL.containsKey(study);
    }

    /** Most cylinders that any engine here has; a study may name each. */
    private static final int MOST_CYLINDERS = 16;

    /** What a study may come to. */
    public static List<String> outcomes(String study) {
        return knows(study) ? ALL.get(study).outcomes(MOST_CYLINDERS) : List.of();
    }

    /**
     * @throws NullPointerException when there is no such study; see {@link #knows}
     */
    public static Study.Verdict judge(String study, Study.Material material) {
        return ALL.get(study).judge(material);
    }
}
