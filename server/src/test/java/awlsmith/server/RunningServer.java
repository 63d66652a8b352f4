package awlsmith.server;

import awlsmith.media.TestClips;
import awlsmith.server.work.BucketStandIn;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ParameterContext;
import org.junit.jupiter.api.extension.ParameterResolver;
import org.springframework.boot.WebApplicationType;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The real application on a free port with the private database, started once for all tests; they talk HTTP to it. */
public final class RunningServer implements ParameterResolver {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static RunningServer shared;

    private final Path home;
    private ConfigurableApplicationContext context;
    private HttpClient http;
    private CookieManager cookies;
    private BucketStandIn store;

    /** For JUnit. */
    public RunningServer() {
        this(null);
    }

    private RunningServer(Path home) {
        this.home = home;
    }

    /** What came back. */
    public record Answer(int status, byte[] bytes) {
        public JsonNode json() {
            return JSON.readTree(bytes);
        }

        public String text() {
            return new String(bytes, StandardCharsets.UTF_8);
        }
    }

    @Override
    public boolean supportsParameter(ParameterContext parameter, ExtensionContext extension) {
        return parameter.getParameter().getType() == RunningServer.class;
    }

    @Override
    public Object resolveParameter(ParameterContext parameter, ExtensionContext extension) {
        return shared();
    }

    static synchronized RunningServer shared() {
        if (shared == null) {
            try {
                emptyDatabase();
                shared = new RunningServer(Files.createTempDirectory("awlsmith-test"));
                shared.start();
                Runtime.getRuntime().addShutdownHook(new Thread(shared::stop));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return shared;
    }

    private static void emptyDatabase() {
        try (Connection db = DriverManager.getConnection(
                        System.getenv("SPRING_DATASOURCE_URL"),
                        "awlsmith",
                        System.getenv("SPRING_DATASOURCE_PASSWORD"));
                var statement = db.createStatement()) {
            String name = db.getCatalog();
            statement.execute("drop database " + name);
            statement.execute("create database " + name + " character set utf8mb4 collate utf8mb4_unicode_ci");
        } catch (SQLException e) {
            throw new IllegalStateException("the test database cannot be emptied", e);
        }
    }

    /** Where other machines may fetch sources from. */
    public BucketStandIn store() {
        return store;
    }

    void start() {
        openStore();
        context = new SpringApplicationBuilder(AwlsmithServer.class)
                .web(WebApplicationType.SERVLET)
                .run(
                        "--server.port=0",
                        "--awlsmith.home=" + home,
                        "--awlsmith.largest-upload=8MB",
                        "--awlsmith.keep-free=10MB",
                        "--awlsmith.link-folders=" + home.resolve("allowed"),
                        "--awlsmith.watch-rest=1s",
                        "--awlsmith.segment-frames=10",
                        "--awlsmith.store.bucket=reels",
                        "--awlsmith.store.at=" + store.at(),
                        "--awlsmith.store.key=tests",
                        "--awlsmith.store.secret=nothing-to-guard");
        if (cookies == null) {
            cookies = new CookieManager();
            http = HttpClient.newBuilder()
                    .cookieHandler(cookies)
                    .connectTimeout(Duration.ofSeconds(5))
                    .build();
            signIn();
        }
    }

    private void openStore() {
        try {
            store = store == null ? new BucketStandIn() : store;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    void stop() {
        context.close();
    }

    /** Closes the application in whatever it does and starts it anew on the same data. */
    public void restart() {
        stop();
        start();
    }

    public int port() {
        return ((ServletWebServerApplicationContext) context).getWebServer().getPort();
    }

    public <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    public Path home() {
        return home;
    }

    private void signIn() {
        get("/enter?token=" + token());
        get("/api/session");
    }

    /** The token of the link printed at start. */
    public String token() {
        try {
            var type = Class.forName("awlsmith.server.signin.SignInLink");
            var method = type.getDeclaredMethod("token");
            method.setAccessible(true);
            return (String) method.invoke(context.getBean(type));
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    public Answer get(String path) {
        return send(request(path).GET());
    }

    public Answer post(String path, String json) {
        return send(request(path)
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(json)));
    }

    public Answer put(String path, String json) {
        return send(request(path)
                .header("Content-Type", "application/json")
                .PUT(HttpRequest.BodyPublishers.ofString(json)));
    }

    public Answer delete(String path) {
        return send(request(path).DELETE());
    }

    public Answer upload(String name, byte[] bytes) {
        return send(request("/api/clips?name=" + URLEncoder.encode(name, StandardCharsets.UTF_8))
                .header("Content-Type", "application/octet-stream")
                .POST(HttpRequest.BodyPublishers.ofByteArray(bytes)));
    }

    public HttpRequest.Builder request(String path) {
        String token = cookies.getCookieStore().getCookies().stream()
                .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                .map(HttpCookie::getValue)
                .findFirst()
                .orElse("");
        return HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port() + path))
                .timeout(Duration.ofSeconds(60))
                .header("X-XSRF-TOKEN", token);
    }

    public Answer send(HttpRequest.Builder request) {
        try {
            var response = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
            return new Answer(response.statusCode(), response.body());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    public HttpClient http() {
        return http;
    }

    /** Somebody with a cookie jar of their own, signed in nowhere. */
    public Guest guest() {
        return new Guest();
    }

    /** Another person, by password. */
    public final class Guest {
        private final CookieManager jar = new CookieManager();
        private final HttpClient client =
                HttpClient.newBuilder().cookieHandler(jar).build();

        private HttpRequest.Builder to(String path) {
            String token = jar.getCookieStore().getCookies().stream()
                    .filter(cookie -> cookie.getName().equals("XSRF-TOKEN"))
                    .map(HttpCookie::getValue)
                    .findFirst()
                    .orElse("");
            return HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port() + path))
                    .header("X-XSRF-TOKEN", token);
        }

        private int status(HttpRequest.Builder request) throws IOException, InterruptedException {
            return client.send(request.build(), HttpResponse.BodyHandlers.discarding())
                    .statusCode();
        }

        public int get(String path) throws IOException, InterruptedException {
            return status(to(path).GET());
        }

        public int signIn(String password) throws IOException, InterruptedException {
            // the token of the page comes first
            get("/api/session");
            int status = status(to("/api/session")
                    .header("Content-Type", "application/json")
                    .POST(HttpRequest.BodyPublishers.ofString("{\"password\":\"" + password + "\"}")));
            get("/api/session");
            return status;
        }

        public int signOut() throws IOException, InterruptedException {
            return status(to("/api/session").DELETE());
        }

        /** The status of a stream, told when it has ended; returns once it has begun. */
        public java.util.concurrent.CompletableFuture<Integer> stream(String path) throws InterruptedException {
            var begun = new java.util.concurrent.CountDownLatch(1);
            var ended = client.sendAsync(to(path).GET().build(), HttpResponse.BodyHandlers.ofInputStream())
                    .thenApplyAsync(answer -> {
                        try (var body = answer.body()) {
                            body.read();
                            begun.countDown();
                            body.readAllBytes();
                            return answer.statusCode();
                        } catch (IOException e) {
                            throw new UncheckedIOException(e);
                        }
                    });
            begun.await();
            return ended;
        }
    }

    /** Asks again until the answer is as wished, for at most five minutes: a limit against what hangs, however slow the machine. */
    public JsonNode until(String path, Predicate<JsonNode> wish) {
        return until(path, () -> get(path).json(), wish);
    }

    /** The same of a question that is posted. */
    public JsonNode untilPosted(String path, String body, Predicate<JsonNode> wish) {
        return until(path, () -> post(path, body).json(), wish);
    }

    private static JsonNode until(String path, Supplier<JsonNode> ask, Predicate<JsonNode> wish) {
        Instant end = Instant.now().plusSeconds(300);
        JsonNode last = null;
        while (Instant.now().isBefore(end)) {
            last = ask.get();
            if (wish.test(last)) {
                return last;
            }
            java.util.concurrent.locks.LockSupport.parkNanos(30_000_000);
        }
        throw new AssertionError(path + " did not become as wished; last: " + last);
    }

    /** Takes in a file and waits until it is read. */
    public JsonNode uploaded(String name, byte[] bytes) {
        JsonNode added = upload(name, bytes).json();
        return until(
                "/api/clips/" + added.path("id").asString(),
                c -> !c.path("state").asString().equals("READING"));
    }

    /** Takes in a moving test picture and waits until it is read. */
    public JsonNode clip(String name, int width, int height, int frames) {
        try {
            Path folder = Files.createTempDirectory(home, "made");
            Path file = folder.resolve("clip.mp4");
            TestClips.ffmpeg(
                    ("-f lavfi -i testsrc2=s=%dx%d:r=25 -f lavfi -i sine=r=48000 -frames:v %d -t %s -pix_fmt yuv420p "
                                    + "-c:v libx264 -preset ultrafast -c:a aac %s")
                            .formatted(width, height, frames, frames / 25.0, file));
            return uploaded(name, Files.readAllBytes(file));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
