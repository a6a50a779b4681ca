package brightlantern.app.exercise;

/** Ends a run that is under way; says why. */
final class RunBroken extends RuntimeException {
    private static final long serialVersionUID = 1L;

    RunBroken(String why) {
        super(why, null, false, false);
    }
}
