package awlsmith.server.signin;

import awlsmith.core.picture.Lanes;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.web.server.context.WebServerInitializedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Prints the sign-in link once everything runs. */
@Component
class Welcome {
    private static final Logger LOG = LoggerFactory.getLogger("awlsmith.start");

    private final SignInLink link;
    private final String address;
    private int port;

    Welcome(SignInLink link, @Value("${server.address}") String address) {
        this.link = link;
        this.address = address;
    }

    @EventListener
    void opened(WebServerInitializedEvent event) {
        port = event.getWebServer().getPort();
    }

    @EventListener(ApplicationReadyEvent.class)
    void ready() {
        LOG.info("{}", Lanes.account());
        String host = address.equals("0.0.0.0") ? "127.0.0.1" : address;
        System.out.printf(
                "%nAwlsmith is ready. Sign in once with this link:%n%n  http://%s:%d/enter?token=%s%n%n",
                host, port, link.token());
        System.out.flush();
    }
}
