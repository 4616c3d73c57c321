package leveltally.server.frame;

import jakarta.servlet.http.HttpServletResponse;
import java.util.HashMap;
import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.crypto.password.Pbkdf2PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import tools.jackson.databind.json.JsonMapper;

/** Deny by default: everything under /api needs a session, and every write its CSRF token. */
@Configuration
class Security {
    private static final String POLICY = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
            + "font-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    @Bean
    PasswordEncoder passwords(Settings settings) {
        // PBKDF2 takes a password of any script and length; bcrypt, which older hashes are of, ends at 72 bytes
        var ours = Pbkdf2PasswordEncoder.defaultsForSpringSecurity_v5_8();
        Map<String, PasswordEncoder> known =
                new HashMap<>(Map.of("pbkdf2", ours, "bcrypt", new BCryptPasswordEncoder()));
        if (settings.demo()) {
            known.put(DemoEncoder.ID, DemoEncoder.encoder());
        }
        return new DelegatingPasswordEncoder("pbkdf2", known);
    }

    @Bean
    SecurityFilterChain chain(HttpSecurity http, JsonMapper json) throws Exception {
        return http.csrf(csrf -> csrf.spa())
                .authorizeHttpRequests(
                        requests -> requests.requestMatchers("/api/session/door", "/api/session/first-administrator")
                                .permitAll()
                                .requestMatchers(HttpMethod.POST, "/api/session")
                                .permitAll()
                                .requestMatchers("/api/**")
                                .authenticated()
                                .requestMatchers("/actuator/health/**")
                                .permitAll()
                                .requestMatchers("/actuator/**")
                                .denyAll()
                                .anyRequest()
                                .permitAll())
                .exceptionHandling(handling -> handling.authenticationEntryPoint((request, response, refused) -> write(
                                json,
                                response,
                                Problems.problem(
                                        HttpStatus.UNAUTHORIZED,
                                        "signed-out",
                                        "You are not signed in, or your session ended. Sign in again; nothing was lost.",
                                        Map.of())))
                        .accessDeniedHandler((request, response, refused) -> write(
                                json,
                                response,
                                Problems.problem(
                                        HttpStatus.FORBIDDEN,
                                        "forbidden",
                                        "This request came without its token. Load the page again and repeat it.",
                                        Map.of()))))
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(POLICY)))
                .requestCache(cache -> cache.disable())
                .formLogin(form -> form.disable())
                .httpBasic(basic -> basic.disable())
                .logout(logout -> logout.disable())
                .build();
    }

    private static void write(JsonMapper json, HttpServletResponse response, ProblemDetail problem)
            throws java.io.IOException {
        response.setStatus(problem.getStatus());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setCharacterEncoding("UTF-8");
        json.writeValue(response.getWriter(), problem);
    }
}
