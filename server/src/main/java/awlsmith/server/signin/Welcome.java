package awlsmith.server.signin;

import awlsmith.core.picture.Lanes;
import awlsmith.media.Rights;
import java.net.InetAddress;
import java.net.UnknownHostException;
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
    private final boolean tls;
    private final boolean isLoopback;
    private int port;

    Welcome(
            SignInLink link,
            @Value("${server.address}") String address,
            @Value("${server.ssl.certificate:}") String certificate)
            throws UnknownHostException {
        this.link = link;
        this.address = address;
        this.tls = !certificate.isEmpty();
        this.isLoopback = InetAddress.getByName(address).isLoopbackAddress();
    }

    private void warn() {
        if (Rights.isRoot()) {
            LOG.warn(
                    "Awlsmith runs as root, which it does not need: a user of its own is safer. {}",
                    Rights.areFew()
                            ? "FFmpeg, which reads what others made, runs as nobody"
                            : "FFmpeg could not be made to run as nobody on this machine");
        }
        if (!tls && !isLoopback) {
            LOG.warn(
                    "what goes over the network is not encrypted: AWLSMITH_TLS=cert,key, or a proxy before it that does");
        }
    }

    @EventListener
    void opened(WebServerInitializedEvent event) {
        port = event.getWebServer().getPort();
    }

    @EventListener(ApplicationReadyEvent.class)
    void ready() {
        LOG.info("{}", Lanes.account());
        warn();
        String host = address.equals("0.0.0.0") ? "127.0.0.1" : address;
        System.out.printf(
                "%nAwlsmith is ready. Sign in once with this link:%n%n  %s://%s:%d/enter?token=%s%n%n",
                tls ? "https" : "http", host, port, link.token());
        System.out.flush();
    }
}
