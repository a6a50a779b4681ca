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
}
