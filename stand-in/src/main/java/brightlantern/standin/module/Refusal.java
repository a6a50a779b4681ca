package brightlantern.standin.module;

import brightlantern.wire.Bytes;

/** A request that is refused; the code is one of ISO 14229-1, annex A. */
final class Refusal extends RuntimeException {
    private static final long serialVersionUID = 1L;

    final int code;

    Refusal(int code) {
        super(null, null, false, false);
        this.code = code;
    }

    /**
     * @throws Refusal incorrect message length (0x13)
     */
    static void unlessSize(Bytes request, int size) {
        if (request.size() != size) {
            throw new Refusal(0x13);
        }
    }
}
