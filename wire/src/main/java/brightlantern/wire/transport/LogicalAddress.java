package brightlantern.wire.transport;

/**
 * A logical address of ISO 13400-2.
 *
 * @param number 0..0xFFFF
 */
public record LogicalAddress(int number) implements ModuleAddress {
    /**
     * @throws IllegalArgumentException when it is no address of 16 bits
     */
    public LogicalAddress {
        if (number < 0 || number > 0xFFFF) {
            throw new IllegalArgumentException(
                    "A logical address has 16 bits; found " + Integer.toHexString(number));
        }
    }

    @Override
    public String words() {
        return "module %04X".formatted(number);
    }
}
