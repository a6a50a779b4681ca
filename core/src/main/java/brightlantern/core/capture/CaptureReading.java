package brightlantern.core.capture;

import java.util.List;

/** What a study reads in a capture. */
public interface CaptureReading {
    /** In a sentence, with its full stop. */
    String sentence();

    /** Why it says so. */
    List<String> reasons();

    /** Whether all is as it should be. */
    boolean holds();

    /** The findings that it comes to. */
    List<Told> tells();

    /**
     * A finding that a reading comes to.
     *
     * @param finding its id; where it is not described it is told, and weighs nothing
     * @param outcome id of the outcome
     * @param holds whether that is as it should be
     */
    record Told(String finding, String outcome, boolean holds, String sentence) {}
}
