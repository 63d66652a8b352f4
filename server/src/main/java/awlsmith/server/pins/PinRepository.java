package awlsmith.server.pins;

import static awlsmith.server.db.Tables.PIN;

import awlsmith.server.db.tables.records.PinRecord;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

/** Pins in the database; one method is one statement. */
@Repository
class PinRepository {
    private final DSLContext db;

    PinRepository(DSLContext db) {
        this.db = db;
    }

    void insert(PinView pin, Instant now) {
        db.insertInto(PIN)
                .set(PIN.ID, pin.id())
                .set(PIN.CLIP_ID, pin.clipId())
                .set(PIN.NAME, pin.name())
                .set(PIN.FRAME, pin.frame())
                .set(PIN.X, pin.x())
                .set(PIN.Y, pin.y())
                .set(PIN.WIDTH, pin.width())
                .set(PIN.HEIGHT, pin.height())
                .set(PIN.MADE_AT, LocalDateTime.ofInstant(now, ZoneOffset.UTC))
                .execute();
    }

    void update(PinView pin) {
        db.update(PIN)
                .set(PIN.NAME, pin.name())
                .set(PIN.FRAME, pin.frame())
                .set(PIN.X, pin.x())
                .set(PIN.Y, pin.y())
                .set(PIN.WIDTH, pin.width())
                .set(PIN.HEIGHT, pin.height())
                .where(PIN.ID.eq(pin.id()))
                .execute();
    }

    void delete(UUID id) {
        db.deleteFrom(PIN).where(PIN.ID.eq(id)).execute();
    }

    List<PinView> of(UUID clip) {
        return db.selectFrom(PIN)
                .where(PIN.CLIP_ID.eq(clip))
                .orderBy(PIN.MADE_AT, PIN.NAME)
                .fetch(PinRepository::view);
    }

    Optional<PinView> find(UUID id) {
        return db.selectFrom(PIN).where(PIN.ID.eq(id)).fetchOptional(PinRepository::view);
    }

    private static PinView view(PinRecord row) {
        return new PinView(
                row.getId(),
                row.getClipId(),
                row.getName(),
                row.getFrame(),
                row.getX(),
                row.getY(),
                row.getWidth(),
                row.getHeight());
    }
}
