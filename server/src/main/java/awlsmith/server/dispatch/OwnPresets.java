package awlsmith.server.dispatch;

import static awlsmith.server.db.Tables.OWN_PRESET;

import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.RecipeException;
import awlsmith.server.problem.Refusal;
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
class OwnPresets {
    private static final int MOST = 200;
    private static final int LONGEST_NAME = 60;

    private final DSLContext db;
    private final JsonMapper json;
    private final TransactionTemplate transaction;
    private final Clock clock;

    OwnPresets(DSLContext db, JsonMapper json, TransactionTemplate transaction, Clock clock) {
        this.db = db;
        this.json = json;
        this.transaction = transaction;
        this.clock = clock;
    }

    /** @param isDefault whether it is what a dialog begins with; one at most is */
    record Own(UUID id, String name, Deliverable deliverable, boolean isDefault) {}

    /** By their names; what no version of ours reads any more is left out. */
    List<Own> all() {
        return db.selectFrom(OWN_PRESET).orderBy(OWN_PRESET.NAME).fetch().stream()
                .flatMap(row -> read(row.getDeliverable().data())
                        .map(deliverable -> new Own(row.getId(), row.getName(), deliverable, row.getIsDefault()))
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
    Own save(String name, Deliverable deliverable, boolean isDefault) {
        String clean = name.replaceAll("\\p{Cntrl}+", " ").strip();
        if (clean.isEmpty() || clean.length() > LONGEST_NAME) {
            throw new Refusal(Refusal.Kind.INVALID, "a preset's name has 1 to " + LONGEST_NAME + " letters");
        }
        if (all().size() >= MOST) {
            throw new Refusal(Refusal.Kind.INVALID, MOST + " presets are the most; throw some away first");
        }
        JSON tree = JSON.json(json.writeValueAsString(deliverable.toTree()));
        LocalDateTime now = LocalDateTime.ofInstant(clock.instant(), ZoneOffset.UTC);
        transaction.executeWithoutResult(status -> {
            if (isDefault) {
                db.update(OWN_PRESET).set(OWN_PRESET.IS_DEFAULT, false).execute();
            }
            db.insertInto(OWN_PRESET)
                    .set(OWN_PRESET.ID, UUID.randomUUID())
                    .set(OWN_PRESET.NAME, clean)
                    .set(OWN_PRESET.DELIVERABLE, tree)
                    .set(OWN_PRESET.IS_DEFAULT, isDefault)
                    .set(OWN_PRESET.MADE_AT, now)
                    .onDuplicateKeyUpdate()
                    .set(OWN_PRESET.DELIVERABLE, tree)
                    .set(OWN_PRESET.IS_DEFAULT, isDefault)
                    .set(OWN_PRESET.MADE_AT, now)
                    .execute();
        });
        return all().stream()
                .filter(own -> own.name().equalsIgnoreCase(clean))
                .findFirst()
                .orElseThrow(() -> Refusal.unknown("this preset"));
    }

    void remove(UUID id) {
        if (db.deleteFrom(OWN_PRESET).where(OWN_PRESET.ID.eq(id)).execute() == 0) {
            throw Refusal.unknown("this preset");
        }
    }
}
