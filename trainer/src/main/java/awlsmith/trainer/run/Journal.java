package awlsmith.trainer.run;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** What a model's training did, one line of a CSV file each few hundred iterations, over all its runs. */
public final class Journal {
    private static final String HEAD = "iteration,seconds,rate,loss,psnr,gain,ssim,gradient";
    private final Path file;

    /**
     * @param iteration over all runs
     * @param seconds of training over all runs
     * @param loss mean over the iterations since the line before
     * @param psnr of the held-out pictures, dB
     * @param gain of that over Lanczos with three lobes, dB
     * @param gradient mean step between neighbours, as a share of the truth's
     */
    public record Line(
            long iteration,
            double seconds,
            double rate,
            double loss,
            double psnr,
            double gain,
            double ssim,
            double gradient) {}

    public Journal(Path file) {
        this.file = file;
    }

    public void add(Line line) throws IOException {
        if (!Files.exists(file)) {
            Files.writeString(file, HEAD + "\n");
        }
        Files.writeString(
                file,
                String.format(
                        Locale.ROOT,
                        "%d,%.0f,%.6f,%.6f,%.3f,%.3f,%.5f,%.4f%n",
                        line.iteration(),
                        line.seconds(),
                        line.rate(),
                        line.loss(),
                        line.psnr(),
                        line.gain(),
                        line.ssim(),
                        line.gradient()),
                StandardOpenOption.APPEND);
    }

    public List<Line> lines() throws IOException {
        var lines = new ArrayList<Line>();
        if (Files.exists(file)) {
            for (String text : Files.readAllLines(file)) {
                if (!text.equals(HEAD) && !text.isBlank()) {
                    String[] f = text.split(",");
                    lines.add(new Line(
                            Long.parseLong(f[0]),
                            Double.parseDouble(f[1]),
                            Double.parseDouble(f[2]),
                            Double.parseDouble(f[3]),
                            Double.parseDouble(f[4]),
                            Double.parseDouble(f[5]),
                            Double.parseDouble(f[6]),
                            Double.parseDouble(f[7])));
                }
            }
        }
        return lines;
    }
}
