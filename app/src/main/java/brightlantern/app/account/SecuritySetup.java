package brightlantern.app.account;

import java.util.Arrays;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.security.config.annotation.method.configuration.EnableMethodSecurity;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.csrf.CsrfFilter;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.security.web.savedrequest.HttpSessionRequestCache;
import org.springframework.security.web.savedrequest.RequestCache;

/** Sign-in by form, roles, CSRF tokens (on by default) and a strict Content-Security-Policy. */
@Configuration
@EnableMethodSecurity
class SecuritySetup {
    private static final String POLICY =
            "default-src 'self'; script-src 'self'; style-src 'self'; img-src 'self' data:;"
                    + " font-src 'self'; connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self';"
                    + " frame-ancestors 'none'";

    @Bean
    SecurityFilterChain security(HttpSecurity http, BrakedSignIn braked) throws Exception {
        return http.authorizeHttpRequests(
                        requests ->
                                requests.requestMatchers(
                                                "/sign-in",
                                                "/first",
                                                "/assets/**",
                                                "/webjars/**",
                                                "/error")
                                        .permitAll()
                                        .requestMatchers(
                                                "/sign-out", "/theme", "/units", "/account")
                                        .authenticated()
                                        .requestMatchers("/jobs/*/exercise/configurations/*/write")
                                        .hasAnyRole(atLeast(Accounts.Role.LEAD))
                                        .requestMatchers(
                                                "/workshop",
                                                "/workshop/logo",
                                                "/jobs/*/prove/forget")
                                        .hasAnyRole(atLeast(Accounts.Role.LEAD))
                                        .requestMatchers("/accounts/**")
                                        .hasRole(Accounts.Role.ADMINISTRATOR.name())
                                        .requestMatchers(HttpMethod.POST)
                                        .hasAnyRole(atLeast(Accounts.Role.TECHNICIAN))
                                        .anyRequest()
                                        .authenticated())
                .addFilterBefore(new StrangersFiles(), CsrfFilter.class)
                .addFilterBefore(braked, UsernamePasswordAuthenticationFilter.class)
                .formLogin(
                        form ->
                                form.loginPage("/sign-in")
                                        .defaultSuccessUrl("/", false)
                                        .permitAll())
                .requestCache(cache -> cache.requestCache(whereOneWas()))
                .logout(logout -> logout.logoutUrl("/sign-out").logoutSuccessUrl("/sign-in?out"))
                .headers(
                        headers ->
                                headers.contentSecurityPolicy(csp -> csp.policyDirectives(POLICY))
                                        .referrerPolicy(r -> r.policy(ReferrerPolicy.SAME_ORIGIN)))
                .build();
    }

    private static String[] atLeast(Accounts.Role least) {
        return Arrays.stream(Accounts.Role.values())
                .filter(r -> r.compareTo(least) >= 0)
                .map(Enum::name)
                .toArray(String[]::new);
    }

    /** After signing in one comes back to the page, not to what the page asked for meanwhile. */
    private static RequestCache whereOneWas() {
        HttpSessionRequestCache cache = new HttpSessionRequestCache();
        cache.setRequestMatcher(
                request ->
                        request.getMethod().equals("GET")
                                && request.getHeader("HX-Request") == null
                                && Optional.ofNullable(request.getHeader("Accept"))
                                        .filter(a -> a.contains("text/html"))
                                        .isPresent());
        return cache;
    }

    /** It stands in the security chain alone, after the check of the form's token. */
    @Bean
    FilterRegistrationBean<BrakedSignIn> onlyInTheChain(BrakedSignIn braked) {
        FilterRegistrationBean<BrakedSignIn> registration = new FilterRegistrationBean<>(braked);
        registration.setEnabled(false);
        return registration;
    }

    @Bean
    PasswordEncoder passwordEncoder(@Value("${lantern.password-rounds}") int rounds) {
        return new BCryptPasswordEncoder(rounds);
    }

    @Bean
    UserDetailsService users(Accounts accounts) {
        return name ->
                accounts.byName(name)
                        .map(
                                a ->
                                        User.withUsername(a.name())
                                                .password(a.password())
                                                .roles(a.role().name())
                                                .disabled(!a.enabled())
                                                .build())
                        .orElseThrow(() -> new UsernameNotFoundException(name));
    }
}
