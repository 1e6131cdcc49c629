package app.knottag.server.session;

import static org.springframework.http.HttpMethod.GET;
import static org.springframework.http.HttpMethod.POST;

import jakarta.servlet.http.HttpServletResponse;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.HttpStatusEntryPoint;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;

/** Who may do what. The page and its assets are public; all of the API but signing in is not. */
@Configuration
class SecurityConfig {

    private static final String CONTENT_POLICY =
            "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:;"
                    + " connect-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    @Bean
    SecurityFilterChain chain(HttpSecurity http, SecurityContextRepository contexts) throws Exception {
        return http.csrf(c -> c.spa())
                .securityContext(c -> c.securityContextRepository(contexts))
                .requestCache(c -> c.disable())
                .formLogin(f -> f.disable())
                .httpBasic(b -> b.disable())
                .logout(l -> l.disable())
                .headers(h -> h.contentSecurityPolicy(p -> p.policyDirectives(CONTENT_POLICY))
                        .referrerPolicy(r -> r.policy(ReferrerPolicy.NO_REFERRER))
                        .frameOptions(f -> f.deny())
                        .permissionsPolicyHeader(p -> p.policy("camera=(self), geolocation=(), microphone=()")))
                .exceptionHandling(e -> e.authenticationEntryPoint(new HttpStatusEntryPoint(HttpStatus.UNAUTHORIZED))
                        .accessDeniedHandler((request, response, denied) -> refuse(response)))
                .authorizeHttpRequests(
                        a -> a.requestMatchers("/api/session", "/api/welcome", "/api/invitations/acceptance")
                                .permitAll()
                                .requestMatchers("/api/invitations")
                                .hasRole("LEAD")
                                .requestMatchers(POST, "/api/sites", "/api/kinds")
                                .hasRole("LEAD")
                                .requestMatchers(
                                        POST,
                                        "/api/address/read",
                                        "/api/mac/read",
                                        "/api/serial/read",
                                        "/api/kinds/check",
                                        "/api/reach/diagnose",
                                        "/api/endpoints/*/office-word")
                                .authenticated()
                                .requestMatchers(GET, "/api/**")
                                .authenticated()
                                .requestMatchers("/api/**")
                                .hasAnyRole("LEAD", "TECHNICIAN")
                                .anyRequest()
                                .permitAll())
                .build();
    }

    private static void refuse(HttpServletResponse response) throws java.io.IOException {
        response.setStatus(HttpStatus.FORBIDDEN.value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setCharacterEncoding("UTF-8");
        response.getWriter()
                .write(
                        "{\"status\":403,\"title\":\"Forbidden\",\"code\":\"not-allowed\",\"errors\":[],"
                                + "\"detail\":\"Your role does not allow this, or the page is out of date. Reload it, or ask a lead.\"}");
    }

    @Bean
    SecurityContextRepository contexts() {
        return new HttpSessionSecurityContextRepository();
    }

    @Bean
    PasswordEncoder encoder() {
        return new BCryptPasswordEncoder(12);
    }

    @Bean
    UserDetailsService users(People people) {
        return name -> {
            var person = people.find(name);
            if (person == null) throw new UsernameNotFoundException("nobody of that name");
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
