package brightlantern.app.job;

import brightlantern.core.code.StoredCode;
import brightlantern.core.proof.DriveConditions;
import brightlantern.core.sweep.CodeWeigher;
import brightlantern.core.vehicle.VehicleDescription;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * The code by which a job's fault showed itself: the lead code of its first whole sweep that had
 * one.
 */
@Component
public class LeadCodes {
    private final Sweeps sweeps;

    LeadCodes(Sweeps sweeps) {
        this.sweeps = sweeps;
    }

    public Optional<StoredCode> of(Job job, VehicleDescription description) {
        List<Sweeps.Head> kept = sweeps.heads(job.id());
        for (int i = kept.size() - 1; i >= 0; i--) {
            if (kept.get(i).codes() == 0) {
                continue;
            }
            Optional<StoredCode> lead =
                    CodeWeigher.weigh(
                                    sweeps.read(kept.get(i).id()).sweep().codes(),
                                    description,
                                    job.symptoms())
                            .stream()
                            .filter(CodeWeigher.Weighed::lead)
                            .map(CodeWeigher.Weighed::code)
                            .findFirst();
            if (lead.isPresent()) {
                return lead;
            }
        }
        return Optional.empty();
    }

    /** Its newest freeze frame: value id → value in the value's own unit; empty without one. */
    public Map<String, Double> frame(Job job, VehicleDescription description) {
        return of(job, description)
                .filter(c -> !c.frames().isEmpty())
                .map(c -> c.frames().get(c.frames().size() - 1).values())
                .orElse(Map.of());
    }

    /**
     * Under which conditions the fault showed, as far as they can be measured: those of the freeze
     * frame, or else of the coded complaint.
     */
    public DriveConditions conditions(Job job, VehicleDescription description) {
        DriveConditions frame = DriveConditions.ofFrame(frame(job, description), description);
        return frame.isEmpty() ? DriveConditions.ofComplaint(job.symptoms(), description) : frame;
    }
}
