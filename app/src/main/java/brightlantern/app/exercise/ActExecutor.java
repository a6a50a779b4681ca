package brightlantern.app.exercise;

import brightlantern.core.procedure.Act;
import brightlantern.core.procedure.Step;
import brightlantern.wire.WireException;

/** Carries out one kind of act, and tells what came of it. */
interface ActExecutor<A extends Act> {
    /**
     * @throws WireException when the vehicle is lost
     * @throws RunBroken when the run has to end
     */
    void carryOut(Step step, A act) throws WireException;
}
