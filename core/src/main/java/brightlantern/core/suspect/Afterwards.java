package brightlantern.core.suspect;

import brightlantern.core.description.OrEmpty;

/**
 * What must be learned or coded after a repair.
 *
 * @param procedure the guided procedure that does it; empty, or not there in a kind of vehicle that
 *     has none, when it is done in another way
 */
public record Afterwards(String what, String procedure) {
    public Afterwards {
        procedure = OrEmpty.text(procedure);
    }
}
