package org.mendedleaf.core.report;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Rows that are made while they are written. */
class MappedListTest {

    @Test
    void nothingIsMadeBeforeItIsAskedForAndNothingIsKept() {
        List<Integer> made = new ArrayList<>();
        List<Map<String, Integer>> rows = new MappedList<>(List.of(1, 2, 3), n -> {
            made.add(n);
            return Map.of("n", n);
        });
        assertThat(rows).hasSize(3);
        assertThat(made).isEmpty();
        assertThat(rows.get(1)).isEqualTo(Map.of("n", 2));
        assertThat(rows.get(1)).isNotSameAs(rows.get(1));
        assertThat(made).containsExactly(2, 2, 2);
    }

    @Test
    void asJsonItIsAsAListOfAllOfThem() throws IOException {
        List<Map<String, Integer>> rows = new MappedList<>(List.of(1, 2), n -> Map.of("n", n));
        ObjectMapper json = new ObjectMapper();
        assertThat(json.writeValueAsString(rows)).isEqualTo("[{\"n\":1},{\"n\":2}]");
        assertThat(json.writeValueAsString(new MappedList<>(List.of(), n -> n))).isEqualTo("[]");
    }
}
