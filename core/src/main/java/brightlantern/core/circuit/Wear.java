package brightlantern.core.circuit;

/**
 * How a part ages, and what its repair takes.
 *
 * @param broken what it is when it is not well, in words after its name
 * @param repair what is done then, in words before its name
 * @param common how often one is the culprit, relative to other parts of a circuit
 * @param minutes what the repair usually takes
 * @param ages years by which it has typically aged, driven or not; 0 for what does not
 * @param price what it usually costs in parts, in the workshop's currency
 */
public record Wear(
        String broken, String repair, double common, double ages, double minutes, double price) {
    /** Of what does not age. */
    Wear(String broken, String repair, double common, double minutes, double price) {
        this(broken, repair, common, 0, minutes, price);
    }

    /** A sensor with electronics of its own. */
    static final Wear SENSOR = new Wear("broken inside", "Replace", 6, 30, 60);

    /** A wire that rubs on an edge of the body. */
    public static final Wear CHAFED =
            new Wear("chafed to earth", "Tape and lead another way", 0.6, 45, 8);

    /** A wire that rubs on another in the loom. */
    public static final Wear CHAFED_LIVE =
            new Wear("chafed to a live wire", "Tape apart, and lead another way", 0.3, 45, 8);

    /** A wire that rubbed through behind its fuse, and blows it. */
    public static final Wear SHORTED =
            new Wear("touches the body", "Tape and lead another way", 0.3, 55, 10);

    /** A connector that sits loose, or whose springs are worn: it opens when it is shaken. */
    public static final Wear LOOSE =
            new Wear("comes and goes", "Mend the contacts of", 1.6, 12, 35, 15);

    /** A sensor that aged: it tells something, and not what is there. */
    public static final Wear BIASED = new Wear("tells wrong", "Replace", 4, 30, 60);

    /** An input whose converter is off. */
    public static final Wear MISREAD =
            new Wear("is misread inside its module", "Replace the module behind", 0.4, 90, 420);

    /** What sits inside a module hardly ever fails, and takes the module with it. */
    static final Wear MODULE = new Wear("lost inside", "Replace the module behind", 0.5, 90, 420);

    /** A motor with a gear that somebody watches. */
    static final Wear GEARED_MOTOR = new Wear("worn", "Replace", 4, 90, 300);

    /** A technician's own lamp. */
    static final Wear NONE = new Wear("", "", 0, 0, 0);
}
