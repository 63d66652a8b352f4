package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.mark.Digits;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.TimeCode;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.plan.ContactSheet;
import awlsmith.core.plan.Container;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.media.Encoding;
import awlsmith.media.FinalEncoding;
import awlsmith.media.Joiner;
import awlsmith.media.MediaException;
import awlsmith.media.PictureFiles;
import awlsmith.media.ReadBack;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** Makes one picture of the few frames of a treatment that go into it. */
final class Picked {
    /** Behind the frames of a sheet and of their times. */
    private static final byte GROUND = 0x1a;

    private static final int FIGURES = 0xd0;

    private final Output output;
    private final RenderRequest request;
    private final Machine machine;
    private final RenderWatch watch;
    private final Cancel cancel;

    Picked(Output output, Machine machine, RenderWatch watch, Cancel cancel) {
        this.output = output;
        this.request = output.request();
        this.machine = machine;
        this.watch = watch;
        this.cancel = cancel;
    }

    /**
     * @param part file to write
     * @param folder to work in, which is not there yet
     * @return what was read back from it
     */
    ReadBack.Facts make(Path part, Path folder) throws IOException {
        List<Long> picks = request.deliverable().picks(request.outputRange());
        Folders.remove(folder);
        Files.createDirectories(folder);
        boolean isSheet = request.deliverable().codec() instanceof ContactSheet;
        Path made = isSheet ? sheet(picks, folder) : one(picks.getFirst(), folder);
        var facts = PictureFiles.readBack(List.of(made), Rational.of(25), cancel);
        Format asked = isSheet
                ? ContactSheet.ofSheet(request.treatment().output(), layout(picks.size()))
                : request.fileFormat();
        Format got = facts.info().video().format();
        if (facts.frames() != 1
                || facts.errors() > 0
                || got.width() != asked.width()
                || got.height() != asked.height()
                || !isSheet
                        && got.depth()
                                != request.deliverable().codec().readAs(asked).depth()) {
            throw new MediaException("the finished picture is not what was asked for: it is " + got.width() + "x"
                    + got.height() + " in " + got.depth() + " bit, " + asked.width() + "x" + asked.height() + " in "
                    + asked.depth() + " bit was wanted. Start the render again");
        }
        Files.move(made, part, StandardCopyOption.REPLACE_EXISTING);
        return facts;
    }

    /** In its codec, by way of a file without loss, as all numbered pictures go. */
    private Path one(long number, Path folder) throws IOException {
        Path file = folder.resolve("one.nut");
        try (var encoding = new Encoding(
                file, request.fileFormat(), request.outputRate(), request.parts(), Engine.CODING_THREADS)) {
            Frame frame = treated(number);
            byte[] raw = new byte[output.raw().frameBytes()];
            output.pack(frame, raw, machine.planes(), machine.work(cancel));
            frame.release(machine.planes());
            encoding.write(raw, Rational.ZERO);
            encoding.finish(cancel);
        }
        var segment = new Joiner.Segment(file, request.lasting(number, 1));
        var coding = new FinalEncoding(
                List.of(segment),
                request.fileFormat(),
                request.outputRate(),
                request.deliverable(),
                folder.resolve("pictures"),
                machine.threads());
        return coding.pictures(watch::ending, cancel).getFirst();
    }

    private Frame treated(long number) {
        Chain chain = request.treatment().chain();
        try (var stream = chain.open(
                request.clip(),
                new FrameRange(number, number + 1),
                chain.output().whole(),
                machine.planes(),
                machine.work(cancel))) {
            return stream.next()
                    .orElseThrow(() -> new MediaException("frame " + number
                            + " cannot be made; the source may be damaged. Take it in again, or mend it first"));
        }
    }

    private ContactSheet.Layout layout(long frames) {
        return ContactSheet.layout(
                request.treatment().output(), request.deliverable().settings(), frames);
    }

    private Path sheet(List<Long> picks, Path folder) throws IOException {
        ContactSheet.Layout layout = layout(picks.size());
        Format whole = request.treatment().output();
        var smaller =
                new EnlargeStage(whole, whole.withSize(layout.width(), layout.height(), Rational.ONE), Kernel.MITCHELL);
        byte[] ground = new byte[3 * layout.sheetWidth() * layout.sheetHeight()];
        Arrays.fill(ground, GROUND);
        var sheet = new ScreenPicture(layout.sheetWidth(), layout.sheetHeight(), ground);
        for (int n = 0; n < picks.size(); n++) {
            watch.giveWay();
            watch.ending("making the frames of the sheet", n + 1L);
            Frame frame = treated(picks.get(n));
            ScreenPicture small = shown(frame, smaller);
            if (watch.wantsPicture()) {
                watch.picture(small);
            }
            lay(small, sheet, layout.left(n), layout.top(n));
            frame.release(machine.planes());
            if (layout.caption() > 0) {
                int dot = ContactSheet.dot(layout.width());
                int top = layout.top(n) + layout.height() + 2 * dot;
                Digits.draw(sheet, layout.left(n), top, dot, words(picks.get(n)), FIGURES);
            }
        }
        boolean jpeg = request.deliverable().container() == Container.JPEG;
        Path file = folder.resolve("p0000000." + (jpeg ? "jpg" : "png"));
        Files.write(file, jpeg ? Jpeg.fine(sheet) : Png.encode(sheet));
        return file;
    }

    private ScreenPicture shown(Frame frame, Stage smaller) {
        Frame small =
                smaller.treat(distance -> frame, smaller.output().whole(), machine.planes(), machine.work(cancel));
        var picture = ScreenPicture.of(small, smaller.output().whole(), 1, machine.planes(), machine.work(cancel));
        small.release(machine.planes());
        return picture;
    }

    private static void lay(ScreenPicture small, ScreenPicture on, int left, int top) {
        for (int y = 0; y < small.height(); y++) {
            System.arraycopy(
                    small.rgb(),
                    3 * y * small.width(),
                    on.rgb(),
                    3 * ((top + y) * on.width() + left),
                    3 * small.width());
        }
    }

    /** When it is shown: by the source's time code where it keeps to that, else from the clip's start. */
    private String words(long number) {
        Optional<String> label = request.firstLabel()
                .map(code -> code.plus(number - request.outputRange().from()))
                .map(TimeCode::toString);
        return ContactSheet.words(request.treatment().times().at(number), label);
    }
}
