package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import java.io.BufferedReader;
import java.io.FilterInputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * One FFmpeg or ffprobe process. It gets no shell, bounds on memory, processor time, files and time, and no rights beyond reading where
 * this program runs as root; its last lines of standard error are kept for messages; it dies when closed, when the task is cancelled by
 * closing it, and when this program dies.
 */
final class Child implements AutoCloseable {
    private static final System.Logger LOG = System.getLogger(Child.class.getName());

    /** What is found by these names: programs, libraries, and drivers of graphics hardware (libva). */
    private static final Set<String> KEPT =
            Set.of("PATH", "LD_LIBRARY_PATH", "LIBVA_DRIVER_NAME", "LIBVA_DRIVERS_PATH");

    /** Address space a child may take; FFmpeg's threads reserve far more than they touch. */
    private static final long MEMORY_BYTES = 12L << 30;

    private static final int OPEN_FILES = 256;
    private static final int KEPT_LINES = 60;
    private static final int LONGEST_LINE = 400;
    private static final long LONGEST_LAST_WORDS_MILLIS = 60_000;

    /**
     * The kernel sends the death signal when the thread that started the child ends, so all children are started from
     * one thread that lives as long as the program.
     */
    private static final ExecutorService STARTER = Executors.newSingleThreadExecutor(
            Thread.ofPlatform().name("process-starter").daemon().factory());

    /** Looks at all children's bounds of time. */
    private static final ScheduledExecutorService WATCH = Executors.newSingleThreadScheduledExecutor(
            Thread.ofPlatform().name("process-watch").daemon().factory());

    private final Process process;
    private final String name;
    private final Deque<String> lastLines = new ArrayDeque<>();
    private final Thread errorReader;
    private final ScheduledFuture<?> watch;
    private final InputStream output;
    private final OutputStream input;
    private final long begun = System.nanoTime();
    /** When somebody began to wait for output, or for input to be taken; 0 while nobody does. */
    private volatile long waitingSince;

    private volatile boolean late;
    private volatile boolean closed;

    private Child(String name, Process process, Limits limits, Consumer<String> lines) {
        this.name = name;
        this.process = process;
        this.output = new Waited(process.getInputStream());
        this.input = new Taken(process.getOutputStream());
        this.errorReader = Thread.ofVirtual().name(name + "-stderr").start(() -> readErrors(lines));
        this.watch = WATCH.scheduleWithFixedDelay(() -> look(limits), 500, 500, TimeUnit.MILLISECONDS);
    }

    private void look(Limits limits) {
        long now = System.nanoTime();
        long waits = waitingSince;
        boolean tooLong =
                limits.wall().filter(wall -> now - begun > wall.toNanos()).isPresent();
        boolean silent = waits != 0
                && limits.silence().filter(most -> now - waits > most.toNanos()).isPresent();
        if ((tooLong || silent) && process.isAlive()) {
            late = true;
            process.destroyForcibly();
        }
    }

    /** Notes while somebody waits for output. */
    private final class Waited extends FilterInputStream {
        Waited(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            waitingSince = System.nanoTime();
            try {
                return in.read();
            } finally {
                waitingSince = 0;
            }
        }

        @Override
        public int read(byte[] bytes, int from, int length) throws IOException {
            waitingSince = System.nanoTime();
            try {
                return in.read(bytes, from, length);
            } finally {
                waitingSince = 0;
            }
        }
    }

    /** Notes while somebody waits for input to be taken. */
    private final class Taken extends FilterOutputStream {
        Taken(OutputStream to) {
            super(to);
        }

        @Override
        public void write(byte[] bytes, int from, int length) throws IOException {
            waitingSince = System.nanoTime();
            try {
                out.write(bytes, from, length);
            } finally {
                waitingSince = 0;
            }
        }
    }

    /**
     * @param arguments of the tool, each passed as it is
     * @param lines sees every line of standard error, on another thread
     */
    static Child start(Tool tool, List<String> arguments, Limits limits, Consumer<String> lines) {
        var command = new ArrayList<String>(Rights.before(limits));
        command.add("prlimit");
        if (!limits.mapsDevices()) {
            command.add("--as=" + MEMORY_BYTES);
        }
        command.add("--core=0");
        command.add("--nofile=" + OPEN_FILES);
        command.add("--fsize=" + limits.fileBytes());
        if (limits.cpuSeconds() != Long.MAX_VALUE) {
            command.add("--cpu=" + limits.cpuSeconds());
        }
        command.add(tool.program());
        command.addAll(arguments);
        try {
            var builder = new ProcessBuilder(command);
            builder.environment().keySet().removeIf(key -> !KEPT.contains(key));
            builder.environment().put("LC_ALL", "C");
            limits.writes()
                    .filter(java.nio.file.Files::isDirectory)
                    .ifPresent(folder -> builder.directory(folder.toFile()));
            // no coloured messages, no report files
            builder.environment().put("AV_LOG_FORCE_NOCOLOR", "1");
            Process process =
                    CompletableFuture.supplyAsync(() -> begin(builder), STARTER).join();
            return new Child(tool.program(), process, limits, lines);
        } catch (java.util.concurrent.CompletionException e) {
            throw new MediaException(
                    tool.program() + " could not be started; install Debian's packages ffmpeg and util-linux",
                    e.getCause());
        }
    }

    private static Process begin(ProcessBuilder builder) {
        try {
            return builder.start();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private void readErrors(Consumer<String> lines) {
        try (var reader = new BufferedReader(new InputStreamReader(process.getErrorStream(), StandardCharsets.UTF_8))) {
            for (String line = reader.readLine(); line != null; line = reader.readLine()) {
                if (line.contains("[error]") || line.contains("[fatal]") || line.contains("[panic]")) {
                    keep(line);
                }
                lines.accept(line);
            }
        } catch (IOException e) {
            // the process was killed while its stream was read; its exit code tells the rest
        }
    }

    private void keep(String line) {
        synchronized (lastLines) {
            if (lastLines.size() == KEPT_LINES) {
                lastLines.removeFirst();
            }
            lastLines.addLast(line.length() > LONGEST_LINE ? line.substring(0, LONGEST_LINE) : line);
        }
    }

    InputStream output() {
        return output;
    }

    OutputStream input() {
        return input;
    }

    long pid() {
        return process.pid();
    }

    boolean isAlive() {
        return process.isAlive();
    }

    /** Waits for the end; throws with the tool's own last words unless it ended well. */
    void finish(String doing, Cancel cancel) {
        int code = exit(cancel);
        if (code != 0) {
            throw failure(doing, code);
        }
    }

    /** Waits for the end and returns the exit code. */
    int exit(Cancel cancel) {
        try {
            while (!process.waitFor(100, TimeUnit.MILLISECONDS)) {
                if (cancel.isAsked()) {
                    close();
                    cancel.check();
                }
            }
            // whoever hears the lines may be slow; they are all there, and all of them count
            errorReader.join(LONGEST_LAST_WORDS_MILLIS);
            return process.exitValue();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            close();
            throw new Cancel.Stopped();
        }
    }

    MediaException failure(String doing, int code) {
        String said = String.join("\n", errors());
        LOG.log(System.Logger.Level.INFO, "{0} ended with {1} while {2}: {3}", name, code, doing, errors());
        if (late) {
            return new MediaException(name + " took too long while " + doing
                    + " and was stopped; the file may be damaged. Try a shorter span");
        }
        if (said.contains("No space left on device") || code == 128 + FILE_TOO_LARGE) {
            return new MediaException("the disk is full: free some space, then start again; finished parts are kept");
        }
        if (code == 128 + CPU_USED_UP) {
            return new MediaException(name + " used far more of the processor than " + doing
                    + " should and was stopped; the file may be damaged. Try a shorter span");
        }
        if (code == 137 || code == 143 || code == 9 || code == ASKED_TO_END) {
            return MediaException.fromOutside(name + " was killed while " + doing
                    + ", by the system or by someone on this machine; start again to go on");
        }
        if (said.contains("Cannot allocate memory")) {
            return new MediaException(
                    name + " ran out of memory while " + doing + "; choose a smaller size or close other programs");
        }
        if (said.contains("Permission denied")) {
            return new MediaException(name + " may not read or write a file while " + doing
                    + "; look at the rights of the folder it lies in");
        }
        if (said.contains("No such file")) {
            return new MediaException("a file went away while " + doing + "; start again");
        }
        if (code > 128) {
            return new MediaException(name + " broke down while " + doing + " (signal " + (code - 128)
                    + "); the file may be damaged. A mended copy of it may do better");
        }
        // its own words are in the log: they are for those who know its inside
        return new MediaException(name + " gave up while " + doing
                + "; the file may be damaged or of a kind it cannot handle. A mended copy of it may do better");
    }

    /** FFmpeg's way out when a signal asks it to end, as a system that shuts down does (fftools/ffmpeg.c of version 5.1). */
    private static final int ASKED_TO_END = 255;

    /** Signals of the limits (POSIX). */
    private static final int CPU_USED_UP = 24;

    private static final int FILE_TOO_LARGE = 25;

    /** The last error line without FFmpeg's marks of where it came from. */
    String said() {
        synchronized (lastLines) {
            return lastLines.isEmpty() ? "" : plain(lastLines.peekLast());
        }
    }

    /** Every kept error line, oldest first. */
    List<String> errors() {
        synchronized (lastLines) {
            return lastLines.stream().map(Child::plain).toList();
        }
    }

    private static String plain(String line) {
        return line.replaceAll("\\[[^\\]]*@ 0x[0-9a-f]+\\]\\s*", "")
                .replaceAll("^\\s*\\[(error|fatal|panic)\\]\\s*", "")
                .replaceAll("file:/\\S*/", "")
                .trim();
    }

    @Override
    public void close() {
        if (closed) {
            return;
        }
        closed = true;
        watch.cancel(false);
        process.destroyForcibly();
        try {
            process.waitFor(5, TimeUnit.SECONDS);
            process.getOutputStream().close();
        } catch (IOException e) {
            // the pipe is already broken, which is what was wanted
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
