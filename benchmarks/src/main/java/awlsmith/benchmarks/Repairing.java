package awlsmith.benchmarks;

import awlsmith.core.measure.Bands;
import awlsmith.core.measure.Blocking;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Plane;
import awlsmith.media.Rounding;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** What is won back of what a codec took: on compressed clips, told and not told how coarsely it rounded, and on banded slopes. */
final class Repairing {
    private static final int FRAMES = 24;
    /** The first frame that is scored, and the first that is not any more. */
    private static final int FROM = 4;

    private static final int TO = 20;
    private static final int SLOPE_WIDTH = 480;
    private static final int SLOPE_HEIGHT = 270;

    private final Scratch scratch;
    private final List<String> report = new ArrayList<>();

    Repairing(Scratch scratch) {
        this.scratch = scratch;
    }

    /** @param encoder FFmpeg's, with its settings; @param codec its name where it is decoded */
    private record Way(String name, String encoder, String codec) {}

    private static final List<Way> WAYS = List.of(
            new Way("H.264, CRF 25", "libx264 -crf 25", "h264"),
            new Way("H.264, CRF 30", "libx264 -crf 30", "h264"),
            new Way("H.264, CRF 35", "libx264 -crf 35", "h264"),
            new Way("H.264, CRF 40", "libx264 -crf 40", "h264"),
            new Way("MPEG-2, quantiser 8", "mpeg2video -q:v 8 -bf 2", "mpeg2video"),
            new Way("JPEG, quantiser 12", "mjpeg -q:v 12", "mjpeg"));

    private static final int GROUP = 7;
    private static final List<Way> POPPING = List.of(
            new Way("H.264, CRF 30", "libx264 -crf 30", "h264"),
            new Way("H.264, CRF 36", "libx264 -crf 36", "h264"),
            new Way("MPEG-2, quantiser 10", "mpeg2video -q:v 10 -bf 2", "mpeg2video"));

    /** FFmpeg's filters against blocks, at the best of their settings. */
    private static final List<String> PEERS =
            List.of("deblock=filter=weak", "deblock=filter=strong", "spp=4", "fspp=4", "pp7");

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    List<String> report(List<Cleaning.Source> sources) {
        say("## Compression");
        say("");
        say(
                "Frames " + FROM + " to " + TO + " of " + FRAMES
                        + ". Repair is told the step that the codec's own quantisers come to (none of JPEG's), or left to judge by the picture; beside"
                        + " it the best of deblock, spp, fspp and pp7 of FFmpeg's. Blocks: how many per cent larger steps are on the lattice than off it.");
        say("");
        say(
                "| clip | codec | step | decoded | repair, told | untold | best of FFmpeg's | told - decoded | blocks: truth | decoded | repair | frames a second |");
        say("|---|---|---|---|---|---|---|---|---|---|---|---|");
        for (Cleaning.Source source : sources) {
            Path truth = scratch.truth(source.file(), FRAMES);
            WAYS.forEach(way -> row(source.name(), truth, way));
        }
        say("");
        popping(sources);
        bands(sources.getLast());
        return report;
    }

    private void row(String name, Path truth, Way way) {
        Path coded = scratch.file("coded.mkv");
        Command.ffmpeg("-i " + truth + " -c:v " + way.encoder() + " -pix_fmt "
                + (way.codec().equals("mjpeg") ? "yuvj420p" : "yuv420p") + " " + coded);
        // full range as some codecs have it, put back to what the truth has
        Path decoded = scratch.file("decoded.mkv");
        Command.ffmpeg("-i " + coded + " -vf scale=out_range=tv,format=yuv420p -c:v ffv1 " + decoded);
        List<Plane> wanted = scratch.luma(truth);
        List<Plane> plain = scratch.luma(decoded);
        var step = Rounding.step(coded, way.codec());
        Scratch.Made untold = scratch.made(decoded, "repair");
        Scratch.Made told = step.isPresent()
                ? scratch.made(decoded, "repair rounding=" + Figures.text("%.1f", step.getAsDouble()))
                : untold;
        double before = psnr(wanted, plain);
        double most = 0;
        for (String peer : PEERS) {
            Path out = scratch.file("out.mkv");
            Command.ffmpeg("-i " + coded + " -vf " + peer + ",scale=out_range=tv,format=yuv420p -c:v ffv1 " + out);
            most = Math.max(most, psnr(wanted, scratch.luma(out)));
        }
        say(Figures.text(
                "| %s | %s | %s | %.2f | %.2f | %.2f | %.2f | %+.2f | %.0f %% | %.0f %% | %.0f %% | %.1f |",
                name,
                way.name(),
                step.isPresent() ? Figures.text("%.0f", step.getAsDouble()) : "",
                before,
                psnr(wanted, told.frames()),
                psnr(wanted, untold.frames()),
                most,
                psnr(wanted, told.frames()) - before,
                blocks(wanted),
                blocks(plain),
                blocks(told.frames()),
                told.rate()));
    }

    private void popping(List<Cleaning.Source> sources) {
        say("## Popping");
        say("");
        say(
                "Every " + GROUP
                        + " frames one is coded by itself. The error's change from frame to frame, its deviation of 255: where such a frame comes, and elsewhere.");
        say("");
        say("| clip | codec | where one comes: decoded | repair | elsewhere: decoded | repair |");
        say("|---|---|---|---|---|---|");
        for (Cleaning.Source source : sources) {
            Path truth = scratch.truth(source.file(), FRAMES);
            List<Plane> wanted = scratch.luma(truth);
            for (Way way : POPPING) {
                Path coded = scratch.file("popping.mkv");
                Command.ffmpeg(
                        "-i " + truth + " -c:v " + way.encoder() + " -g " + GROUP + " -pix_fmt yuv420p " + coded);
                String told =
                        Figures.text("%.1f", Rounding.step(coded, way.codec()).orElseThrow());
                List<Plane> decoded = scratch.luma(coded);
                List<Plane> repaired = scratch.treated(coded, "repair rounding=" + told);
                say(Figures.text(
                        "| %s | %s | %.2f | %.2f | %.2f | %.2f |",
                        source.name(),
                        way.name(),
                        change(wanted, decoded, true),
                        change(wanted, repaired, true),
                        change(wanted, decoded, false),
                        change(wanted, repaired, false)));
            }
        }
        say("");
    }

    private static double change(List<Plane> wanted, List<Plane> got, boolean whereOneComes) {
        double squares = 0;
        int count = 0;
        for (int n = 1; n < Math.min(FRAMES, got.size()) - 2; n++) {
            if ((n % GROUP == 0) == whereOneComes) {
                double change = Scratch.flicker(wanted, got, n - 1, n + 1);
                squares += change * change;
                count++;
            }
        }
        return Math.sqrt(squares / count);
    }

    private static double psnr(List<Plane> wanted, List<Plane> got) {
        return Scratch.psnr(wanted, got, FROM, Math.min(TO, got.size()));
    }

    private static double blocks(List<Plane> frames) {
        return frames.subList(FROM, TO).stream()
                .mapToDouble(frame -> 100 * (Blocking.of(frame).strength() - 1))
                .average()
                .orElse(0);
    }

    private void bands(Cleaning.Source textured) {
        say("## Bands");
        say("");
        say(
                "A slope of light and a clip with texture, in eight bits; what comes out of `bands` is looked at before the file's own bits are made.");
        say("");
        say("| what | picture in bands before | after | error before, code values | after |");
        say("|---|---|---|---|---|");
        Path grey = scratch.file("grey.mkv");
        Path slope = scratch.file("slope.mkv");
        Command.ffmpeg("-f lavfi -i color=gray:s=" + SLOPE_WIDTH + "x" + SLOPE_HEIGHT
                + " -frames:v 1 -pix_fmt yuv420p -c:v ffv1 " + grey);
        Plane wanted = Plane.of(SLOPE_WIDTH, SLOPE_HEIGHT);
        for (int y = 0; y < SLOPE_HEIGHT; y++) {
            for (int x = 0; x < SLOPE_WIDTH; x++) {
                wanted.set(x, y, (float) (0.2 + 0.0001 * x + 0.00005 * y + 0.01 * Math.sin(0.012 * x)));
            }
        }
        // code values, as a camera without dither makes them
        scratch.changed(grey, slope, frame -> {
            Plane light = frame.plane(0);
            for (int i = 0; i < light.data().length; i++) {
                light.data()[i] = Math.round(wanted.data()[i] * 219) / 219f;
            }
        });
        bands("slope", slope, wanted);
        Path clip = scratch.truth(textured.file(), 1);
        bands(textured.name(), clip, scratch.luma(clip).getFirst());
    }

    private void bands(String name, Path file, Plane wanted) {
        Plane before = scratch.luma(file).getFirst();
        Plane after = scratch.made(file, "bands").frames().getFirst();
        say(Figures.text(
                "| %s | %.0f %% | %.0f %% | %.2f | %.2f |",
                name,
                100 * Bands.share(before),
                100 * Bands.share(after),
                219 * Math.pow(10, -Psnr.of(before, wanted, Scratch.BORDER) / 20),
                219 * Math.pow(10, -Psnr.of(after, wanted, Scratch.BORDER) / 20)));
    }
}
