package brightlantern.core.emission;

import java.util.List;
import java.util.Optional;

/**
 * What one module tells of the emission system.
 *
 * @param codes those that are confirmed, pending or failing
 * @param permanent those that a clear does not take away
 * @param troubles what could not be read, in words
 */
public record EmissionReport(
        Optional<Readiness> readiness,
        List<EmissionCode> codes,
        List<EmissionCode> permanent,
        List<MonitorResult> results,
        List<String> troubles) {
    public EmissionReport {
        codes = List.copyOf(codes);
        permanent = List.copyOf(permanent);
        results = List.copyOf(results);
        troubles = List.copyOf(troubles);
    }

    /**
     * @param status byte of ISO 14229-1 annex D.2
     * @param severity byte of annex D.3; 0 when not told
     */
    public record EmissionCode(String code, String name, int status, int severity) {}

    /** Tests that ran and lie outside their limits. */
    public List<MonitorResult> failed() {
        return results.stream().filter(r -> r.ran() && !r.passed()).toList();
    }
}
