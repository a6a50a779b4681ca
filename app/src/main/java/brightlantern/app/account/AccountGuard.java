package brightlantern.app.account;

import brightlantern.app.account.Accounts.Account;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.security.Principal;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.authentication.logout.SecurityContextLogoutHandler;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * What is changed in an account holds at once: a sign-in ends with the account's being shut, with
 * another role and with another password. Whoever signed in with a one-time password chooses one of
 * their own before anything else.
 */
@Component
class AccountGuard implements HandlerInterceptor, WebMvcConfigurer {
    private static final String STAMP = AccountGuard.class.getName();
    private static final Set<String> BEFORE_CHANGING = Set.of("/account", "/sign-out", "/theme");

    private final Accounts accounts;

    AccountGuard(Accounts accounts) {
        this.accounts = accounts;
    }

    /** Under which account and password a sign-in was made; the hash stays in the program. */
    private record Stamp(String name, String password) {}

    /** The sign-in that changes its own password goes on with the new one. */
    static void goesOn(HttpSession session) {
        session.removeAttribute(STAMP);
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this)
                .excludePathPatterns("/sign-in", "/error", "/assets/**", "/webjars/**");
    }

    @Override
    public boolean preHandle(
            HttpServletRequest request, HttpServletResponse response, Object handler)
            throws IOException {
        Principal who = request.getUserPrincipal();
        if (who == null) {
            return true;
        }
        Optional<Account> account = accounts.byName(who.getName());
        if (account.isEmpty() || !stillHolds(account.get(), request.getSession())) {
            end(request, response);
            return false;
        }
        if (account.get().mustChange() && !BEFORE_CHANGING.contains(request.getServletPath())) {
            response.sendRedirect("/account");
            return false;
        }
        return true;
    }

    private static boolean stillHolds(Account account, HttpSession session) {
        Authentication signedIn = SecurityContextHolder.getContext().getAuthentication();
        boolean sameRole =
                signedIn.getAuthorities().stream()
                        .anyMatch(a -> a.getAuthority().equals("ROLE_" + account.role().name()));
        Stamp now = new Stamp(account.name(), account.password());
        boolean samePassword =
                !(session.getAttribute(STAMP) instanceof Stamp before)
                        || !before.name().equals(now.name())
                        || before.equals(now);
        session.setAttribute(STAMP, now);
        return account.enabled() && sameRole && samePassword;
    }

    private static void end(HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        new SecurityContextLogoutHandler()
                .logout(request, response, SecurityContextHolder.getContext().getAuthentication());
        if (request.getHeader("HX-Request") == null) {
            response.sendRedirect("/sign-in?ended");
        } else {
            // a part of a page cannot become the sign-in page
            response.setHeader("HX-Redirect", "/sign-in?ended");
            response.setStatus(HttpStatus.UNAUTHORIZED.value());
        }
    }
}
