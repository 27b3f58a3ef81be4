package org.mossbank.server.shared;

import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.apache.catalina.valves.RemoteIpValve;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/** Believes what is said of who asks only from the proxies that an administrator named; without any, from nobody. */
@Component
class Proxies implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {
    private final List<String> addresses;

    Proxies(@Value("${mossbank.proxies}") List<String> addresses) {
        this.addresses =
                addresses.stream().map(String::strip).filter(a -> !a.isEmpty()).toList();
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        if (addresses.isEmpty()) {
            return;
        }
        RemoteIpValve valve = new RemoteIpValve();
        valve.setInternalProxies(addresses.stream().map(Pattern::quote).collect(Collectors.joining("|")));
        valve.setRemoteIpHeader("X-Forwarded-For");
        valve.setProtocolHeader("X-Forwarded-Proto");
        factory.addEngineValves(valve);
    }
}
