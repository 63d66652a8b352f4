package awlsmith.server.dispatch;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.render.RenderWatch;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.IntConsumer;
import java.util.function.Supplier;

/** Turns what a render reports into figures a person can use, a few times a second. */
final class Progress implements RenderWatch {
    private static final long TELL_EVERY_NANOS = 300_000_000L;
    private static final long PICTURE_EVERY_NANOS = 2_000_000_000L;
    private static final long WINDOW_NANOS = 8_000_000_000L;

    /** What a render runs on, and how much of it was made elsewhere. @param elsewhere frames that other machines brought */
    record Fared(String on, long elsewhere) {}

    private final int total;
    private final Runnable giveWay;
    private final BiConsumer<Integer, RenderView.Live> tell;
    private final IntConsumer safe;
    private final BiConsumer<String, Integer> ending;
    private final Consumer<ScreenPicture> picture;
    private final Supplier<Fared> fared;
    private volatile long pictured = System.nanoTime() - PICTURE_EVERY_NANOS;
    private final Deque<long[]> lately = new ArrayDeque<>();
    private long told;
    private int inSegments;
    private int before;

    /**
     * @param giveWay waits while something more urgent is made
     * @param tell hears frames done and figures
     * @param safe hears how many frames are on disk for good
     * @param ending hears what is done when all frames are treated
     * @param picture hears what the newest frame looks like, now and then
     * @param fared tells what it runs on
     */
    Progress(
            int total,
            Runnable giveWay,
            BiConsumer<Integer, RenderView.Live> tell,
            IntConsumer safe,
            BiConsumer<String, Integer> ending,
            Consumer<ScreenPicture> picture,
            Supplier<Fared> fared) {
        this.total = total;
        this.giveWay = giveWay;
        this.tell = tell;
        this.safe = safe;
        this.ending = ending;
        this.picture = picture;
        this.fared = fared;
    }

    @Override
    public void ending(String doing, long frames) {
        ending.accept(doing, (int) frames);
    }

    @Override
    public boolean wantsPicture() {
        return System.nanoTime() - pictured >= PICTURE_EVERY_NANOS;
    }

    @Override
    public void picture(ScreenPicture frame) {
        pictured = System.nanoTime();
        picture.accept(frame);
    }

    @Override
    public void giveWay() {
        giveWay.run();
    }

    @Override
    public synchronized void begins(long done) {
        inSegments = (int) done;
        before = (int) done;
    }

    /** Frames that lay finished from earlier runs. */
    synchronized int before() {
        return before;
    }

    @Override
    public synchronized void frames(long done, Shares shares) {
        long now = System.nanoTime();
        lately.addLast(new long[] {now, done});
        while (lately.size() > 2 && now - lately.peekFirst()[0] > WINDOW_NANOS) {
            lately.removeFirst();
        }
        if (now - told < TELL_EVERY_NANOS && done < total) {
            return;
        }
        told = now;
        double seconds = (now - lately.peekFirst()[0]) / 1e9;
        double rate = seconds > 0 ? (done - lately.peekFirst()[1]) / seconds : 0;
        double busy = Math.max(1e-9, shares.decode() + shares.treat() + shares.encode());
        Fared so = fared.get();
        tell.accept(
                (int) done,
                new RenderView.Live(
                        rate,
                        rate > 0 ? (total - done) / rate : 0,
                        shares.decode() / busy,
                        shares.treat() / busy,
                        shares.encode() / busy,
                        so.on(),
                        so.elsewhere()));
    }

    @Override
    public synchronized void segment(int number, long frames) {
        inSegments += (int) frames;
        safe.accept(inSegments);
    }
}
