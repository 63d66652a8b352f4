package awlsmith.e2e;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Predicate;
import java.util.stream.StreamSupport;
import javax.net.ssl.SSLContext;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Somebody signed in who asks by HTTP, without a browser. */
final class Visitor {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final CookieManager cookies = new CookieManager();
    private final HttpClient http;
    private String base;

    Visitor() {
        this(null);
    }

    /** @param trust of certificates; null for the machine's own */
    Visitor(SSLContext trust) {
        var builder = HttpClient.newBuilder().cookieHandler(cookies).connectTimeout(Duration.ofSeconds(5));
        http = (trust == null ? builder : builder.sslContext(trust)).build();
    }

    /** Follows the link that the server printed. */
    void enter(String link) {
        base = link.substring(0, link.indexOf("/enter"));
        get(link.substring(base.length()));
        get("/api/session");
    }

    /** Goes on at a server that was started anew; the session is still good. */
    void comeBack(String link) {
        base = link.substring(0, link.indexOf("/enter"));
    }

    CookieManager cookies() {
        return cookies;
    }

    HttpResponse<byte[]> get(String path) {
        return send(to(path).GET());
    }

    JsonNode json(String path) {
        return JSON.readTree(get(path).body());
    }

    JsonNode post(String path, String body) {
        return JSON.readTree(send(to(path).header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString(body)))
                .body());
    }

    /** Those of a list's rows that have one of these ids. */
    static List<JsonNode> among(JsonNode all, List<String> ids) {
        return StreamSupport.stream(all.spliterator(), false)
                .filter(one -> ids.contains(one.path("id").asString()))
                .toList();
    }

    JsonNode put(String path, String body) {
        return JSON.readTree(
                send(to(path).header("Content-Type", "application/json").PUT(HttpRequest.BodyPublishers.ofString(body)))
                        .body());
    }

    HttpResponse<byte[]> upload(Path file) {
        try {
            return send(to("/api/clips?name=" + file.getFileName())
                    .header("Content-Type", "application/octet-stream")
                    .POST(HttpRequest.BodyPublishers.ofByteArray(Files.readAllBytes(file))));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    JsonNode uploaded(Path file) {
        return JSON.readTree(upload(file).body());
    }

    private HttpRequest.Builder to(String path) {
        String token = cookies.getCookieStore().getCookies().stream()
                .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
        return HttpRequest.newBuilder(URI.create(base + path))
                .timeout(Duration.ofSeconds(60))
                .header("X-XSRF-TOKEN", token);
    }

    private HttpResponse<byte[]> send(HttpRequest.Builder request) {
        try {
            return http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** Asks again until the answer is as wished, for at most three minutes. */
    JsonNode until(String path, Predicate<JsonNode> wish) {
        Instant end = Instant.now().plusSeconds(300);
        String last = "";
        while (Instant.now().isBefore(end)) {
            try {
                var answer = get(path);
                last = new String(answer.body(), java.nio.charset.StandardCharsets.UTF_8);
                JsonNode tree = answer.statusCode() == 200 ? JSON.readTree(last) : null;
                if (tree != null && wish.test(tree)) {
                    return tree;
                }
            } catch (UncheckedIOException e) {
                last = e.getMessage();
            }
            LockSupport.parkNanos(20_000_000);
        }
        throw new AssertionError(path + " did not become as wished; last: " + last);
    }
}
