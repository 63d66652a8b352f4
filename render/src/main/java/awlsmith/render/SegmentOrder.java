package awlsmith.render;

import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.FileRef;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.media.MediaException;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * All that it takes to make one segment of a render, anywhere the same source is at hand: by value, without a path. Its open form is
 * JSON.
 *
 * @param source which file it is of
 * @param recipe what is done with it
 * @param found what the recipe's steps use of what analyses found, by their keys
 * @param files that the recipe names, by their hashes
 * @param form that nets run in
 * @param range source frames of the whole render
 * @param segmentFrames output frames to a segment
 * @param number of the segment, from 0
 */
public record SegmentOrder(
        Source source,
        Recipe recipe,
        Map<String, Map<String, Object>> found,
        Map<String, byte[]> files,
        NetForm form,
        Deliverable deliverable,
        FrameRange range,
        int segmentFrames,
        int number) {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    public SegmentOrder {
        found = Map.copyOf(found);
        files = Map.copyOf(files);
        if (segmentFrames < 1 || number < 0) {
            throw new IllegalArgumentException("number is " + number + " of segments of " + segmentFrames + " frames");
        }
    }

    /**
     * A file by what is in it.
     *
     * @param bytes its length; @param fingerprint of its frames' samples and times
     */
    public record Source(long bytes, long fingerprint) {
        static Source of(Clip clip) {
            return new Source(
                    clip.info().bytes(),
                    clip.index().map(FrameIndex::fingerprint).orElseThrow());
        }
    }

    /** @param request of a clip with an index, for a span with an end */
    public static SegmentOrder of(RenderRequest request, int number) {
        Treatment treatment = request.treatment();
        if (!treatment.missing().isEmpty()) {
            throw new IllegalArgumentException("the treatment still waits for an analysis");
        }
        return new SegmentOrder(
                Source.of(request.clip()),
                treatment.recipe(),
                treatment.found(),
                treatment.files().stream()
                        .collect(Collectors.toMap(
                                FileRef::hash,
                                file -> treatment
                                        .material()
                                        .files()
                                        .content(file)
                                        .orElseThrow(),
                                (one, same) -> one)),
                treatment.form(),
                request.deliverable(),
                request.range(),
                request.segmentFrames(),
                number);
    }

    /** Whether a clip is the one that it is a segment of, by its frames' samples and times. */
    public boolean isOf(Clip clip) {
        return Source.of(clip).equals(source);
    }

    /** The treatment of the clip it is of. */
    Treatment treatment(Clip clip) {
        if (!isOf(clip)) {
            throw new MediaException("this is not the file that the segment is of");
        }
        if (!Models.runs(form)) {
            throw new MediaException("this machine does not run nets in " + form.words() + ", as the segment asks for");
        }
        Analyses.Store store = new Analyses.Store() {
            @Override
            public Optional<Map<?, ?>> find(String key) {
                return Optional.ofNullable(found.get(key));
            }

            @Override
            public void keep(String key, Map<String, Object> tree) {}
        };
        Treatment treatment = Analyses.known(recipe.on(clip.material().with(this::content), form), store);
        if (!treatment.missing().isEmpty()) {
            throw new MediaException("the segment's description lacks what was found in the clip by "
                    + treatment.missing().getFirst().analysis().doing());
        }
        return treatment;
    }

    private Optional<byte[]> content(FileRef file) {
        return Optional.ofNullable(files.get(file.hash()))
                .filter(content -> FileRef.of(file.name(), content).hash().equals(file.hash()));
    }

    public String toJson() {
        var tree = new LinkedHashMap<String, Object>();
        tree.put("awlsmithSegment", 1);
        tree.put("pixels", Engine.PIXELS);
        tree.put("models", Models.fingerprint());
        tree.put("source", Map.of("bytes", source.bytes(), "fingerprint", Long.toHexString(source.fingerprint())));
        tree.put("recipe", recipe.toTree());
        tree.put("found", found);
        var contents = new TreeMap<String, String>();
        files.forEach((hash, content) -> contents.put(hash, Base64.getEncoder().encodeToString(content)));
        tree.put("files", contents);
        tree.put("nets", form.name());
        tree.put("file", deliverable.withoutSound().toTree());
        tree.put("from", range.from());
        tree.put("end", range.end());
        tree.put("segmentFrames", segmentFrames);
        tree.put("number", number);
        return JSON.writerWithDefaultPrettyPrinter().writeValueAsString(tree);
    }

    /** @throws MediaException with a sentence when the text is no description that this version can follow */
    @SuppressWarnings("unchecked")
    public static SegmentOrder fromJson(String text) {
        try {
            Map<String, Object> tree = JSON.readValue(text, Map.class);
            if (!Integer.valueOf(1).equals(tree.get("awlsmithSegment"))) {
                throw new MediaException("this is no description of a segment");
            }
            boolean same = Integer.valueOf(Engine.PIXELS).equals(tree.get("pixels"))
                    && Models.fingerprint().equals(tree.get("models"));
            if (!same) {
                throw new MediaException("the segment is of another version of Awlsmith, whose pixels are other ones");
            }
            var source = (Map<String, Object>) tree.get("source");
            return new SegmentOrder(
                    new Source(
                            number(source, "bytes"),
                            Long.parseUnsignedLong(String.valueOf(source.get("fingerprint")), 16)),
                    Recipe.fromTree((Map<?, ?>) tree.get("recipe")),
                    (Map<String, Map<String, Object>>) tree.get("found"),
                    contents((Map<String, String>) tree.get("files")),
                    NetForm.valueOf(String.valueOf(tree.get("nets"))),
                    Deliverable.fromTree((Map<?, ?>) tree.get("file")),
                    new FrameRange(number(tree, "from"), number(tree, "end")),
                    (int) number(tree, "segmentFrames"),
                    (int) number(tree, "number"));
        } catch (JacksonException | ClassCastException | NullPointerException | IllegalArgumentException e) {
            throw new MediaException("this is no description of a segment: " + e.getMessage(), e);
        }
    }

    private static Map<String, byte[]> contents(Map<String, String> written) {
        var files = new TreeMap<String, byte[]>();
        written.forEach((hash, content) -> files.put(hash, Base64.getDecoder().decode(content)));
        return files;
    }

    private static long number(Map<String, Object> tree, String key) {
        if (tree.get(key) instanceof Number number) {
            return number.longValue();
        }
        throw new IllegalArgumentException("'" + key + "' is missing or no number");
    }
}
