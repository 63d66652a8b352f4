package awlsmith.server.proofs;

import static awlsmith.server.db.Tables.PROOF;

import awlsmith.core.recipe.Recipe;
import awlsmith.render.RecipeJson;
import awlsmith.server.db.enums.ProofState;
import awlsmith.server.db.tables.records.ProofRecord;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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

    List<ProofView> all() {
        return db.selectFrom(PROOF).orderBy(PROOF.MADE_AT).fetch(ProofRepository::view);
    }

    Optional<ProofView> find(UUID id) {
        return db.selectFrom(PROOF).where(PROOF.ID.eq(id)).fetchOptional(ProofRepository::view);
    }

    Optional<ProofView> nextWaiting() {
        return db.selectFrom(PROOF)
                .where(PROOF.STATE.eq(ProofState.WAITING))
                .orderBy(PROOF.MADE_AT)
                .limit(1)
                .fetchOptional(ProofRepository::view);
    }

    /** What a closing or killed server left in the middle is made again from its start. */
    void requeueRunning() {
        db.update(PROOF)
                .set(PROOF.STATE, ProofState.WAITING)
                .set(PROOF.FRAMES_DONE, 0)
                .where(PROOF.STATE.eq(ProofState.RUNNING))
                .execute();
    }

    boolean start(UUID id) {
        return db.update(PROOF)
                        .set(PROOF.STATE, ProofState.RUNNING)
                        .where(PROOF.ID.eq(id), PROOF.STATE.eq(ProofState.WAITING))
                        .execute()
                == 1;
    }

    void end(UUID id, ProofState state, int done, @Nullable String problem) {
        db.update(PROOF)
                .set(PROOF.STATE, state)
                .set(PROOF.FRAMES_DONE, done)
                .set(PROOF.PROBLEM, problem)
                .where(PROOF.ID.eq(id))
                .execute();
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
                RecipeJson.read(row.getRecipe().data()).toTree(),
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
                        RecipeJson.read(row.getAgainstRecipe().data()).toTree());
    }
}
