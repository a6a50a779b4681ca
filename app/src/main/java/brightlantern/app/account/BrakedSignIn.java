package brightlantern.app.account;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.security.authentication.event.AuthenticationFailureBadCredentialsEvent;
import org.springframework.security.authentication.event.AuthenticationSuccessEvent;
import org.springframework.security.core.Authentication;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Lets no try at the sign-in page through that has to wait, and tells the log of wrong ones. */
@Component
class BrakedSignIn extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(BrakedSignIn.class);

    /** Names are of 40 letters at most; what is longer is no name. */
    private static final int LONGEST_NAME = 40;

    private final SignInBrake brake = new SignInBrake(System::nanoTime);

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !(request.getMethod().equals("POST") && request.getServletPath().equals("/sign-in"));
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String name = Optional.ofNullable(request.getParameter("username")).orElse("");
        Duration wait = brake.wait(fit(name), request.getRemoteAddr());
        if (wait.isZero()) {
            chain.doFilter(request, response);
        } else {
            response.sendRedirect("/sign-in?wait=" + (wait.toSeconds() + 1));
        }
    }

    @EventListener
    void wrong(AuthenticationFailureBadCredentialsEvent event) {
        Authentication tried = event.getAuthentication();
        int inARow = brake.wrong(fit(tried.getName()), address(tried));
        LOG.warn(
                "Wrong name or password for '{}' from {}, number {} in a row.",
                fit(tried.getName()),
                address(tried),
                inARow);
    }

    @EventListener
    void right(AuthenticationSuccessEvent event) {
        Authentication signedIn = event.getAuthentication();
        brake.right(fit(signedIn.getName()), address(signedIn));
    }

    /** Without what a log could be forged with. */
    private static String fit(String name) {
        String plain = name.strip().replaceAll("\\p{C}", "?");
        return plain.substring(0, Math.min(LONGEST_NAME, plain.length()));
    }

    private static String address(Authentication tried) {
        return tried.getDetails() instanceof WebAuthenticationDetails details
                ? details.getRemoteAddress()
                : "";
    }
}
