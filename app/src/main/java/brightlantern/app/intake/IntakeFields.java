package brightlantern.app.intake;

/** What is typed at intake, held against what its fields take. */
final class IntakeFields {
    /** Characters of a complaint, as its field says. */
    private static final int LONGEST_TEXT = 4000;

    private IntakeFields() {}

    /**
     * @throws IllegalArgumentException names the field and what was found
     */
    static void notLonger(String field, String text) {
        if (text.trim().length() > LONGEST_TEXT) {
            throw new IllegalArgumentException(
                    "%s: expected at most %d characters, found %d."
                            .formatted(field, LONGEST_TEXT, text.trim().length()));
        }
    }

    /**
     * A number as people type it, with point or comma.
     *
     * @throws IllegalArgumentException names the field and what was found
     */
    static double number(String field, String text) {
        try {
            double value = Double.parseDouble(text.trim().replace(',', '.'));
            if (Double.isFinite(value) && value >= 0) {
                return value;
            }
        } catch (NumberFormatException letters) {
            // told below with the field's name
        }
        throw new IllegalArgumentException(field + ": expected a number, found '" + text + "'.");
    }
}
