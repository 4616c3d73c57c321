package leveltally.server.frame;

import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.apache.catalina.valves.RemoteIpValve;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/**
 * Behind an https proxy: who asks, and that the way to the proxy is encrypted, is taken from the headers of the proxies
 * that are configured and of nobody else. From that follow the origin in the trail, the secure cookies and HSTS.
 */
@Configuration(proxyBeanMethods = false)
class Proxies {
    @Bean
    WebServerFactoryCustomizer<TomcatServletWebServerFactory> believedProxies(Settings settings) {
        return server -> {
            if (settings.proxies().isEmpty()) {
                return;
            }
            RemoteIpValve valve = new RemoteIpValve();
            valve.setInternalProxies(
                    settings.proxies().stream().map(Pattern::quote).collect(Collectors.joining("|")));
            valve.setRemoteIpHeader("X-Forwarded-For");
            valve.setProtocolHeader("X-Forwarded-Proto");
            server.addEngineValves(valve);
        };
    }
}
