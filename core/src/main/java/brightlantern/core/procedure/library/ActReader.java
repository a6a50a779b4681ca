package brightlantern.core.procedure.library;

import brightlantern.core.procedure.Act;

/** Reads one kind of act. */
interface ActReader {
    Act read(RawStep step, ReadingContext in);

    /** An act that makes something known, of which conditions of other steps may speak. */
    interface Telling extends ActReader {}
}
