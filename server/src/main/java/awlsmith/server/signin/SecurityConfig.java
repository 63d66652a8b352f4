package awlsmith.server.signin;

import awlsmith.server.AwlsmithProperties;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.header.HeaderWriterFilter;
import org.springframework.web.filter.OncePerRequestFilter;

/** Who may ask for what: the screens' files are free, everything under /api wants a session. */
@Configuration(proxyBeanMethods = false)
class SecurityConfig {
    private static final String POLICY = "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
            + "img-src 'self' blob: data:; font-src 'self'; connect-src 'self'; media-src 'self' blob:; "
            + "base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    @Bean
    SecurityContextRepository securityContexts() {
        return new HttpSessionSecurityContextRepository();
    }

    /** There are no user names; this keeps a default account from being made. */
    @Bean
    UserDetailsService noAccounts() {
        return name -> {
            throw new UsernameNotFoundException("there are no accounts");
        };
    }

    @Bean
    SecurityFilterChain chain(
            HttpSecurity http,
            Password password,
            AwlsmithProperties properties,
            @Value("${server.address}") String address)
            throws Exception {
        // other machines carry a token with each request, which no page of another site has
        return http.csrf(csrf -> csrf.spa().ignoringRequestMatchers("/api/work/**"))
                .authorizeHttpRequests(requests -> requests.requestMatchers("/api/session", "/api/work/**")
                        .permitAll()
                        .requestMatchers("/api/**")
                        .authenticated()
                        .anyRequest()
                        .permitAll())
                .exceptionHandling(handling -> handling.authenticationEntryPoint((request, response, e) -> answer(
                                response,
                                401,
                                "signed-out",
                                "you are not signed in; open the link that was printed when Awlsmith was started"))
                        .accessDeniedHandler((request, response, e) ->
                                answer(response, 403, "denied", "the page is out of date; load it again")))
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(POLICY))
                        .referrerPolicy(referrer -> referrer.policy(
                                org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter
                                        .ReferrerPolicy.NO_REFERRER)))
                .requestCache(cache -> cache.disable())
                .logout(logout -> logout.disable())
                .formLogin(form -> form.disable())
                .httpBasic(basic -> basic.disable())
                .addFilterBefore(new OldSessions(password), SecurityContextHolderFilter.class)
                .addFilterAfter(new HostFilter(address, properties.hosts()), HeaderWriterFilter.class)
                .build();
    }

    static void answer(HttpServletResponse response, int status, String code, String sentence) throws IOException {
        response.setStatus(status);
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setCharacterEncoding("UTF-8");
        response.getWriter()
                .write("{\"type\":\"urn:awlsmith:problem:" + code + "\",\"status\":" + status + ",\"detail\":\""
                        + sentence + "\"}");
    }

    /**
     * Only this server's own names are answered, so no other site's name can be pointed at it: loopback's on loopback, and those the
     * operator gave. Without any, a server that others reach answers to whatever it is called.
     */
    static final class HostFilter extends OncePerRequestFilter {
        private static final Set<String> LOOPBACK = Set.of("127.0.0.1", "localhost", "[::1]", "::1");

        private final boolean any;
        private final Set<String> names;

        HostFilter(String address, List<String> hosts) throws UnknownHostException {
            boolean loopback = InetAddress.getByName(address).isLoopbackAddress();
            any = !loopback && hosts.isEmpty();
            var all = new HashSet<>(hosts);
            all.addAll(LOOPBACK);
            names = Set.copyOf(all);
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws ServletException, IOException {
            if (!any && !names.contains(request.getServerName().toLowerCase(Locale.ROOT))) {
                answer(
                        response,
                        421,
                        "host",
                        "this server does not answer to that name; AWLSMITH_HOSTS gives it more than 127.0.0.1 and localhost");
                return;
            }
            chain.doFilter(request, response);
        }
    }
}
