package awlsmith.render;

import awlsmith.core.model.NetForm;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.MediaException;
import awlsmith.media.PacketSizes;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicLong;

/**
 * The segments of one render that runs, some of which others make: this machine goes through them from the first on, others get the last of those
 * that nobody has. What was lent and is not heard of for a while is free again; what is brought back is taken once. When nothing else is left, this
 * machine makes what takes others much longer than itself. Goes by this machine's monotonic clock alone, whatever those of others say.
 */
public final class SharedWork {
    /** Times of a segment made here after which one that is lent is made here too, when nothing else is left. */
    private static final double SLOWER = 1.5;

    /** Header of the answer to a machine that gets nothing though there are parts: why, in a sentence. */
    public static final String WHY = "Awlsmith-Why";

    private final Duration patience;
    private final AtomicLong brought = new AtomicLong();

    // guarded by this
    private final Map<String, Lease> leases = new HashMap<>();
    private final Set<Integer> here = new HashSet<>();
    private final Set<Integer> there = new HashSet<>();
    /** Known to lie whole on the disk. */
    private final Set<Integer> finished = new HashSet<>();

    private List<RenderRequest> requests = List.of();
    private List<SegmentFolder> folders = List.of();
    private RenderWatch watch = RenderWatch.SILENT;
    private boolean isOpen;
    private boolean isLending;
    /** When the segment that is made here was begun; 0 while none is. */
    private long begun;
    /** What the last one took that was made here, in nanoseconds; 0 before the first has ended. */
    private long own;

    private static final class Lease {
        private final int number;
        private final String who;
        private final long lent = System.nanoTime();
        private long heard = System.nanoTime();
        private final Map<Integer, Path> files = new HashMap<>();

        Lease(int number, String who) {
            this.number = number;
            this.who = who;
        }
    }

    /** @param patience for how long one who borrowed a segment may keep silent */
    public SharedWork(Duration patience) {
        this.patience = patience;
    }

    /**
     * A segment that is lent.
     *
     * @param lease names it from now on
     * @param orders of it, one for each file
     */
    public record Offer(String lease, int number, List<SegmentOrder> orders) {}

    /** @param lending whether others may make parts of it */
    synchronized void open(List<RenderRequest> of, List<SegmentFolder> in, RenderWatch hears, boolean lending) {
        isLending = lending;
        requests = of;
        folders = in;
        watch = hears;
        isOpen = true;
    }

    /** What is lent is not wanted any more. */
    synchronized void close() {
        isOpen = false;
        leases.values().forEach(SharedWork::drop);
        leases.clear();
        here.clear();
    }

    /** Frames that others brought. */
    public long broughtFrames() {
        return brought.get();
    }

    /**
     * Lends the last of the segments that nobody has.
     *
     * @param who gets it, for people
     */
    public synchronized Optional<Offer> lend(String who) {
        forget();
        if (!isOpen || !isLending || requests.getFirst().outputRange().isOpen()) {
            return Optional.empty();
        }
        Set<Integer> taken = taken();
        int number = lastFree(count() - 1, taken);
        // one is left to this machine, which would otherwise only wait
        if (number < 0 || lastFree(number - 1, taken) < 0) {
            return Optional.empty();
        }
        String lease = UUID.randomUUID().toString();
        leases.put(lease, new Lease(number, who));
        return Optional.of(new Offer(
                lease,
                number,
                requests.stream().map(one -> SegmentOrder.of(one, number)).toList()));
    }

    /** The form of nets that its parts want; empty while there are none. */
    public synchronized Optional<NetForm> form() {
        return isOpen && isLending ? Optional.of(requests.getFirst().form()) : Optional.empty();
    }

    /** Whether a lease is still wanted; to be told now and then by who has it. */
    public synchronized boolean hear(String lease) {
        forget();
        Lease known = leases.get(lease);
        if (known != null) {
            known.heard = System.nanoTime();
        }
        return known != null;
    }

    /** The file that a brought segment goes into, beside its place. @param output its number among the files */
    public synchronized Optional<Path> place(String lease, int output) {
        Lease known = leases.get(lease);
        if (known == null || output < 0 || output >= folders.size()) {
            return Optional.empty();
        }
        Path file = folders.get(output).partFile(known.number);
        return Optional.of(file.resolveSibling("brought-" + lease + "-" + file.getFileName()));
    }

    /** Notes that a file of it has arrived whole. */
    public synchronized boolean arrived(String lease, int output, Path file) {
        Lease known = leases.get(lease);
        if (known == null) {
            return false;
        }
        known.heard = System.nanoTime();
        known.files.put(output, file);
        return true;
    }

    /** Takes a segment whose files have all arrived; false where it is not wanted any more, or some are missing. */
    public synchronized boolean take(String lease) throws IOException {
        Lease known = leases.remove(lease);
        if (known == null) {
            return false;
        }
        if (known.files.size() < folders.size()) {
            drop(known);
            return false;
        }
        RenderRequest first = requests.getFirst();
        long frames = Math.min(
                first.segmentFrames(), first.outputRange().count() - (long) known.number * first.segmentFrames());
        if (!known.files.values().stream().allMatch(file -> holds(file, frames))) {
            drop(known);
            return false;
        }
        for (int n = 0; n < folders.size(); n++) {
            SegmentFolder folder = folders.get(n);
            Files.move(
                    known.files.get(n),
                    folder.partFile(known.number),
                    StandardCopyOption.ATOMIC_MOVE,
                    StandardCopyOption.REPLACE_EXISTING);
            folder.keep(known.number);
        }
        there.add(known.number);
        brought.addAndGet(frames);
        watch.segment(known.number, frames);
        return true;
    }

    /** What comes from elsewhere is looked at before it goes among one's own: a file that is none would be found at the very end only. */
    private static boolean holds(Path file, long frames) {
        try {
            return PacketSizes.of(file, new Cancel()).bytes().size() == frames;
        } catch (MediaException e) {
            return false;
        }
    }

    /** It cannot be made there: somebody else may. */
    public synchronized void giveBack(String lease) {
        Lease known = leases.remove(lease);
        if (known != null) {
            drop(known);
        }
    }

    /** Who has something now. */
    public synchronized Set<String> helpers() {
        forget();
        var names = new HashSet<String>();
        leases.values().forEach(lease -> names.add(lease.who));
        return names;
    }

    /** Segments that lie beside each other and are for this machine, the first of them; none while others have all that is left. */
    synchronized Optional<SegmentFolder.Run> next() {
        forget();
        here.clear();
        ends();
        Set<Integer> taken = taken();
        int count = count();
        int first = 0;
        while (first < count && !isFree(first, taken)) {
            first++;
        }
        if (first == count) {
            Optional<Integer> slowest = slowest();
            begun = slowest.isPresent() ? System.nanoTime() : 0;
            return slowest.map(number -> new SegmentFolder.Run(number, number + 1));
        }
        int end = first + 1;
        while (end < count && isFree(end, taken)) {
            end++;
        }
        here.add(first);
        begun = System.nanoTime();
        return Optional.of(new SegmentFolder.Run(first, end));
    }

    /** Whether this machine may go on with the segment behind one that it has just made: nobody has it or has brought it. */
    synchronized boolean mayBegin(int number) {
        forget();
        boolean isLent = there.contains(number) || leases.values().stream().anyMatch(lease -> lease.number == number);
        ends();
        if (!isLent) {
            here.add(number);
            begun = System.nanoTime();
        }
        return !isLent;
    }

    /** One that was made here has ended. */
    private void ends() {
        if (begun != 0) {
            own = Math.max(1, System.nanoTime() - begun);
            begun = 0;
        }
    }

    /** What was lent longest ago, where that is long; it is not wanted from there any more. */
    private Optional<Integer> slowest() {
        long now = System.nanoTime();
        Optional<Map.Entry<String, Lease>> oldest =
                leases.entrySet().stream().min(Comparator.comparingLong(entry -> entry.getValue().lent));
        // between looks nothing is made here: what one took is told by the last that was
        if (oldest.isEmpty() || own == 0 || now - oldest.get().getValue().lent < SLOWER * own) {
            return Optional.empty();
        }
        Lease lease = leases.remove(oldest.get().getKey());
        drop(lease);
        here.add(lease.number);
        return Optional.of(lease.number);
    }

    /** Whether others have something that is still to be brought. */
    synchronized boolean isWaiting() {
        forget();
        return !leases.isEmpty();
    }

    private int count() {
        RenderRequest first = requests.getFirst();
        return SegmentFolder.count(first.outputRange().count(), first.segmentFrames());
    }

    /** Those that somebody makes. */
    private Set<Integer> taken() {
        Set<Integer> taken = new HashSet<>(here);
        leases.values().forEach(lease -> taken.add(lease.number));
        return taken;
    }

    /** The last one up to a number that is missing and nobody makes, or -1. The disk is asked for few: there may be thousands. */
    private int lastFree(int upTo, Set<Integer> taken) {
        int number = upTo;
        while (number >= 0 && !isFree(number, taken)) {
            number--;
        }
        return number;
    }

    private boolean isFree(int number, Set<Integer> taken) {
        if (taken.contains(number) || finished.contains(number)) {
            return false;
        }
        if (SegmentFolder.isMissing(folders, number)) {
            return true;
        }
        finished.add(number);
        return false;
    }

    private void forget() {
        long now = System.nanoTime();
        leases.values().removeIf(lease -> {
            boolean isSilent = now - lease.heard > patience.toNanos();
            if (isSilent) {
                drop(lease);
            }
            return isSilent;
        });
    }

    private static void drop(Lease lease) {
        for (Path file : lease.files.values()) {
            try {
                Files.deleteIfExists(file);
            } catch (IOException e) {
                // it goes with its folder
            }
        }
    }
}
