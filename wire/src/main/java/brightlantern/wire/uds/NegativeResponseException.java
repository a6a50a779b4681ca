package brightlantern.wire.uds;

import brightlantern.wire.WireException;

/** The module refused a request (ISO 14229-1, clause A.1). */
public class NegativeResponseException extends WireException {
    private static final long serialVersionUID = 1L;
    private final int service;
    private final int code;

    /**
     * @param service that was refused
     * @param code negative response code (ISO 14229-1, annex A)
     */
    public NegativeResponseException(int service, int code) {
        super(
                "The module refused service 0x%02X: %s (0x%02X)"
                        .formatted(service, inWords(code), code));
        this.service = service;
        this.code = code;
    }

    /** The service that was refused. */
    public int service() {
        return service;
    }

    /** Negative response code, 0x00..0xFF. */
    public int code() {
        return code;
    }

    /** A negative response code of ISO 14229-1:2013 table A.1 in plain words. */
    public static String inWords(int code) {
        return switch (code) {
            case 0x10 -> "it rejects this in general and gives no reason";
            case 0x11 -> "it does not have this service";
            case 0x12 -> "it does not have this kind of the service";
            case 0x13 -> "the request's length or format is wrong";
            case 0x14 -> "the answer would be too long";
            case 0x21 -> "it is busy; ask again";
            case 0x22 -> "conditions are not right for it now";
            case 0x24 -> "the requests came in the wrong order";
            case 0x25 -> "a module behind it does not answer";
            case 0x26 -> "a failure prevents it from doing this";
            case 0x31 -> "it does not have this identifier, or the value is out of range";
            case 0x33 -> "it wants to be unlocked first";
            case 0x35 -> "the key was wrong";
            case 0x36 -> "too many wrong keys";
            case 0x37 -> "it wants more time before the next key";
            case 0x34 -> "it wants to know who asks first";
            case 0x3A -> "it takes this only over a secured connection";
            case 0x70 -> "it does not accept the transfer";
            case 0x71 -> "the transfer was broken off";
            case 0x72 -> "programming failed";
            case 0x73 -> "the blocks came in the wrong order";
            case 0x78 -> "it needs more time";
            case 0x7E -> "it does not do this kind of the service in the present session";
            case 0x7F -> "it does not do this service in the present session";
            case 0x81 -> "engine speed is too high";
            case 0x82 -> "engine speed is too low";
            case 0x83 -> "the engine is running";
            case 0x84 -> "the engine is not running";
            case 0x85 -> "the engine has not run long enough";
            case 0x86 -> "temperature is too high";
            case 0x87 -> "temperature is too low";
            case 0x88 -> "vehicle speed is too high";
            case 0x89 -> "vehicle speed is too low";
            case 0x8A -> "the accelerator is pressed too far";
            case 0x8B -> "the accelerator is not pressed far enough";
            case 0x8C -> "the gearbox is not in neutral";
            case 0x8D -> "no gear is engaged";
            case 0x8F -> "the brake pedal is not pressed";
            case 0x90 -> "the selector is not in park";
            case 0x91 -> "the converter clutch is locked";
            case 0x92 -> "supply voltage is too high";
            case 0x93 -> "supply voltage is too low";
            default -> "for a reason that the standard does not name";
        };
    }
}
