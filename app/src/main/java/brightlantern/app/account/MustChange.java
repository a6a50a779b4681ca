package brightlantern.app.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Whoever signed in with a one-time password chooses one of their own before anything else. */
@Component
class MustChange implements HandlerInterceptor, WebMvcConfigurer {
    private final Accounts accounts;

    MustChange(Accounts accounts) {
        this.accounts = accounts;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this)
                .excludePathPatterns(
                        List.of("/account", "/sign-in", "/sign-out", "/theme", "/error"))
                .excludePathPatterns("/assets/**", "/webjars/**");
    }

    @Override
    public boolean preHandle(
            HttpServletRequest request, HttpServletResponse response, Object handler)
            throws IOException {
        if (request.getUserPrincipal() == null
                || accounts.byName(request.getUserPrincipal().getName())
                        .map(a -> !a.mustChange())
                        .orElse(true)) {
            return true;
        }
        response.sendRedirect("/account");
        return false;
    }
}
