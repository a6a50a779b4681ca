package brightlantern.core.network;

/**
 * How fast bits follow each other on a bus (ISO 11898-1).
 *
 * @param kbit kbit/s
 * @param dataKbit of the data in frames with flexible data rate, kbit/s; 0 where there are none
 */
public record BitRate(int kbit, int dataKbit) {
    /** The faster of both, kbit/s. */
    public int fastest() {
        return Math.max(kbit, dataKbit);
    }
}
