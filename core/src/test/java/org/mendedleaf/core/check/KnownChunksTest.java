package org.mendedleaf.core.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.Documents;
import org.mendedleaf.core.vault.Recipe;

/** Chunks by their ids: held in memory, or asked for each time. */
class KnownChunksTest {

    @TempDir
    Path temp;

    @Test
    void heldOnesAndThoseThatAreAskedForAreTheSame() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            for (int i = 0; i < 5; i++) {
                p.save(i + ".bin", Documents.noise(i, 300_000));
            }
            p.capture();
            try (Reading reading = p.vault().read()) {
                long last = reading.sql().number("SELECT max(id) FROM chunk");
                assertThat(last).isGreaterThan(10);
                for (int most : new int[] {0, (int) last - 1, (int) last}) {
                    KnownChunks chunks = KnownChunks.of(reading.sql(), most);
                    Recipe.Run all = new Recipe.Run(1, (int) last);
                    List<KnownChunks.Chunk> found = new ArrayList<>();
                    assertThat(chunks.find(all, found)).isTrue();
                    List<ChunkPlace> places = reading.contents().places(new Recipe(List.of(all)));
                    assertThat(found).hasSize(places.size());
                    for (int i = 0; i < found.size(); i++) {
                        assertThat(found.get(i).id()).isEqualTo(places.get(i).id());
                        assertThat(found.get(i).length())
                                .isEqualTo(places.get(i).length());
                        assertThat(found.get(i).digest())
                                .isEqualTo(places.get(i).digest());
                    }
                    assertThat(chunks.find(new Recipe.Run(last, 1), found)).isTrue();
                    assertThat(chunks.find(new Recipe.Run(last, 2), found))
                            .as("beyond the last")
                            .isFalse();
                    assertThat(chunks.find(new Recipe.Run(0, 2), found))
                            .as("before the first")
                            .isFalse();
                    assertThat(chunks.find(new Recipe.Run(last + 5, 1), found)).isFalse();
                }
            }
        }
    }

    @Test
    void aGapIsFoundInTheMiddleOfARun() throws IOException, SQLException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("a.bin", Documents.noise(1, 600_000));
            p.capture();
            Path catalogue = p.vault().folder().root().resolve("catalogue.db");
            try (Connection db = DriverManager.getConnection("jdbc:sqlite:" + catalogue);
                    Statement damage = db.createStatement()) {
                damage.execute("DELETE FROM chunk WHERE id = 3");
            }
            try (Reading reading = p.vault().read()) {
                for (int most : new int[] {0, 1_000}) {
                    KnownChunks chunks = KnownChunks.of(reading.sql(), most);
                    assertThat(chunks.find(new Recipe.Run(1, 5), new ArrayList<>()))
                            .isFalse();
                    assertThat(chunks.find(new Recipe.Run(1, 2), new ArrayList<>()))
                            .isTrue();
                }
            }
        }
    }
}
