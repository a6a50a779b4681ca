package brightlantern.app.account;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Takes no file from somebody who is not signed in. It stands before the check of the form's token,
 * which would read hundreds of megabytes to look for one.
 */
final class StrangersFiles extends OncePerRequestFilter {
    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String type = request.getContentType();
        boolean files = type != null && type.toLowerCase(Locale.ROOT).startsWith("multipart/");
        if (!files || isSignedIn()) {
            chain.doFilter(request, response);
            return;
        }
        // after a bad request the server reads no more of it, and hangs up
        response.setStatus(HttpServletResponse.SC_BAD_REQUEST);
        response.setContentType("text/plain");
        response.setCharacterEncoding(StandardCharsets.UTF_8.name());
        response.getWriter().write("Sign in before you send a file; nothing of it was read.");
    }

    private static boolean isSignedIn() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        return who != null
                && who.isAuthenticated()
                && !(who instanceof AnonymousAuthenticationToken);
    }
}
