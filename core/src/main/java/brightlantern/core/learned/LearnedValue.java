package brightlantern.core.learned;

import brightlantern.core.description.OrEmpty;
import brightlantern.core.signal.Units;

/**
 * A live value that a module learns and keeps, such as an offset, a trim or an end stop. Figures
 * are in the unit in which the value is shown.
 *
 * @param usual what it is in a vehicle as it was built
 * @param least and most: between these it can make up for what wears
 * @param near share of the way from usual to a limit from which it is called near it, 0..1
 * @param finding that it is weighed as, with the outcomes that follow; empty where something else
 *     weighs it already
 * @param low outcome near its lower limit
 * @param middle outcome between
 * @param high outcome near its upper limit
 * @param why what it makes up for
 */
public record LearnedValue(
        String value,
        double usual,
        double least,
        double most,
        double near,
        String finding,
        String low,
        String middle,
        String high,
        String why) {
    private static final double NEAR = 0.6;

    public LearnedValue {
        near = near == 0 ? NEAR : near;
        finding = OrEmpty.text(finding);
        low = OrEmpty.text(low);
        middle = OrEmpty.text(middle);
        high = OrEmpty.text(high);
    }

    /** Where a figure lies: -1 at the lower limit, 0 as usual, 1 at the upper limit, and beyond. */
    double share(double figure) {
        return figure >= usual
                ? (figure - usual) / (most - usual)
                : (figure - usual) / (usual - least);
    }

    /** The same in another unit; as it is when there is none to turn it into. */
    LearnedValue in(String from, String to) {
        return to == null
                ? this
                : new LearnedValue(
                        value,
                        Units.convert(usual, from, to),
                        Units.convert(least, from, to),
                        Units.convert(most, from, to),
                        near,
                        finding,
                        low,
                        middle,
                        high,
                        why);
    }
}
