package awlsmith.server.jobs;

import static awlsmith.server.db.Tables.SCHEDULED_TASKS;

import awlsmith.server.AwlsmithProperties;
import awlsmith.server.CannotStart;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.SecureRandom;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/**
 * This process's name among those that share a database, and its hold on the data folder. Names of one folder begin alike: as only
 * one process can hold a folder, whatever another of that name had picked up was left by a dead one and is free at once. What others
 * hold is theirs until their heartbeats stop.
 */
@Component
class Owner {
    private static final String LOCK = "server.lock";

    private final String name;
    private final FileChannel channel;
    private final FileLock lock;

    Owner(AwlsmithProperties properties, DSLContext db) {
        Path home = properties.home();
        try {
            Files.createDirectories(home);
            channel = FileChannel.open(home.resolve(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
            lock = locked(channel);
        } catch (IOException e) {
            throw new UncheckedIOException("the data folder cannot be used", e);
        }
        if (lock == null) {
            throw new CannotStart(
                    "Another Awlsmith runs with the data in " + home + ".",
                    "Stop that one first, or give this one a folder of its own with AWLSMITH_HOME.");
        }
        String folder = "awlsmith-" + Integer.toHexString((host() + home).hashCode()) + "-";
        name = folder + Integer.toHexString(new SecureRandom().nextInt());
        free(db, folder);
    }

    private static FileLock locked(FileChannel channel) throws IOException {
        try {
            return channel.tryLock();
        } catch (OverlappingFileLockException e) {
            // another one in this very process, as in tests
            return null;
        }
    }

    private static String host() {
        try {
            return InetAddress.getLocalHost().getHostName();
        } catch (UnknownHostException e) {
            return "";
        }
    }

    /** Frees what dead processes of this folder had picked up, and nothing else. */
    static int free(DSLContext db, String folder) {
        return db.update(SCHEDULED_TASKS)
                .set(SCHEDULED_TASKS.PICKED, false)
                .setNull(SCHEDULED_TASKS.PICKED_BY)
                .setNull(SCHEDULED_TASKS.LAST_HEARTBEAT)
                .where(SCHEDULED_TASKS.PICKED_BY.startsWith(folder))
                .execute();
    }

    String name() {
        return name;
    }

    @PreDestroy
    void letGo() throws IOException {
        lock.release();
        channel.close();
    }
}
