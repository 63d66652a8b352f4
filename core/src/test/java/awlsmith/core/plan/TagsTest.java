package awlsmith.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.recipe.RecipeException;
import java.util.Map;
import org.junit.jupiter.api.Test;

class TagsTest {
    @Test
    void ownWordsStandBeforeTheSourcesAndEmptyOnesTakeThemAway() {
        var source = new Tags(Map.of("title", "Crossing", "artist", "A. Pilot", "date", "1987"));
        var own = new Tags(Map.of("title", " Night crossing ", "artist", ""));
        assertThat(own.over(source).values()).isEqualTo(Map.of("title", "Night crossing", "date", "1987"));
        assertThat(Tags.NONE.over(source)).isEqualTo(source);
        assertThat(own.over(Tags.NONE).values()).containsExactly(Map.entry("title", "Night crossing"));
    }

    @Test
    void whatSomebodyWritesIsRefusedWithASentence() {
        assertThatThrownBy(() -> new Tags(Map.of("mood", "grey")))
                .isInstanceOf(RecipeException.class)
                .hasMessageContaining("title, artist, date");
        assertThatThrownBy(() -> new Tags(Map.of("title", "x".repeat(501)))).hasMessageContaining("at most 500");
        assertThatThrownBy(() -> new Tags(Map.of("title", "two\nlines"))).hasMessageContaining("one line");
    }

    @Test
    void whatAFileHoldsIsTakenAsFarAsItGoes() {
        var found = Tags.found(Map.of("title", "two\n\u0000lines", "description", "x".repeat(900), "encoder", "some"));
        assertThat(found.values().get("title")).isEqualTo("two lines");
        assertThat(found.values().get("description")).hasSize(500);
        assertThat(found.values()).doesNotContainKey("encoder");
    }

    @Test
    void whatAContainerHasNoPlaceForIsSaid() {
        var tags = new Tags(Map.of("title", "Crossing", "description", "as it was", "date", ""));
        assertThat(tags.in(Container.MOV).values().keySet()).containsExactly("title", "date");
        assertThat(tags.untold(Container.MOV).orElseThrow())
                .contains("MOV has no place")
                .endsWith(": Description");
        assertThat(tags.untold(Container.GIF).orElseThrow()).endsWith(": Title, Description");
        assertThat(tags.untold(Container.MKV)).isEmpty();
        var reel = new Tags(Map.of(Tags.REEL, "A001C003"));
        assertThat(reel.untold(Container.MOV)).isEmpty();
        assertThat(reel.untold(Container.MP4).orElseThrow()).endsWith(": Reel");
    }

    @Test
    void stayWithADeliverableInItsOpenForm() {
        var deliverable = Deliverable.of("h264", Map.of(), true).with(new Tags(Map.of("title", "{clip}", "date", "")));
        assertThat(Deliverable.fromTree(deliverable.toTree())).isEqualTo(deliverable);
        assertThat(deliverable.withoutSound().tags()).isEqualTo(deliverable.tags());
        assertThat(Deliverable.of("h264", Map.of(), true).toTree()).doesNotContainKey("tags");
    }
}
