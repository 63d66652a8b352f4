package awlsmith.server.watch;

import awlsmith.core.recipe.RecipeException;
import awlsmith.media.MediaException;
import awlsmith.server.AwlsmithProperties;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.clips.ExaminationView;
import awlsmith.server.dispatch.Dispatch;
import awlsmith.server.problem.Refusal;
import awlsmith.server.takes.Alike;
import awlsmith.server.takes.TakeView;
import awlsmith.server.watch.WatchedFolder.State;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Looks into watched folders: a file that has come to rest is put on the shelf where it lies; once it has been examined it gets its recipe and
 * is sent out. How far each is stands in the database, so that a restart goes on where it was; a failure gets its sentence and stops nothing
 * else.
 */
@Component
class Watcher {
    private static final Logger LOG = LoggerFactory.getLogger(Watcher.class);

    /** What lies beside footage and is none. */
    private static final Set<String> BESIDE = Set.of(
            "txt", "md", "pdf", "xml", "json", "csv", "log", "srt", "vtt", "ass", "sha256", "md5", "part", "tmp", "ini",
            "db", "html", "doc", "docx", "xls", "xlsx");

    /** Files of one folder; beyond that the rest waits until some are taken out. */
    private static final int MOST_FILES = 20_000;

    private static final int LONGEST_NAME = 255;

    private final WatchRepository repository;
    private final WatchedFolders folders;
    private final Clips clips;
    private final Alike alike;
    private final Dispatch dispatch;
    private final Duration rest;
    private final Clock clock;

    Watcher(
            WatchRepository repository,
            WatchedFolders folders,
            Clips clips,
            Alike alike,
            Dispatch dispatch,
            AwlsmithProperties properties,
            Clock clock) {
        this.repository = repository;
        this.folders = folders;
        this.clips = clips;
        this.alike = alike;
        this.dispatch = dispatch;
        this.rest = properties.watchRest();
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 2000)
    void look() {
        try {
            for (WatchedFolder folder : repository.all()) {
                if (folder.active()) {
                    look(folder);
                }
            }
        } catch (DataAccessException e) {
            LOG.warn("watched folders wait: the database does not answer");
        }
    }

    private void look(WatchedFolder folder) {
        Map<String, WatchedFolder.Item> known = new HashMap<>();
        repository.files(folder.id()).forEach(file -> known.put(file.name(), file));
        boolean changed;
        try {
            changed = arrivals(folder, known);
            changed |= repository.tell(folder.id(), null);
        } catch (IOException | java.io.UncheckedIOException e) {
            changed = repository.tell(
                    folder.id(),
                    "the folder cannot be looked into; it may be gone, or locked. Put it back, or take it away here");
        }
        for (WatchedFolder.Item file : known.values()) {
            if (file.state() == State.TAKEN) {
                changed |= onwards(folder, file);
            }
        }
        if (changed) {
            folders.changed();
        }
    }

    /** @return whether anything has changed */
    private boolean arrivals(WatchedFolder folder, Map<String, WatchedFolder.Item> known) throws IOException {
        boolean changed = false;
        Set<String> there = new HashSet<>();
        List<Path> files;
        try (var all = Files.list(folder.path())) {
            files = all.filter(Watcher::isFootage).sorted().limit(MOST_FILES).toList();
        }
        for (Path file : files) {
            String name = file.getFileName().toString();
            BasicFileAttributes facts;
            try {
                facts = Files.readAttributes(file, BasicFileAttributes.class);
            } catch (IOException e) {
                // gone between two looks
                continue;
            }
            there.add(name);
            Instant changedAt = facts.lastModifiedTime().toInstant().truncatedTo(ChronoUnit.MILLIS);
            WatchedFolder.Item item = known.get(name);
            if (item == null || waits(item) && !item.isAs(facts.size(), changedAt)) {
                repository.arriving(folder.id(), name, facts.size(), changedAt);
                changed = true;
            } else if (item.state() == State.ARRIVING
                    && !item.seenAt().plus(rest).isAfter(clock.instant())) {
                take(item, file);
                changed = true;
            }
        }
        for (WatchedFolder.Item item : known.values()) {
            if (waits(item) && !there.contains(item.name())) {
                repository.forget(item);
                changed = true;
            }
        }
        return changed;
    }

    /** Whether another file of the name would be a fresh start. */
    private static boolean waits(WatchedFolder.Item item) {
        return item.state() == State.ARRIVING || item.state() == State.FAILED;
    }

    private static boolean isFootage(Path file) {
        String name = file.getFileName().toString();
        String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        return !name.startsWith(".")
                && name.length() <= LONGEST_NAME
                && !BESIDE.contains(ending)
                && Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS);
    }

    private void take(WatchedFolder.Item item, Path file) {
        try {
            if (item.bytes() == 0) {
                throw new Refusal(Refusal.Kind.INVALID, "the file is empty (0 bytes): the copy may have failed");
            }
            repository.move(item, State.TAKEN, clips.link(file).id(), null);
        } catch (Refusal e) {
            repository.move(item, State.FAILED, null, said(item, e));
        }
    }

    /** What is on the shelf gets its recipe and goes out, as soon as that can be. @return whether it did */
    private boolean onwards(WatchedFolder folder, WatchedFolder.Item item) {
        UUID id = item.clip();
        try {
            if (id == null) {
                throw Refusal.unknown("the clip");
            }
            ClipView clip = clips.view(id);
            if (clip.state() == ClipView.State.READING) {
                return false;
            }
            if (clip.state() != ClipView.State.READY) {
                throw new Refusal(Refusal.Kind.INVALID, String.valueOf(clip.problem()));
            }
            if (folder.way().isMeasured() && !isExamined(clip)) {
                return false;
            }
            // a server that died between ordering and noting it has ordered
            if (clip.sentOut() == 0 && !dispatch.isAsked(id)) {
                TakeView take = alike.give(clip, folder.way());
                dispatch.order(new Dispatch.Order(
                        List.of(new Dispatch.Target(take.id(), true, 0)),
                        folder.deliverables(),
                        folder.pattern(),
                        null,
                        folder.path().getFileName().toString()));
            }
            repository.move(item, State.SENT, id, null);
        } catch (Refusal | RecipeException | MediaException e) {
            repository.move(item, State.FAILED, id, said(item, e));
        }
        return true;
    }

    /** The sentence without the name of the file, which stands beside it. */
    private static String said(WatchedFolder.Item item, RuntimeException failure) {
        String sentence = String.valueOf(failure.getMessage());
        String name = item.name() + ": ";
        return sentence.startsWith(name) ? sentence.substring(name.length()) : sentence;
    }

    /** @throws Refusal when it never will be */
    private static boolean isExamined(ClipView clip) {
        ExaminationView examination = clip.examination();
        if (examination == null) {
            return false;
        }
        return switch (examination.state()) {
            case DONE -> true;
            case WAITING, RUNNING -> false;
            case STOPPED ->
                throw new Refusal(
                        Refusal.Kind.CONFLICT, "its examination was stopped; examine it, then try again here");
            case FAILED ->
                throw new Refusal(Refusal.Kind.CONFLICT, "it could not be examined: " + examination.problem());
        };
    }
}
