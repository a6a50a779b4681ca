package brightlantern.app.prove;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Instruments;
import brightlantern.app.job.Job;
import brightlantern.app.job.Repairs;
import brightlantern.app.job.Workshop;
import brightlantern.core.learned.LearnedStudy;
import brightlantern.core.proof.BeforeAfter;
import brightlantern.core.proof.Proof;
import java.util.List;
import java.util.Optional;

/**
 * All that a report tells; for the page, the PDF and the data alike.
 *
 * @param wrong what was wrong, in a sentence
 * @param chain from the cause to the complaint
 * @param how we know: the findings that decided
 * @param measured figures that were wrong, before the repair and after it
 * @param price what was agreed to, with tax, in words; empty when nothing was
 * @param shown after the repair, what speaks for it
 * @param watch what the customer should keep an eye on
 * @param frames what the vehicle stored of the moment in which a code was set
 * @param instruments what was measured with
 * @param learned by its modules, as it was read last, beyond usual first
 */
record Report(
        Workshop workshop,
        Job job,
        String vehicle,
        String engine,
        List<String> symptoms,
        String wrong,
        List<String> chain,
        List<String> how,
        List<Measured> measured,
        List<Repairs.Repair> repairs,
        String price,
        Proof.Verdict proof,
        List<String> shown,
        List<String> watch,
        List<String> codesBefore,
        List<String> codesAfter,
        List<String> frames,
        List<Learned> learned,
        List<Instruments.Used> instruments,
        List<Findings.Finding> story) {
    /**
     * What a module has learned of the vehicle.
     *
     * @param stands where it stands between its limits
     * @param moved since it was read before; empty when it never was
     * @param usual whether nothing has to be done about it
     */
    record Learned(String what, String stands, String moved, boolean usual) {
        static Learned of(LearnedStudy.Verdict verdict) {
            return new Learned(
                    verdict.value().name(), verdict.sentence(), verdict.moved(), verdict.holds());
        }
    }

    /**
     * A figure that was wrong.
     *
     * @param low least that is right, in {@code unit}; empty where it has no such end
     * @param high most that is right
     * @param before and after the repair, in words with their unit
     * @param right whether it is right now
     */
    record Measured(
            String what,
            String unit,
            Optional<Double> low,
            double high,
            String before,
            String after,
            boolean right) {
        static Measured of(BeforeAfter f) {
            return new Measured(
                    f.what(),
                    f.unit(),
                    Double.isNaN(f.low()) ? Optional.empty() : Optional.of(f.low()),
                    f.high(),
                    f.told(f.before()),
                    f.told(f.after()),
                    f.holds());
        }
    }
}
