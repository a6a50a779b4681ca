package brightlantern.app.prove;

import brightlantern.app.page.NextCard;
import brightlantern.core.proof.Proof;

/**
 * A line of the proof, ready to be shown.
 *
 * @param mark style class of its state
 * @param href where it is done, below the job; empty when it is done on this page
 */
record ProofRow(
        String state,
        String mark,
        String words,
        String what,
        String seen,
        String tells,
        String href) {
    static ProofRow of(Proof.Requirement r) {
        return new ProofRow(
                r.state().name(),
                switch (r.state()) {
                    case PROVEN -> "holds";
                    case FAILED -> "fails";
                    case OPEN -> "soft";
                },
                r.state().words(),
                r.what(),
                r.seen(),
                r.tells(),
                r.where().path().equals("prove") ? "" : NextCard.address(r.where()));
    }
}
