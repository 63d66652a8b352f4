package awlsmith.demo;

import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Work;
import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.Executors;

/** Makes the archive's footage into a folder without a server: {@code awlsmith footage FOLDER}. */
public final class Main {
    private Main() {}

    public static void main(String[] arguments) throws IOException {
        if (arguments.length != 1) {
            System.err.println("awlsmith: footage wants a folder to write to");
            System.exit(2);
        }
        int threads = Runtime.getRuntime().availableProcessors();
        try (var bands = Executors.newFixedThreadPool(threads)) {
            var maker = new FootageMaker(
                    Path.of(arguments[0]), new PlanePool(1L << 29), new Work(bands, threads, new Cancel()));
            for (Footage footage : maker.all()) {
                maker.make(footage, share -> System.err.printf("\r%s %.0f %%  ", footage.title(), 100 * share));
                System.err.println();
            }
        }
    }
}
