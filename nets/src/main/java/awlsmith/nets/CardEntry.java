package awlsmith.nets;

import awlsmith.core.model.ModelCard;
import awlsmith.core.resample.Kernel;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * One entry of cards.json, the list of shipped models: what {@link ModelCard} says, in plain words and numbers.
 *
 * @param file name of the model beside the list
 */
public record CardEntry(
        String job,
        String id,
        String mode,
        String label,
        String purpose,
        String file,
        int factor,
        int reach,
        int step,
        int frames,
        boolean told,
        String base,
        long weights,
        Map<String, String> training) {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    /** @throws tools.jackson.core.JacksonException when the text is no such list */
    public static List<CardEntry> read(InputStream list) {
        return List.of(JSON.readValue(list, CardEntry[].class));
    }

    public static String write(List<CardEntry> list) {
        return JSON.writeValueAsString(list) + "\n";
    }

    ModelCard card() {
        return new ModelCard(
                ModelCard.Job.byId(job),
                id,
                ModelCard.Mode.byId(mode),
                label,
                purpose,
                factor,
                reach,
                step,
                frames,
                told,
                Kernel.byId(base),
                weights,
                training);
    }
}
