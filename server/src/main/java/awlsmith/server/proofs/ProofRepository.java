package awlsmith.server.proofs;

import static awlsmith.server.db.Tables.PROOF;
import static org.jooq.impl.DSL.noCondition;

import awlsmith.core.recipe.Recipe;
import awlsmith.render.RecipeJson;
import awlsmith.server.db.enums.ProofState;
import awlsmith.server.db.tables.records.ProofRecord;
import awlsmith.server.recipes.StoredRecipe;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.JSON;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Repository;

/** Proofs in the database; one method is one statement. */
@Repository
class ProofRepository {
    private final DSLContext db;

    ProofRepository(DSLContext db) {
        this.db = db;
    }

    void insert(ProofView proof) {
        ProofView.BesideView against = proof.against();
        db.insertInto(PROOF)
                .set(PROOF.ID, proof.id())
                .set(PROOF.CLIP_ID, proof.clipId())
                .set(PROOF.TAKE_ID, proof.takeId())
                .set(PROOF.TAKE_NAME, proof.takeName())
                .set(PROOF.RECIPE, json(proof.recipe()))
                .set(PROOF.FROM_FRAME, proof.fromFrame())
                .set(PROOF.END_FRAME, proof.endFrame())
                .set(PROOF.X, proof.x())
                .set(PROOF.Y, proof.y())
                .set(PROOF.WIDTH, proof.width())
                .set(PROOF.HEIGHT, proof.height())
                .set(PROOF.STATE, ProofState.WAITING)
                .set(PROOF.FRAMES, proof.frames())
                .set(PROOF.RATE, proof.rate())
                .set(PROOF.SOUND, proof.sound())
                .set(PROOF.MADE_AT, LocalDateTime.ofInstant(proof.madeAt(), ZoneOffset.UTC))
                .set(PROOF.TREATED_PROOF, against == null ? null : against.treated())
                .set(PROOF.AGAINST_PROOF, against == null ? null : against.proof())
                .set(PROOF.AGAINST_NAME, against == null ? null : against.takeName())
                .set(PROOF.AGAINST_RECIPE, against == null ? null : json(against.recipe()))
                .execute();
    }

    private static JSON json(Map<String, Object> recipe) {
        return JSON.json(RecipeJson.write(Recipe.fromTree(recipe)));
    }

    List<ProofView> of(UUID clip) {
        return db.selectFrom(PROOF)
                .where(PROOF.CLIP_ID.eq(clip))
                .orderBy(PROOF.MADE_AT)
                .fetch(ProofRepository::view);
    }

    Optional<ProofView> find(UUID id) {
        return db.selectFrom(PROOF).where(PROOF.ID.eq(id)).fetchOptional(ProofRepository::view);
    }

    /** Those that wait, or also those that were begun; oldest first. */
    List<String> open(boolean begun) {
        return db.select(PROOF.ID)
                .from(PROOF)
                .where(PROOF.STATE
                        .eq(ProofState.WAITING)
                        .or(begun ? PROOF.STATE.eq(ProofState.RUNNING) : noCondition()))
                .orderBy(PROOF.MADE_AT)
                .fetch(row -> row.value1().toString());
    }

    /** Also from RUNNING: what a dead process left in the middle is made again. The number of this go, or none when there is nothing to do. */
    OptionalInt start(UUID id, String owner) {
        int changed = db.update(PROOF)
                .set(PROOF.STATE, ProofState.RUNNING)
                .set(PROOF.FRAMES_DONE, 0)
                .set(PROOF.OWNER, owner)
                .set(PROOF.ATTEMPT, PROOF.ATTEMPT.plus(1))
                .where(PROOF.ID.eq(id), PROOF.STATE.in(ProofState.WAITING, ProofState.RUNNING))
                .execute();
        Integer attempt = changed == 0
                ? null
                : db.select(PROOF.ATTEMPT)
                        .from(PROOF)
                        .where(PROOF.ID.eq(id), PROOF.OWNER.eq(owner))
                        .fetchOne(PROOF.ATTEMPT);
        return attempt == null ? OptionalInt.empty() : OptionalInt.of(attempt);
    }

    boolean end(UUID id, int attempt, ProofState state, int done, @Nullable String problem) {
        return db.update(PROOF)
                        .set(PROOF.STATE, state)
                        .set(PROOF.FRAMES_DONE, done)
                        .set(PROOF.PROBLEM, problem)
                        .where(PROOF.ID.eq(id), PROOF.STATE.eq(ProofState.RUNNING), PROOF.ATTEMPT.eq(attempt))
                        .execute()
                == 1;
    }

    /** One that waits. */
    boolean stop(UUID id) {
        return db.update(PROOF)
                        .set(PROOF.STATE, ProofState.STOPPED)
                        .where(PROOF.ID.eq(id), PROOF.STATE.eq(ProofState.WAITING))
                        .execute()
                == 1;
    }

    void delete(UUID id) {
        db.deleteFrom(PROOF).where(PROOF.ID.eq(id)).execute();
    }

    private static ProofView view(ProofRecord row) {
        return new ProofView(
                row.getId(),
                row.getClipId(),
                row.getTakeId(),
                row.getTakeName(),
                StoredRecipe.of(row.getRecipe().data()).tree(),
                row.getFromFrame(),
                row.getEndFrame(),
                row.getX(),
                row.getY(),
                row.getWidth(),
                row.getHeight(),
                ProofView.State.valueOf(row.getState().name()),
                row.getFrames(),
                row.getFramesDone(),
                row.getRate(),
                row.getSound(),
                row.getProblem(),
                against(row),
                null,
                null,
                null,
                row.getMadeAt().toInstant(ZoneOffset.UTC));
    }

    private static ProofView.@Nullable BesideView against(ProofRecord row) {
        return row.getAgainstProof() == null
                ? null
                : new ProofView.BesideView(
                        row.getTreatedProof(),
                        row.getAgainstProof(),
                        row.getAgainstName(),
                        StoredRecipe.of(row.getAgainstRecipe().data()).tree());
    }
}
