package awlsmith.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.cert.CertificateFactory;
import java.util.Map;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The application as others on a network meet it. */
class NetworkIT {
    @TempDir
    Path folder;

    private static int freePort() throws IOException {
        try (var socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        }
    }

    /** A certificate of its own for 127.0.0.1, by openssl, and a trust in it. */
    private SSLContext certified() throws Exception {
        Process openssl = new ProcessBuilder(
                        "openssl",
                        "req",
                        "-x509",
                        "-newkey",
                        "rsa:2048",
                        "-nodes",
                        "-days",
                        "2",
                        "-subj",
                        "/CN=127.0.0.1",
                        "-addext",
                        "subjectAltName=IP:127.0.0.1",
                        "-keyout",
                        folder.resolve("key.pem").toString(),
                        "-out",
                        folder.resolve("cert.pem").toString())
                .redirectErrorStream(true)
                .start();
        openssl.getInputStream().readAllBytes();
        assertThat(openssl.waitFor()).isZero();
        var store = KeyStore.getInstance(KeyStore.getDefaultType());
        store.load(null, null);
        try (var in = Files.newInputStream(folder.resolve("cert.pem"))) {
            store.setCertificateEntry(
                    "own", CertificateFactory.getInstance("X.509").generateCertificate(in));
        }
        var trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        trust.init(store);
        var context = SSLContext.getInstance("TLS");
        context.init(null, trust.getTrustManagers(), null);
        return context;
    }

    @Test
    void withACertificateAllIsEncryptedAndCookiesStaySo() throws Exception {
        SSLContext trust = certified();
        BrowserIT.emptyDatabase();
        int port = freePort();
        try (var server = new ServerProcess(
                        folder.resolve("home"),
                        port,
                        "--server.ssl.certificate=file:" + folder.resolve("cert.pem"),
                        "--server.ssl.certificate-private-key=file:" + folder.resolve("key.pem"))
                .quick()) {
            String link = server.start();
            assertThat(link).startsWith("https://127.0.0.1:" + port);
            var visitor = new Visitor(trust);
            visitor.enter(link);
            assertThat(visitor.get("/api/clips").statusCode()).isEqualTo(200);
            assertThat(visitor.cookies().getCookieStore().getCookies())
                    .isNotEmpty()
                    .allMatch(java.net.HttpCookie::getSecure);
            var plain = new Visitor();
            assertThat(plainStatus(port)).isNotEqualTo(200);
            assertThatThrownBy(() -> plain.enter(link)).isInstanceOf(UncheckedIOException.class);
        }
    }

    private static int plainStatus(int port) {
        try {
            return HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/api/session"))
                                    .build(),
                            HttpResponse.BodyHandlers.discarding())
                    .statusCode();
        } catch (IOException e) {
            return 0;
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Only the named proxy's word counts, and only the given names are answered. */
    @Test
    void behindAProxyItsWordCountsAndNobodyElses() throws Exception {
        BrowserIT.emptyDatabase();
        int port = freePort();
        try (var server = new ServerProcess(
                        folder.resolve("home"),
                        port,
                        "--server.forward-headers-strategy=native",
                        "--server.tomcat.remoteip.internal-proxies=^(127\\.0\\.0\\.1)$",
                        "--awlsmith.hosts=archive.example")
                .quick()) {
            server.start();
            var headers = Map.of("X-Forwarded-Proto", "https", "X-Forwarded-For", "192.0.2.7");
            assertThat(raw(port, "archive.example", headers)).contains(" 200 ").contains("Secure");
            assertThat(raw(port, "archive.example", Map.of())).contains(" 200 ").doesNotContain("Secure");
            assertThat(raw(port, "elsewhere.example", headers)).contains(" 421 ");
        }
        BrowserIT.emptyDatabase();
        int other = freePort();
        try (var server = new ServerProcess(
                        folder.resolve("other"),
                        other,
                        "--server.forward-headers-strategy=native",
                        "--server.tomcat.remoteip.internal-proxies=^(10\\.0\\.0\\.5)$")
                .quick()) {
            server.start();
            assertThat(raw(other, "127.0.0.1", Map.of("X-Forwarded-Proto", "https")))
                    .doesNotContain("Secure");
        }
    }

    /** HTTP by hand, as a client of Java's does not let a host be named. */
    private static String raw(int port, String host, Map<String, String> headers) throws IOException {
        try (var socket = new java.net.Socket("127.0.0.1", port)) {
            var request = new StringBuilder("GET /api/session HTTP/1.1\r\nHost: " + host + "\r\nConnection: close\r\n");
            headers.forEach((name, value) ->
                    request.append(name).append(": ").append(value).append("\r\n"));
            socket.getOutputStream()
                    .write(request.append("\r\n").toString().getBytes(java.nio.charset.StandardCharsets.US_ASCII));
            return new String(socket.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        }
    }
}
