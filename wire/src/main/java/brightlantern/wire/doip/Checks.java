package brightlantern.wire.doip;

import brightlantern.wire.Bytes;

final class Checks {
    private Checks() {}

    static void size(String field, Bytes bytes, int size) {
        if (bytes.size() != size) {
            throw new IllegalArgumentException(
                    field + " needs " + size + " bytes, has " + bytes.size());
        }
    }

    static void vin(String vin) {
        if (vin.length() != 17) {
            throw new IllegalArgumentException(
                    "VIN needs 17 characters, has " + vin.length() + ": " + vin);
        }
    }
}
