package brightlantern.core.capture;

/** What a lane shows, as far as a study has to know it. */
public enum LaneRole {
    STARTER_CURRENT("Starting current", "A"),
    INTAKE("Intake pulls", "kPa"),
    EXHAUST("Exhaust pulses", "kPa"),
    CRANKCASE("Crankcase", "kPa"),
    CYLINDER("Pressure in the cylinder", "kPa"),
    FIRST_CYLINDER("Firing of the first cylinder", "V"),
    CRANK("Crank sensor", "V"),
    CAM("Camshaft sensor", "V"),
    COIL("Coil current", "A"),
    INJECTOR("Injector current", "A"),
    COILS("Current of all coils", "A"),
    INJECTORS("Current of all injectors", "A"),
    SPARKS("Sparks of all cylinders", "kV"),
    COUNT("Count of misfires", ""),
    OWN_FIGURE("Cylinder as its module sees it", "rpm"),
    POINT("Volts", "V"),
    SUPPLY("Supply at the battery", "V"),
    PLUS_CABLE("Lost in the starter's cable", "V"),
    EARTH_CABLE("Lost between engine and battery", "V"),
    HIGH_NEAR("High wire, near end", "V"),
    LOW_NEAR("Low wire, near end", "V"),
    HIGH_FAR("High wire, far end", "V"),
    LOW_FAR("Low wire, far end", "V"),
    OTHER("Lane", "");

    private final String words;
    private final String unit;

    LaneRole(String words, String unit) {
        this.words = words;
        this.unit = unit;
    }

    public String words() {
        return words;
    }

    /** Whether it is switched, so that its pulses mean something. */
    public boolean isSwitched() {
        return switch (this) {
            case FIRST_CYLINDER, CAM, COIL, INJECTOR, POINT, OTHER -> true;
            default -> false;
        };
    }

    /** The unit in which studies expect it. */
    public String unit() {
        return unit;
    }
}
