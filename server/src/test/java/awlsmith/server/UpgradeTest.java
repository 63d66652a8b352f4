package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.configuration.FluentConfiguration;
import org.junit.jupiter.api.Test;

/** A database that was filled by the first version is brought to this one, migration by migration, with nothing lost. */
class UpgradeTest {
    /** The one that code was generated from; nobody else uses it while tests run. */
    private static final String URL =
            System.getenv("SPRING_DATASOURCE_URL").replaceFirst("awlsmith_test\\d*", "awlsmith_build");

    private static final String PASSWORD = System.getenv("SPRING_DATASOURCE_PASSWORD");
    private static final String CLIP = "11111111-1111-1111-1111-111111111111";
    private static final String TAKE = "22222222-2222-2222-2222-222222222222";
    private static final String RENDER = "33333333-3333-3333-3333-333333333333";
    private static final String RECIPE = "{\"awlsmith\":1,\"steps\":[]}";

    private static FluentConfiguration migrations() {
        return Flyway.configure().dataSource(URL, "awlsmith", PASSWORD).cleanDisabled(false);
    }

    private static void execute(String... all) throws SQLException {
        try (Connection db = DriverManager.getConnection(URL, "awlsmith", PASSWORD);
                var statement = db.createStatement()) {
            for (String one : all) {
                statement.execute(one);
            }
        }
    }

    private static String word(String sql) throws SQLException {
        try (Connection db = DriverManager.getConnection(URL, "awlsmith", PASSWORD);
                var row = db.createStatement().executeQuery(sql)) {
            return row.next() ? row.getString(1) : null;
        }
    }

    @Test
    void dataOfTheFirstVersionIsThereInThisOne() throws SQLException {
        migrations().load().clean();
        migrations().target("1").load().migrate();
        execute(
                "insert into clip (id, title, file_name, stored, origin, state, bytes, added_at) values ('" + CLIP
                        + "', 'Pier', 'pier.mp4', 'clips/x/source', 'UPLOAD', 'READY', 7, utc_timestamp(6))",
                "insert into take (id, clip_id, name, recipe, in_frame, updated_at) values ('" + TAKE + "', '" + CLIP
                        + "', 'A', '" + RECIPE + "', 5, utc_timestamp(6))",
                "insert into render (id, clip_id, take_name, recipe, deliverable, file_name, from_frame, end_frame,"
                        + " whole_clip, width, height, state, created_at) values ('" + RENDER + "', '" + CLIP
                        + "', 'A', '"
                        + RECIPE + "', '{}', 'pier.mp4', 0, 10, 1, 64, 48, 'RUNNING', utc_timestamp(6))");
        migrations().target("2").load().migrate();
        execute("insert into scheduled_tasks (task_name, task_instance, execution_time, picked, version) values"
                + " ('read-clip', '" + CLIP + "', utc_timestamp(6), 0, 1)");
        migrations().target("5").load().migrate();
        execute("insert into examination (clip_id, state) values ('" + CLIP + "', 'RUNNING')");
        migrations().load().migrate();
        assertThat(word("select title from clip")).isEqualTo("Pier");
        assertThat(word("select in_frame from take_state where take_id = '" + TAKE + "'"))
                .isEqualTo("5");
        assertThat(word("select verdict from take")).isEqualTo("OPEN");
        // what was being done when the old version ended waits, and belongs to nobody
        assertThat(word("select state from render")).isEqualTo("WAITING");
        assertThat(word("select attempt from render")).isEqualTo("0");
        assertThat(word("select state from examination")).isEqualTo("WAITING");
        assertThat(word("select count(*) from scheduled_tasks")).isEqualTo("0");
    }
}
