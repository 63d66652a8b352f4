package awlsmith.server.dispatch;

import static awlsmith.server.db.Tables.OWN_PRESET;

import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.RecipeException;
import java.time.Clock;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/** What people send out often, by their own names. */
@Repository
class OwnPresetRepository {
    private final DSLContext db;
    private final JsonMapper json;
    private final TransactionTemplate transaction;
    private final Clock clock;

    OwnPresetRepository(DSLContext db, JsonMapper json, TransactionTemplate transaction, Clock clock) {
        this.db = db;
        this.json = json;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** By their names; what no version of ours reads any more is left out. */
    List<OwnPresets.Own> all() {
        return db.selectFrom(OWN_PRESET).orderBy(OWN_PRESET.NAME).fetch().stream()
                .flatMap(row -> read(row.getDeliverable().data())
                        .map(deliverable ->
                                new OwnPresets.Own(row.getId(), row.getName(), deliverable, row.getIsDefault()))
                        .stream())
                .toList();
    }

    private Optional<Deliverable> read(String tree) {
        try {
            return Optional.of(Deliverable.fromTree(json.readValue(tree, Map.class)));
        } catch (RecipeException | IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** @param name one that is taken already is replaced */
    void save(String name, Deliverable deliverable, boolean isDefault) {
        JSON tree = JSON.json(json.writeValueAsString(deliverable.toTree()));
        LocalDateTime now = LocalDateTime.ofInstant(clock.instant(), ZoneOffset.UTC);
        transaction.executeWithoutResult(status -> {
            if (isDefault) {
                db.update(OWN_PRESET).set(OWN_PRESET.IS_DEFAULT, false).execute();
            }
            db.insertInto(OWN_PRESET)
                    .set(OWN_PRESET.ID, UUID.randomUUID())
                    .set(OWN_PRESET.NAME, name)
                    .set(OWN_PRESET.DELIVERABLE, tree)
                    .set(OWN_PRESET.IS_DEFAULT, isDefault)
                    .set(OWN_PRESET.MADE_AT, now)
                    .onDuplicateKeyUpdate()
                    .set(OWN_PRESET.DELIVERABLE, tree)
                    .set(OWN_PRESET.IS_DEFAULT, isDefault)
                    .set(OWN_PRESET.MADE_AT, now)
                    .execute();
        });
    }

    boolean delete(UUID id) {
        return db.deleteFrom(OWN_PRESET).where(OWN_PRESET.ID.eq(id)).execute() == 1;
    }
}
