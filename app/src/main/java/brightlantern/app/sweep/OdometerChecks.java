package brightlantern.app.sweep;

import brightlantern.app.job.Findings;
import brightlantern.app.job.Json;
import brightlantern.core.odometer.OdometerCheck;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** The odometer checks of jobs, each kept with its finding. */
@Component
class OdometerChecks {
    /** What such a finding is about. */
    static final String ABOUT = "odometer";

    private final Findings findings;
    private final Json json;

    OdometerChecks(Findings findings, Json json) {
        this.findings = findings;
        this.json = json;
    }

    /** What was read and made of it; kept with its finding, so that the page opens with it. */
    record Check(double shown, double now, OdometerCheck.Verdict verdict, List<String> troubles) {}

    Optional<Check> newest(long id) {
        List<Findings.Finding> all = findings.of(id);
        for (int i = all.size() - 1; i >= 0; i--) {
            Findings.Finding f = all.get(i);
            if (f.about().equals(ABOUT)) {
                return Optional.of(json.read(f.detail(), Check.class));
            }
        }
        return Optional.empty();
    }
}
