package awlsmith.server.machine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.server.problem.Refusal;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Lists as cpuset(7) of the Linux manual pages gives them. */
class CoreListTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"0|0|1", "0-3|0-3|4", "0,1,2,6|0-2,6|4", "0-4,9|0-4,9|6", "7-7|7|1", "0-2,7,12-14|0-2,7,12-14|7"})
    void readsAndWritesLists(String list, String written, int many) {
        assertThat(CoreList.parse(list).cardinality()).isEqualTo(many);
        assertThat(CoreList.write(CoreList.parse(list))).isEqualTo(written);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "a", "1-", "-1", "3-1", "1,,2", "1;2", "0x1", "999999", "1 2"})
    void whatIsNoListIsSaidToBeNone(String list) {
        assertThatThrownBy(() -> CoreList.parse(list))
                .isInstanceOf(Refusal.class)
                .hasMessageContaining("is no list of cores");
    }
}
