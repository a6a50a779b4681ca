package brightlantern.core.take.mdf;

/** A channel of a group. */
record MdfChannel(
        String name,
        String unit,
        String comment,
        boolean master,
        int type,
        int bitOffset,
        int byteOffset,
        int bits,
        long conversion,
        int invalidBit) {
    boolean isText() {
        return type >= 6 && type <= 9;
    }
}
