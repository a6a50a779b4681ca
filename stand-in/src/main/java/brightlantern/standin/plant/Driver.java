package brightlantern.standin.plant;

import java.util.Locale;

/**
 * What the person in the driver's seat does.
 *
 * @param key 0 off, 1 accessory, 2 on
 * @param program how the van is driven while the engine runs
 * @param pedal accelerator 0..100 %, for {@link Program#BY_HAND}
 * @param gear 0..6, for {@link Program#BY_HAND}
 * @param slope rise of the road in percent, for {@link Program#BY_HAND}
 * @param brake pressed
 */
public record Driver(
        int key,
        Program program,
        double pedal,
        int gear,
        double slope,
        boolean brake,
        boolean charger,
        boolean trailer) {
    /** Ready-made ways to drive. */
    public enum Program {
        STAND("stand still"),
        CRUISE("cruise on the flat, up to 80 km/h"),
        CLIMB("long climb, some 12 %, third gear"),
        WARM_UP("warm up, standing at raised speed"),
        PULL("full-load pulls in one gear, again and again"),
        OVERRUN("speed up and let it roll, foot off"),
        STOP_AND_GO("stop and go in town"),
        BY_HAND("by hand");

        private final String words;

        Program(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        public static Program named(String name) {
            return valueOf(name.toUpperCase(Locale.ROOT).replace('-', '_'));
        }
    }

    public Driver {
        if (key < 0
                || key > 2
                || gear < 0
                || gear > 6
                || !(pedal >= 0 && pedal <= 100)
                || !(Math.abs(slope) <= 25)) {
            throw new IllegalArgumentException(
                    "Key 0..2, gear 0..6, pedal 0..100 %, slope -25..25 %; got key "
                            + key
                            + ", gear "
                            + gear
                            + ", pedal "
                            + pedal
                            + ", slope "
                            + slope);
        }
    }

    public static Driver away() {
        return new Driver(0, Program.STAND, 0, 0, 0, false, false, false);
    }

    public Driver key(int position) {
        return new Driver(position, program, pedal, gear, slope, brake, charger, trailer);
    }

    public Driver drive(Program how) {
        return new Driver(key, how, pedal, gear, slope, brake, charger, trailer);
    }

    public Driver byHand(double pedalPercent, int inGear, double slopePercent, boolean braking) {
        return new Driver(
                key,
                Program.BY_HAND,
                pedalPercent,
                inGear,
                slopePercent,
                braking,
                charger,
                trailer);
    }

    public Driver charger(boolean on) {
        return new Driver(key, program, pedal, gear, slope, brake, on, trailer);
    }

    public Driver trailer(boolean plugged) {
        return new Driver(key, program, pedal, gear, slope, brake, charger, plugged);
    }
}
