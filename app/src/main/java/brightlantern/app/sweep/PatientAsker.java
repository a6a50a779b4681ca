package brightlantern.app.sweep;

import brightlantern.wire.SilenceException;
import brightlantern.wire.WireException;
import brightlantern.wire.uds.NegativeResponseException;

/** A module that is asked one thing after another, each again when its answer was lost. */
final class PatientAsker {
    private static final int ASKED_AGAIN = 2;

    /** The last time that it is asked at all it costs nobody else anything. */
    private static final int LAST_ASKED_AGAIN = 4;

    private final int askedAgain;
    private boolean heard;

    /**
     * @param patient whether a first request without answer is sent again
     */
    PatientAsker(boolean patient) {
        this.heard = patient;
        this.askedAgain = patient ? LAST_ASKED_AGAIN : ASKED_AGAIN;
    }

    interface Question<T> {
        T ask() throws WireException;
    }

    /**
     * A request may be lost on the way. A module that has answered before is asked the same again;
     * one that never did is told as silent at once, so that it does not hold up the sweep.
     */
    <T> T asked(Question<T> question) throws WireException {
        for (int again = 0; ; again++) {
            try {
                T answer = question.ask();
                heard = true;
                return answer;
            } catch (NegativeResponseException refused) {
                heard = true;
                throw refused;
            } catch (SilenceException lost) {
                if (!heard || again == askedAgain) {
                    throw lost;
                }
            }
        }
    }
}
