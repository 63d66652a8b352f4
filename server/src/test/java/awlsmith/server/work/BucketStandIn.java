package awlsmith.server.work;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * A stand-in for a store that speaks the S3 protocol, as far as sources want it: objects put whole or in pieces, asked for, fetched in ranges,
 * listed and deleted. Holds that every request carries a signature; not that it is right.
 */
public final class BucketStandIn implements AutoCloseable {
    private final HttpServer server;
    private final Map<String, byte[]> objects = new ConcurrentHashMap<>();
    private final Map<String, Map<Integer, byte[]>> uploads = new ConcurrentHashMap<>();
    private final AtomicInteger fetched = new AtomicInteger();
    private final AtomicInteger refused = new AtomicInteger();
    private final AtomicInteger pieces = new AtomicInteger();
    /** Whether it answers to everything that it is not well. */
    private volatile boolean isIll;

    public BucketStandIn() throws IOException {
        server = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
        server.createContext("/", this::answer);
        server.setExecutor(Executors.newVirtualThreadPerTaskExecutor());
        server.start();
    }

    public URI at() {
        return URI.create("http://127.0.0.1:" + server.getAddress().getPort());
    }

    /** Names and contents, the bucket's name before each. */
    public Map<String, byte[]> objects() {
        return objects;
    }

    public int fetched() {
        return fetched.get();
    }

    int refused() {
        return refused.get();
    }

    int pieces() {
        return pieces.get();
    }

    void fallIll(boolean is) {
        isIll = is;
    }

    private void answer(HttpExchange exchange) throws IOException {
        try (exchange) {
            byte[] body = exchange.getRequestBody().readAllBytes();
            String name = exchange.getRequestURI().getPath().substring(1);
            String query = String.valueOf(exchange.getRequestURI().getQuery());
            String signed = exchange.getRequestHeaders().getFirst("Authorization");
            boolean isSigned = signed != null && signed.startsWith("AWS4-HMAC-SHA256 Credential=")
                    || query.contains("X-Amz-Signature=");
            if (!isSigned || isIll) {
                refused.incrementAndGet();
                send(exchange, isIll ? 503 : 403, new byte[0]);
                return;
            }
            switch (exchange.getRequestMethod()) {
                case "PUT" -> put(exchange, name, query, body);
                case "POST" -> post(exchange, name, query);
                case "HEAD", "GET" -> get(exchange, name, query);
                case "DELETE" -> {
                    objects.remove(name);
                    exchange.sendResponseHeaders(204, -1);
                }
                default -> send(exchange, 405, new byte[0]);
            }
        }
    }

    private static String value(String query, String key) {
        for (String part : query.split("&")) {
            if (part.startsWith(key + "=")) {
                return part.substring(key.length() + 1);
            }
        }
        return "";
    }

    private void put(HttpExchange exchange, String name, String query, byte[] body) throws IOException {
        String upload = value(query, "uploadId");
        exchange.getResponseHeaders().set("ETag", "\"" + body.length + "\"");
        if (upload.isEmpty()) {
            objects.put(name, body);
        } else {
            pieces.incrementAndGet();
            uploads.get(upload).put(Integer.parseInt(value(query, "partNumber")), body);
        }
        send(exchange, 200, new byte[0]);
    }

    private void post(HttpExchange exchange, String name, String query) throws IOException {
        String upload = value(query, "uploadId");
        if (upload.isEmpty()) {
            String id = "upload-" + uploads.size();
            uploads.put(id, new TreeMap<>());
            xml(
                    exchange,
                    "<InitiateMultipartUploadResult><UploadId>" + id + "</UploadId></InitiateMultipartUploadResult>");
            return;
        }
        var whole = new ByteArrayOutputStream();
        uploads.remove(upload).values().forEach(whole::writeBytes);
        objects.put(name, whole.toByteArray());
        xml(exchange, "<CompleteMultipartUploadResult><ETag>\"1\"</ETag></CompleteMultipartUploadResult>");
    }

    private void get(HttpExchange exchange, String name, String query) throws IOException {
        if (query.contains("list-type=2")) {
            String bucket = name.replaceAll("/.*", "") + "/";
            var list = new StringBuilder("<ListBucketResult><IsTruncated>false</IsTruncated>");
            objects.keySet().stream()
                    .filter(key -> key.startsWith(bucket + value(query, "prefix")))
                    .forEach(key -> list.append("<Contents><Key>")
                            .append(key.substring(bucket.length()))
                            .append("</Key></Contents>"));
            xml(exchange, list.append("</ListBucketResult>").toString());
            return;
        }
        byte[] object = objects.get(name);
        if (object == null) {
            send(exchange, 404, new byte[0]);
            return;
        }
        if (exchange.getRequestMethod().equals("HEAD")) {
            exchange.getResponseHeaders().set("Content-Length", "" + object.length);
            exchange.sendResponseHeaders(200, -1);
            return;
        }
        fetched.incrementAndGet();
        String range = exchange.getRequestHeaders().getFirst("Range");
        int from = range == null ? 0 : Integer.parseInt(range.replaceAll("bytes=(\\d+)-", "$1"));
        send(exchange, from > 0 ? 206 : 200, java.util.Arrays.copyOfRange(object, from, object.length));
    }

    private static void xml(HttpExchange exchange, String text) throws IOException {
        exchange.getResponseHeaders().set("Content-Type", "application/xml");
        send(exchange, 200, text.getBytes(StandardCharsets.UTF_8));
    }

    private static void send(HttpExchange exchange, int status, byte[] body) throws IOException {
        exchange.sendResponseHeaders(status, body.length == 0 ? -1 : body.length);
        exchange.getResponseBody().write(body);
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
