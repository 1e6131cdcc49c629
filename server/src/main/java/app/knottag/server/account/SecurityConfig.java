package app.knottag.server.account;

import static org.springframework.http.HttpMethod.DELETE;
import static org.springframework.http.HttpMethod.GET;
import static org.springframework.http.HttpMethod.POST;

import app.knottag.server.web.Refusal;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AuthorizeHttpRequestsConfigurer;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;

/** Who may do what. The page and its assets are public; all of the API but signing in is not. */
@Configuration
class SecurityConfig {

    private static final String CONTENT_POLICY =
            "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:;"
                    + " connect-src 'self'; worker-src 'self'; manifest-src 'self';"
                    + " base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    @Bean
    @Order(1)
    SecurityFilterChain chain(
            HttpSecurity http,
            SecurityContextRepository contexts,
            People people,
            @Qualifier("machineClock") Clock clock)
            throws Exception {
        return http.securityMatcher("/api/**", "/error")
                .csrf(c -> c.spa())
                .securityContext(c -> c.securityContextRepository(contexts))
                .requestCache(c -> c.disable())
                .formLogin(f -> f.disable())
                .httpBasic(b -> b.disable())
                .logout(l -> l.disable())
                .headers(SecurityConfig::headers)
                .addFilterBefore(new SessionCheck(people, clock), AuthorizationFilter.class)
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, none) ->
                                Refusal.write(response, HttpStatus.UNAUTHORIZED, "not-signed-in", "Sign in first."))
                        .accessDeniedHandler((request, response, denied) -> refuse(response)))
                .authorizeHttpRequests(SecurityConfig::rules)
                .build();
    }

    /** Who may do what; the first that fits counts. */
    private static void rules(
            AuthorizeHttpRequestsConfigurer<HttpSecurity>.AuthorizationManagerRequestMatcherRegistry a) {
        // Whoever could open a stream lets it end.
        a.dispatcherTypeMatchers(DispatcherType.ASYNC)
                .permitAll()
                .requestMatchers(
                        "/api/session",
                        "/api/session/challenge",
                        "/api/session/passkey",
                        "/api/welcome",
                        "/api/invitations/acceptance",
                        "/api/password-links/acceptance",
                        "/api/health")
                .permitAll()
                .requestMatchers(
                        "/api/invitations/**",
                        "/api/people/**",
                        "/api/sign-ins",
                        "/api/log/check",
                        "/api/log.json",
                        "/api/site-file",
                        "/api/morning-mail/**",
                        "/api/practice-readiness",
                        "/api/sites/*/site.zip",
                        "/api/sites/*/dates")
                .hasRole("LEAD")
                .requestMatchers(POST, "/api/sites", "/api/kinds", "/api/sites/*/let-pass")
                .hasRole("LEAD")
                .requestMatchers(DELETE, "/api/endpoints/*/let-pass/*", "/api/label-grids/*")
                .hasRole("LEAD")
                .requestMatchers(
                        POST,
                        "/api/address/read",
                        "/api/mac/read",
                        "/api/serial/read",
                        "/api/sites/*/time/read",
                        "/api/kinds/check",
                        "/api/worksheets/*/judgement",
                        "/api/sites/*/labels/preview",
                        "/api/tag-picture",
                        "/api/reach/diagnose",
                        "/api/endpoints/*/office-word")
                .authenticated()
                .requestMatchers("/api/me/**")
                .authenticated()
                .requestMatchers(GET, "/api/**")
                .authenticated()
                .requestMatchers("/api/**")
                .hasAnyRole("LEAD", "TECHNICIAN")
                .anyRequest()
                .permitAll();
    }

    /** The page itself, its assets and the feeds know no session, so they stand while the database does not. */
    @Bean
    @Order(2)
    SecurityFilterChain page(HttpSecurity http) throws Exception {
        return http.csrf(c -> c.disable())
                .sessionManagement(m -> m.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .requestCache(c -> c.disable())
                .logout(l -> l.disable())
                .headers(SecurityConfig::headers)
                .authorizeHttpRequests(a -> a.anyRequest().permitAll())
                .build();
    }

    private static void headers(HeadersConfigurer<HttpSecurity> h) {
        h.contentSecurityPolicy(p -> p.policyDirectives(CONTENT_POLICY))
                .referrerPolicy(r -> r.policy(ReferrerPolicy.NO_REFERRER))
                .frameOptions(f -> f.deny())
                .permissionsPolicyHeader(p -> p.policy("camera=(self), geolocation=(), microphone=()"));
    }

    private static void refuse(HttpServletResponse response) throws java.io.IOException {
        Refusal.write(
                response,
                HttpStatus.FORBIDDEN,
                "not-allowed",
                "Your role does not allow this, or the page is out of date. Reload it, or ask a lead.");
    }

    @Bean
    SecurityContextRepository contexts() {
        return new HttpSessionSecurityContextRepository();
    }

    @Bean
    PasswordEncoder encoder() {
        return Passwords.encoder();
    }

    @Bean
    UserDetailsService users(People people) {
        return name -> {
            var person = people.find(Names.key(name))
                    .orElseThrow(() -> new UsernameNotFoundException("nobody of that name"));
            return org.springframework.security.core.userdetails.User.withUsername(person.name())
                    .password(person.passwordHash())
                    .roles(person.role().name())
                    .build();
        };
    }

    @Bean
    org.springframework.security.authentication.AuthenticationManager authentication(
            UserDetailsService users, PasswordEncoder encoder) {
        var provider = new org.springframework.security.authentication.dao.DaoAuthenticationProvider(users);
        provider.setPasswordEncoder(encoder);
        return new org.springframework.security.authentication.ProviderManager(provider);
    }
}
