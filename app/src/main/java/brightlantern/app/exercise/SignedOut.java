package brightlantern.app.exercise;

import org.springframework.context.event.EventListener;
import org.springframework.security.authentication.event.LogoutSuccessEvent;
import org.springframework.stereotype.Component;

/** Whoever signs out hands everything back. */
@Component
class SignedOut {
    private final ProcedureRuns runs;

    SignedOut(ProcedureRuns runs) {
        this.runs = runs;
    }

    @EventListener
    void left(LogoutSuccessEvent event) {
        runs.signedOut(event.getAuthentication().getName());
    }
}
