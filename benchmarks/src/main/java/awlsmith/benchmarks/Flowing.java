package awlsmith.benchmarks;

import awlsmith.core.motion.Flow;
import awlsmith.core.motion.FlowFinder;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.FreePlaces;
import awlsmith.footage.PackageCache;
import awlsmith.footage.Pictures;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.Executors;

/** How far off found motion is where the motion is known, beside OpenCV's DIS (Kroeger et al. 2016) on the same pictures. */
public final class Flowing {
    private static final int WIDTH = 640;
    private static final int HEIGHT = 360;
    private static final int THREADS = 2;
    private static final int RUNS = 5;
    private static final int EDGE = 8;
    /** Deviation of the noise laid on, of 255. */
    private static final double NOISE = 1.5;

    private static final List<String> PRESETS = List.of("ultrafast", "fast", "medium");

    private final List<String> report = new ArrayList<>();
    private final Path folder;

    private Flowing(Path folder) {
        this.folder = folder;
    }

    /**
     * What moves: the whole by a shift, a turn about the middle and a zoom, and before it a disc that goes its own way.
     *
     * @param disc radius in heights, 0 for none
     */
    record Scene(
            String name, double x, double y, double degrees, double zoom, double disc, double discX, double discY) {}

    private static final List<Scene> SCENES = List.of(
            new Scene("slow pan", 2.3, 0.6, 0, 1, 0, 0, 0),
            new Scene("quick pan", 17.4, -4.2, 0, 1, 0, 0, 0),
            new Scene("turn and zoom", 1.2, 0.8, 1.5, 1.015, 0, 0, 0),
            new Scene("something passes", 1.4, 0.3, 0, 1, 0.28, 7.6, -2.1),
            new Scene("something passes quickly", 3.1, 1.2, 0, 1, 0.22, -22.3, 5.4),
            new Scene("camera turns, something small passes", 2.2, -1.1, 0.8, 1, 0.09, 6.3, 3.2));

    /** Two pictures, where each sample of the first lies in the second, and which of them are seen in both. */
    private record Pair(Plane first, Plane second, float[] u, float[] v, boolean[] seen) {}

    /** Arguments: the report's file, a folder to keep fetched packages in. */
    public static void main(String[] arguments) throws IOException {
        Path folder = Files.createTempDirectory("awlsmith-motion");
        var flowing = new Flowing(folder);
        var packages = new PackageCache(Path.of(arguments[1]));
        var pictures = new ArrayList<Plane>();
        for (String name : List.of("aloeL.jpg", "fruits.jpg", "home.jpg", "butterfly.jpg")) {
            pictures.add(Pictures.luma(packages.file("opencv-doc", "opencv-doc/examples/data/" + name)));
        }
        flowing.report(pictures);
        Files.writeString(Path.of(arguments[0]), String.join("\n", flowing.report) + "\n");
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                Files.delete(file);
            }
        }
        Files.delete(folder);
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private void report(List<Plane> pictures) throws IOException {
        say("# Motion");
        say("");
        say(
                "Made by `./awlsmith measure --motion` (it wants Debian's python3-opencv); do not edit. Pictures of opencv-doc moved in a known way, "
                        + WIDTH + "x"
                        + HEIGHT + ", eight bits, noise of " + NOISE
                        + ", two pairs each of four. End-point error in samples, mean over what both pictures show; and per cent of it that is off by more than one."
                        + " Milliseconds a pair, the best of " + RUNS + " runs, on " + THREADS + " threads.");
        say("");
        say(
                "| motion | dis, ultrafast | dis, fast | dis, medium | ours | off by one: ultrafast | fast | medium | ours |");
        say("|---|---|---|---|---|---|---|---|---|");
        double[] times = new double[PRESETS.size() + 1];
        for (Scene scene : SCENES) {
            List<Pair> pairs = new ArrayList<>();
            for (int n = 0; n < pictures.size(); n++) {
                for (int side = -1; side <= 1; side += 2) {
                    pairs.add(pair(scene, pictures.get(n), pictures.get((n + 1) % pictures.size()), side, n));
                }
            }
            double[][] scores = new double[times.length][];
            for (int k = 0; k < PRESETS.size(); k++) {
                var spent = new double[1];
                scores[k] = scores(pairs, dis(pairs, PRESETS.get(k), spent));
                times[k] += spent[0] / SCENES.size();
            }
            var timed = new double[1];
            scores[PRESETS.size()] = scores(pairs, ours(pairs, timed));
            times[PRESETS.size()] += timed[0] / SCENES.size();
            var line = new StringBuilder("| " + scene.name());
            for (double[] score : scores) {
                line.append(Figures.text(" | %.2f", score[0]));
            }
            for (double[] score : scores) {
                line.append(Figures.text(" | %.1f", score[1]));
            }
            say(line + " |");
        }
        say(Figures.text(
                "| milliseconds a pair | %.1f | %.1f | %.1f | %.1f | | | | |", times[0], times[1], times[2], times[3]));
        Unsmearing.report(pictures).forEach(this::say);
    }

    /** Scenes whose blur is taken out: these, and one that stands but for what passes. */
    static List<Scene> scenes() {
        var all = new ArrayList<Scene>(SCENES);
        all.add(new Scene("something passes before what stands", 0, 0, 0, 1, 0.28, 9.2, -3.1));
        return all;
    }

    private static double discX(Scene scene, int number, double time) {
        return WIDTH * 0.45 + 11 * number + time * scene.discX();
    }

    private static double discY(Scene scene, int number, double time) {
        return HEIGHT * 0.5 - 7 * number + time * scene.discY();
    }

    /** What is seen at a moment, frames from the middle one. */
    static Plane seen(Scene scene, Plane far, Plane near, int number, double time) {
        Plane out = Plane.of(WIDTH, HEIGHT);
        double angle = Math.toRadians(scene.degrees()) * time;
        double zoom = Math.pow(scene.zoom(), time);
        double cos = Math.cos(angle) / zoom;
        double sin = Math.sin(angle) / zoom;
        double radius = scene.disc() * HEIGHT;
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                double qx = x - WIDTH / 2.0 - time * scene.x();
                double qy = y - HEIGHT / 2.0 - time * scene.y();
                boolean onDisc = Math.hypot(x - discX(scene, number, time), y - discY(scene, number, time)) < radius;
                out.set(
                        x,
                        y,
                        onDisc
                                ? light(near, x - time * scene.discX(), y - time * scene.discY())
                                : light(far, cos * qx + sin * qy + WIDTH / 2.0, cos * qy - sin * qx + HEIGHT / 2.0));
            }
        }
        return out;
    }

    /** The mean of moments while a shutter is open for half the time, rounded to eight bits and noisy. */
    static Plane smeared(
            Scene scene, Plane far, Plane near, int number, int time, int moments, SplittableRandom random) {
        Plane sum = Plane.of(WIDTH, HEIGHT);
        for (int k = 0; k < moments; k++) {
            Plane one = seen(scene, far, near, number, time + ((k + 0.5) / moments - 0.5) / 2);
            for (int i = 0; i < sum.data().length; i++) {
                sum.data()[i] += one.data()[i] / moments;
            }
        }
        for (int i = 0; i < sum.data().length; i++) {
            sum.data()[i] = coded(sum.data()[i], random);
        }
        return sum;
    }

    /** Samples that go two samples and more a frame, without an edge; what is half disc and half not counts with what passes. */
    static boolean[] moving(Scene scene, int number, int edge) {
        boolean[] moves = new boolean[WIDTH * HEIGHT];
        double pan = Math.hypot(scene.x(), scene.y());
        double turn = Math.hypot(Math.toRadians(scene.degrees()), scene.zoom() - 1);
        for (int y = edge; y < HEIGHT - edge; y++) {
            for (int x = edge; x < WIDTH - edge; x++) {
                double from = Math.hypot(x - discX(scene, number, 0), y - discY(scene, number, 0));
                double goes = from < scene.disc() * HEIGHT + 4 && scene.disc() > 0
                        ? Math.hypot(scene.discX(), scene.discY())
                        : pan + turn * Math.hypot(x - WIDTH / 2.0, y - HEIGHT / 2.0);
                moves[y * WIDTH + x] = goes >= 2;
            }
        }
        return moves;
    }

    /** Samples that stand, well away from what passes. */
    static boolean[] standing(Scene scene, int number) {
        boolean[] stands = new boolean[WIDTH * HEIGHT];
        boolean camera = scene.x() != 0 || scene.y() != 0 || scene.degrees() != 0 || scene.zoom() != 1;
        for (int i = 0; i < stands.length && !camera; i++) {
            double from = Math.hypot(i % WIDTH - discX(scene, number, 0), i / WIDTH - discY(scene, number, 0));
            stands[i] = from > scene.disc() * HEIGHT + 60;
        }
        return stands;
    }

    private static Pair pair(Scene scene, Plane far, Plane near, int side, int number) {
        double angle = Math.toRadians(side * scene.degrees());
        double zoom = side > 0 ? scene.zoom() : 1 / scene.zoom();
        double cos = zoom * Math.cos(angle);
        double sin = zoom * Math.sin(angle);
        double shiftX = side * scene.x();
        double shiftY = side * scene.y();
        double radius = scene.disc() * HEIGHT;
        double discX = WIDTH * 0.45 + 11 * number;
        double discY = HEIGHT * 0.5 - 7 * number;
        double goesX = side * scene.discX();
        double goesY = side * scene.discY();
        var random = new SplittableRandom(31L * number + side);
        Plane first = Plane.of(WIDTH, HEIGHT);
        Plane second = Plane.of(WIDTH, HEIGHT);
        float[] u = new float[WIDTH * HEIGHT];
        float[] v = new float[u.length];
        boolean[] seen = new boolean[u.length];
        for (int y = 0; y < HEIGHT; y++) {
            for (int x = 0; x < WIDTH; x++) {
                int at = y * WIDTH + x;
                boolean onDisc = Math.hypot(x - discX, y - discY) < radius;
                double px = x - WIDTH / 2.0;
                double py = y - HEIGHT / 2.0;
                double toX = onDisc ? x + goesX : cos * px - sin * py + shiftX + WIDTH / 2.0;
                double toY = onDisc ? y + goesY : sin * px + cos * py + shiftY + HEIGHT / 2.0;
                u[at] = (float) (toX - x);
                v[at] = (float) (toY - y);
                boolean hidden = !onDisc && Math.hypot(toX - discX - goesX, toY - discY - goesY) < radius + 1;
                seen[at] = !hidden && toX >= EDGE && toY >= EDGE && toX < WIDTH - EDGE && toY < HEIGHT - EDGE;
                first.set(x, y, coded(onDisc ? light(near, x, y) : light(far, x, y), random));
                // where the second's sample was in the first
                boolean discThen = Math.hypot(x - discX - goesX, y - discY - goesY) < radius;
                double qx = px - shiftX;
                double qy = py - shiftY;
                double back = cos * cos + sin * sin;
                second.set(
                        x,
                        y,
                        coded(
                                discThen
                                        ? light(near, x - goesX, y - goesY)
                                        : light(
                                                far,
                                                (cos * qx + sin * qy) / back + WIDTH / 2.0,
                                                (cos * qy - sin * qx) / back + HEIGHT / 2.0),
                                random));
            }
        }
        return new Pair(first, second, u, v, seen);
    }

    /** The picture's middle, made to fill the frame and some more, so that it may move. */
    private static float light(Plane picture, double x, double y) {
        double scale = Math.min((picture.width() - 8) / (WIDTH + 60.0), (picture.height() - 8) / (HEIGHT + 60.0));
        return FreePlaces.at(
                picture,
                0,
                0,
                picture.width() / 2.0 + scale * (x - WIDTH / 2.0),
                picture.height() / 2.0 + scale * (y - HEIGHT / 2.0));
    }

    private static float coded(float light, SplittableRandom random) {
        return Math.clamp(Math.round(255 * light + NOISE * random.nextGaussian()), 0, 255) / 255f;
    }

    private List<Flow> ours(List<Pair> pairs, double[] timed) {
        var flows = new ArrayList<Flow>();
        try (var threads = Executors.newFixedThreadPool(THREADS)) {
            var work = new Work(threads, THREADS, new Cancel());
            for (Pair pair : pairs) {
                double best = Double.MAX_VALUE;
                Flow flow = null;
                for (int run = 0; run < RUNS; run++) {
                    long begun = System.nanoTime();
                    flow = FlowFinder.find(pair.first(), pair.second(), work);
                    best = Math.min(best, (System.nanoTime() - begun) / 1e6);
                }
                flows.add(flow);
                timed[0] += best / pairs.size();
            }
        }
        return flows;
    }

    private List<Flow> dis(List<Pair> pairs, String preset, double[] timed) throws IOException {
        Path script = folder.resolve("opencv_dis.py");
        try (InputStream in = Flowing.class.getResourceAsStream("opencv_dis.py")) {
            Files.write(script, in.readAllBytes());
        }
        Path in = folder.resolve("pairs.raw");
        Path out = folder.resolve("flows.raw");
        var all = ByteBuffer.allocate(2 * pairs.size() * WIDTH * HEIGHT);
        for (Pair pair : pairs) {
            for (Plane plane : List.of(pair.first(), pair.second())) {
                for (float light : plane.packed()) {
                    all.put((byte) Math.round(255 * light));
                }
            }
        }
        Files.write(in, all.array());
        timed[0] = Double.parseDouble(Command.run(List.of(
                        "/usr/bin/python3",
                        script.toString(),
                        in.toString(),
                        String.valueOf(WIDTH),
                        String.valueOf(HEIGHT),
                        preset,
                        String.valueOf(THREADS),
                        out.toString()))
                .trim());
        FloatBuffer floats = ByteBuffer.wrap(Files.readAllBytes(out))
                .order(ByteOrder.LITTLE_ENDIAN)
                .asFloatBuffer();
        var flows = new ArrayList<Flow>();
        for (int n = 0; n < pairs.size(); n++) {
            Plane u = Plane.of(WIDTH, HEIGHT);
            Plane v = Plane.of(WIDTH, HEIGHT);
            for (int y = 0; y < HEIGHT; y++) {
                for (int x = 0; x < WIDTH; x++) {
                    u.set(x, y, floats.get());
                    v.set(x, y, floats.get());
                }
            }
            flows.add(new Flow(u, v));
        }
        return flows;
    }

    /** Mean error, and per cent that is off by more than a sample. */
    private static double[] scores(List<Pair> pairs, List<Flow> flows) {
        double sum = 0;
        long off = 0;
        long count = 0;
        for (int n = 0; n < pairs.size(); n++) {
            Pair pair = pairs.get(n);
            for (int y = EDGE; y < HEIGHT - EDGE; y++) {
                for (int x = EDGE; x < WIDTH - EDGE; x++) {
                    int at = y * WIDTH + x;
                    if (pair.seen()[at]) {
                        double error = Math.hypot(
                                flows.get(n).u().at(x, y) - pair.u()[at],
                                flows.get(n).v().at(x, y) - pair.v()[at]);
                        sum += error;
                        off += error > 1 ? 1 : 0;
                        count++;
                    }
                }
            }
        }
        return new double[] {sum / count, 100.0 * off / count};
    }
}
