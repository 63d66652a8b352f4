package awlsmith.server.models;

import static awlsmith.server.db.Tables.MODEL_SPEED;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.OptionalDouble;
import org.jooq.DSLContext;
import org.springframework.stereotype.Repository;

@Repository
class ModelSpeedRepository {
    private final DSLContext db;

    ModelSpeedRepository(DSLContext db) {
        this.db = db;
    }

    /** Input pixels a second, when it was measured before. */
    OptionalDouble find(String model, String mode) {
        return db
                .select(MODEL_SPEED.PIXELS_A_SECOND)
                .from(MODEL_SPEED)
                .where(MODEL_SPEED.MODEL.eq(model), MODEL_SPEED.MODE.eq(mode))
                .fetch(MODEL_SPEED.PIXELS_A_SECOND)
                .stream()
                .mapToDouble(Double::doubleValue)
                .findFirst();
    }

    void keep(String model, String mode, double pixelsASecond, Instant now) {
        db.insertInto(MODEL_SPEED)
                .set(MODEL_SPEED.MODEL, model)
                .set(MODEL_SPEED.MODE, mode)
                .set(MODEL_SPEED.PIXELS_A_SECOND, pixelsASecond)
                .set(MODEL_SPEED.MEASURED_AT, LocalDateTime.ofInstant(now, ZoneOffset.UTC))
                .onDuplicateKeyUpdate()
                .set(MODEL_SPEED.PIXELS_A_SECOND, pixelsASecond)
                .set(MODEL_SPEED.MEASURED_AT, LocalDateTime.ofInstant(now, ZoneOffset.UTC))
                .execute();
    }
}
