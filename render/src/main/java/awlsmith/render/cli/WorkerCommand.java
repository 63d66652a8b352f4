package awlsmith.render.cli;

import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.SeekCheck;
import awlsmith.render.Engine;
import awlsmith.render.Folders;
import awlsmith.render.Machine;
import awlsmith.render.OneSegment;
import awlsmith.render.RenderWatch;
import awlsmith.render.SegmentOrder;
import awlsmith.render.SharedWork;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Makes parts of a server's renders on this machine: asks for one, fetches the source once, makes the part, brings it, and asks again. What is
 * broken off is made by another; a server that is away is waited for.
 */
final class WorkerCommand {
    static final String USAGE = """
            usage: awlsmith worker --server URL [--home FOLDER] [--media FOLDER] [--threads N] [--once]
            AWLSMITH_TOKEN=...   the machine's token, made on the server's page Dispatch
            --media FOLDER       where this machine sees the server's media folder, or linked footage: nothing is fetched
            --once               ends when there is nothing to do
            """;

    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String PART = "part-";
    private static final Duration PATIENCE = Duration.ofSeconds(30);
    private static final Duration LONG = Duration.ofHours(12);
    private static final int CONFLICT = 409;
    private static final int NOT_ALLOWED = 403;
    private static final long BEAT_SECONDS = 5;
    private static final long IDLE_MILLIS = 2000;
    private static final double SECOND = 1e9;
    private static final long AWAY_MILLIS = 5000;

    private final String server;
    private final String token;
    private final Path home;
    /** That both machines see. */
    private final Optional<Path> media;

    private final int threads;
    private final boolean once;
    private final PrintStream err;
    private final Cancel cancel;
    private final HttpClient http =
            HttpClient.newBuilder().connectTimeout(PATIENCE).build();
    /** Why it gets nothing just now, as it was told last. */
    private String waitsFor = "";
    /** The source that parts were made of last. */
    private Optional<Map.Entry<String, Clip>> known = Optional.empty();

    WorkerCommand(List<String> words, Map<String, String> environment, PrintStream err, Cancel cancel) {
        var given = new TreeMap<String, String>();
        boolean isOnce = false;
        for (int i = 0; i < words.size(); i++) {
            switch (words.get(i)) {
                case "--once" -> isOnce = true;
                case "--server", "--home", "--media", "--threads" -> {
                    if (i + 1 >= words.size()) {
                        throw new RenderOptions.Misuse(words.get(i) + " wants a value behind it\n" + USAGE);
                    }
                    given.put(words.get(i), words.get(++i));
                }
                default -> throw new RenderOptions.Misuse("there is no option " + words.get(i) + "\n" + USAGE);
            }
        }
        String url = given.getOrDefault("--server", "");
        if (!url.matches("https?://[^\\s]+")) {
            throw new RenderOptions.Misuse(
                    "worker wants --server with the server's address, http:// or https://\n" + USAGE);
        }
        server = url.replaceAll("/+$", "");
        token = environment.getOrDefault("AWLSMITH_TOKEN", "");
        if (token.isBlank()) {
            throw new RenderOptions.Misuse(
                    "AWLSMITH_TOKEN is not set: make a token on the server's page Dispatch\n" + USAGE);
        }
        home = Path.of(given.getOrDefault("--home", ".awlsmith-worker")).toAbsolutePath();
        media = Optional.ofNullable(given.get("--media"))
                .map(folder -> Path.of(folder).toAbsolutePath().normalize());
        media.filter(folder -> !Files.isDirectory(folder)).ifPresent(folder -> {
            throw new RenderOptions.Misuse("--media is " + folder + ", which is no folder here");
        });
        String count = given.getOrDefault(
                "--threads", Integer.toString(Runtime.getRuntime().availableProcessors()));
        if (!count.matches("[1-9][0-9]{0,2}")) {
            throw new RenderOptions.Misuse("--threads is '" + count + "', allowed is 1..256");
        }
        threads = Integer.parseInt(count);
        once = isOnce;
        this.err = err;
        this.cancel = cancel;
    }

    /** A part in hand. */
    private record Part(
            String lease, int number, String clip, long bytes, String name, String url, List<SegmentOrder> orders) {}

    int run() {
        try {
            Files.createDirectories(home);
        } catch (IOException e) {
            throw new MediaException("the folder " + home + " cannot be used: " + e.getMessage(), e);
        }
        // a channel that nobody refers to is closed by the collector, and its lock is gone with it
        try (FileChannel _ = own();
                Machine machine = Machine.of(threads)) {
            err.println("working for " + server + " on " + threads + " threads; Ctrl-C ends it, nothing is lost");
            while (true) {
                cancel.check();
                Optional<Part> part = ask();
                if (part.isPresent()) {
                    make(part.get(), machine);
                } else if (once) {
                    return Main.DONE;
                } else {
                    sleep(IDLE_MILLIS);
                }
            }
        } catch (IOException e) {
            throw new MediaException("the folder " + home + " cannot be used: " + e.getMessage(), e);
        }
    }

    /** Takes the folder for this process alone, as long as what it gives is open, and sweeps what a killed one left in it. */
    private FileChannel own() throws IOException {
        FileChannel file = FileChannel.open(home.resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        if (file.tryLock() == null) {
            file.close();
            throw new MediaException("another worker has the folder " + home + "; give this one its own with --home");
        }
        try (var left = Files.list(home)) {
            left.filter(one -> one.getFileName().toString().startsWith(PART)).forEach(WorkerCommand::sweep);
        }
        return file;
    }

    private Optional<Part> ask() {
        List<String> forms = Arrays.stream(NetForm.values())
                .filter(form -> form.isSameElsewhere() && Models.runs(form))
                .map(NetForm::name)
                .toList();
        String body = JSON.writeValueAsString(Map.of("engine", Engine.fingerprint(), "forms", forms));
        try {
            HttpResponse<String> answer = http.send(
                    to("/ask")
                            .header("Content-Type", "application/json")
                            .timeout(PATIENCE)
                            .POST(HttpRequest.BodyPublishers.ofString(body))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            if (answer.statusCode() == 204) {
                String why = answer.headers().firstValue(SharedWork.WHY).orElse("");
                if (!why.isEmpty() && !why.equals(waitsFor)) {
                    err.println(why);
                }
                waitsFor = why;
                return Optional.empty();
            }
            if (answer.statusCode() == NOT_ALLOWED || answer.statusCode() == CONFLICT) {
                throw new MediaException(sentence(answer.body()));
            }
            if (answer.statusCode() != 200) {
                away("the server answers with status " + answer.statusCode());
                return Optional.empty();
            }
            JsonNode told = JSON.readTree(answer.body());
            var orders = new ArrayList<SegmentOrder>();
            told.path("orders").forEach(order -> orders.add(SegmentOrder.fromJson(order.asString())));
            return Optional.of(new Part(
                    told.path("lease").asString(),
                    told.path("number").asInt(),
                    told.path("clip").asString(),
                    told.path("bytes").asLong(),
                    told.path("name").asString(""),
                    told.path("url").asString(""),
                    orders));
        } catch (IOException e) {
            away("the server does not answer (" + e.getMessage() + ")");
            return Optional.empty();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
    }

    private void make(Part part, Machine machine) {
        var mine = new Cancel();
        Path folder = home.resolve(PART + UUID.randomUUID());
        try (var beats = Executors.newSingleThreadScheduledExecutor(
                Thread.ofPlatform().daemon().name("beat").factory())) {
            beats.scheduleAtFixedRate(
                    () -> {
                        if (cancel.isAsked() || !post(part, "beat")) {
                            mine.ask();
                        }
                    },
                    BEAT_SECONDS,
                    BEAT_SECONDS,
                    TimeUnit.SECONDS);
            try {
                long asked = System.nanoTime();
                Clip clip = source(part);
                long fetched = System.nanoTime();
                List<Path> files = OneSegment.make(part.orders(), clip, folder, machine, RenderWatch.SILENT, mine);
                long made = System.nanoTime();
                bring(part, files);
                err.printf(
                        Locale.ROOT,
                        "part %d is brought: source %.1f s, made %.1f s, brought %.1f s%n",
                        part.number(),
                        (fetched - asked) / SECOND,
                        (made - fetched) / SECOND,
                        (System.nanoTime() - made) / SECOND);
            } catch (Cancel.Stopped e) {
                cancel.check();
                err.println("part " + part.number() + " is not wanted any more");
            } catch (MediaException e) {
                err.println("awlsmith: part " + part.number() + ": " + e.getMessage());
                post(part, "back");
                sleep(IDLE_MILLIS);
            } catch (IOException e) {
                away("part " + part.number() + " could not be made or brought (" + e.getMessage() + ")");
                post(part, "back");
            } finally {
                beats.shutdownNow();
            }
        } finally {
            sweep(folder);
        }
    }

    /** The file fetched, whole and the right one; what came of it before a line broke is not fetched again. */
    private Clip source(Part part) throws IOException {
        if (known.filter(entry -> entry.getKey().equals(part.clip())).isPresent()) {
            return known.get().getValue();
        }
        Optional<Clip> shared = shared(part);
        if (shared.isPresent()) {
            known = Optional.of(Map.entry(part.clip(), shared.get()));
            return shared.get();
        }
        Path file = home.resolve("source-" + UUID.fromString(part.clip()));
        forgetOthers(file);
        long there = Files.exists(file) ? Files.size(file) : 0;
        if (there > part.bytes()) {
            Files.delete(file);
            there = 0;
        }
        if (there < part.bytes() && !part.url().isEmpty()) {
            try {
                fetch(part, HttpRequest.newBuilder(URI.create(part.url())), file, there);
            } catch (IOException | IllegalArgumentException e) {
                err.println("the store does not give the source (" + e.getMessage() + "); it comes from the server");
            }
        }
        there = Files.exists(file) ? Files.size(file) : 0;
        if (there < part.bytes()) {
            fetch(part, to("/sources/" + part.clip()), file, there);
        }
        Optional<Clip> arrived = opened(part, file);
        if (arrived.isEmpty()) {
            Files.delete(file);
            throw new IOException("the source did not arrive as it is on the server");
        }
        Clip clip = arrived.get();
        known = Optional.of(Map.entry(part.clip(), clip));
        return clip;
    }

    /**
     * With what the server knows of its frames, so that nobody else has to read it from end to end; some are decoded and held against that.
     *
     * @throws MediaException when it is another file, or did not arrive as it is
     */
    private Clip read(Part part, Path file) throws IOException {
        MediaInfo info = Prober.probe(file);
        Path index = home.resolve("frames-" + UUID.fromString(part.clip()));
        try {
            HttpResponse<Path> answer = http.send(
                    to("/sources/" + part.clip() + "/frames")
                            .timeout(LONG)
                            .GET()
                            .build(),
                    HttpResponse.BodyHandlers.ofFile(index));
            if (answer.statusCode() == 200) {
                FrameIndex known = FrameIndex.load(index);
                return new Clip(info, Optional.of(SeekCheck.check(info, known, share -> {}, cancel)));
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        } catch (IOException e) {
            err.println("what the server knows of the source's frames did not arrive (" + e.getMessage()
                    + "); they are read here");
        } finally {
            Files.deleteIfExists(index);
        }
        return new Clip(info, Optional.of(Indexer.index(info, frames -> {}, cancel)));
    }

    private Optional<Clip> opened(Part part, Path file) throws IOException {
        try {
            return Optional.of(read(part, file)).filter(part.orders().getFirst()::isOf);
        } catch (MediaException e) {
            err.println(file.getFileName() + " cannot be used as the source: " + e.getMessage());
            return Optional.empty();
        }
    }

    /** The very file where both machines see it; empty where it is not there, or another. */
    private Optional<Clip> shared(Part part) throws IOException {
        if (media.isEmpty() || part.name().isEmpty()) {
            return Optional.empty();
        }
        Path file = media.get().resolve(part.name()).normalize();
        if (!file.startsWith(media.get()) || !Files.isRegularFile(file) || Files.size(file) != part.bytes()) {
            return Optional.empty();
        }
        return opened(part, file);
    }

    /** @param asking for it; @param from bytes that are there already */
    private void fetch(Part part, HttpRequest.Builder asking, Path file, long from) throws IOException {
        try {
            HttpRequest.Builder request = asking.timeout(LONG).GET();
            if (from > 0) {
                request.header("Range", "bytes=" + from + "-");
            }
            HttpResponse<InputStream> answer = http.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
            if (answer.statusCode() != 200 && answer.statusCode() != 206) {
                throw new IOException("the source is not there any more, status " + answer.statusCode());
            }
            boolean isRest = answer.statusCode() == 206;
            try (var in = answer.body();
                    var out = Files.newOutputStream(
                            file,
                            StandardOpenOption.CREATE,
                            isRest ? StandardOpenOption.APPEND : StandardOpenOption.TRUNCATE_EXISTING)) {
                in.transferTo(out);
            }
            if (Files.size(file) != part.bytes()) {
                throw new IOException(Files.size(file) + " of " + part.bytes() + " bytes of the source arrived");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
    }

    private void forgetOthers(Path file) throws IOException {
        try (var files = Files.list(home)) {
            for (Path other : files.filter(one -> one.getFileName().toString().startsWith("source-"))
                    .toList()) {
                if (!other.equals(file)) {
                    Files.delete(other);
                }
            }
        }
    }

    private void bring(Part part, List<Path> files) throws IOException {
        try {
            for (int n = 0; n < files.size(); n++) {
                HttpResponse<String> answer = http.send(
                        to("/" + part.lease() + "/" + n)
                                .header("Content-Type", "application/octet-stream")
                                .timeout(LONG)
                                .PUT(HttpRequest.BodyPublishers.ofFile(files.get(n)))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
                if (answer.statusCode() != 204) {
                    throw new MediaException(sentence(answer.body()));
                }
            }
            if (!post(part, "done")) {
                throw new MediaException("it is not wanted any more");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
    }

    /** Whether the server still wants it; what is not answered counts as yes, as it may only be away. */
    private boolean post(Part part, String word) {
        try {
            HttpResponse<String> answer = http.send(
                    to("/" + part.lease() + "/" + word)
                            .timeout(PATIENCE)
                            .POST(HttpRequest.BodyPublishers.noBody())
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            return answer.statusCode() != CONFLICT && answer.statusCode() != NOT_ALLOWED;
        } catch (IOException e) {
            return !word.equals("done");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    private HttpRequest.Builder to(String path) {
        return HttpRequest.newBuilder(URI.create(server + "/api/work" + path))
                .header("Authorization", "Bearer " + token);
    }

    private static String sentence(String body) {
        try {
            String detail = JSON.readTree(body).path("detail").asString("");
            return detail.isEmpty() ? "the server refuses it" : detail;
        } catch (RuntimeException e) {
            return "the server refuses it";
        }
    }

    private void away(String sentence) {
        err.println(sentence + "; trying again");
        sleep(AWAY_MILLIS);
    }

    private void sleep(long millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
        cancel.check();
    }

    private static void sweep(Path folder) {
        try {
            Folders.remove(folder);
        } catch (IOException e) {
            // it is swept at the next start
        }
    }
}
