package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;

/**
 * A step of a repair.
 *
 * @param torque to which it is tightened, N·m; 0 where nothing is
 * @param angle by which it is turned further, degrees; 0 where it is not
 * @param note what to mind; empty when there is nothing
 */
public record RepairStep(String what, double torque, double angle, String note) {
    public RepairStep {
        note = OrEmpty.text(note);
    }

    /** One at which nothing is tightened. */
    public static RepairStep of(String what, String note) {
        return new RepairStep(what, 0, 0, note);
    }

    /** To what it is tightened, in words; empty where nothing is. */
    public String tightened() {
        if (torque == 0) {
            return "";
        }
        String first = "%s N·m".formatted(torque % 1 == 0 ? "%.0f".formatted(torque) : torque);
        return angle == 0 ? first : first + " and %.0f° further".formatted(angle);
    }
}
