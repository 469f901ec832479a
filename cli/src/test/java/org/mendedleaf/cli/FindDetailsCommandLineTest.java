package org.mendedleaf.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Finding narrowed to a time, by the label of a snapshot, and with what is said of where the words stand. */
class FindDetailsCommandLineTest extends TerminalTest {

    private String lease = "";

    @BeforeEach
    void versions() throws IOException {
        lease = save("lease.txt", "the orchard is let\n");
        assertThat(protect()).isZero();
        later(60 * 24);
        save("lease.txt", "the orchard is let\nwith the old well\n");
        assertThat(run("capture")).isZero();
    }

    @Test
    void theLabelOfASnapshotIsFound() throws IOException {
        assertThat(run("snapshot", "take", desk.toString(), "--label", "before the auction"))
                .as(err)
                .isZero();
        assertThat(run("find", "auction")).isZero();
        assertThat(out).contains("Snapshot “before the auction” of " + desk);
        JsonNode hit = json("find", "auction").get(0);
        assertThat(hit.path("snapshot").asText()).isEqualTo("before the auction");
        assertThat(hit.path("place").asText()).isEqualTo(desk.toString());
    }

    @Test
    void onlyWhatWasSavedInThatTimeCounts() {
        assertThat(run("find", "well", "--from", "2026-05-05")).as(err).isZero();
        assertThat(out).contains(lease);
        assertThat(run("find", "well", "--to", "2026-05-04")).as(err).isZero();
        assertThat(out).contains("Nothing found.");
        assertThat(run("find", "well", "--from", "whenever")).isEqualTo(2);
        assertThat(err).contains("\"whenever\" is not a moment");
    }

    @Test
    void whatIsNotReadYetIsSaidWhereNothingNewIsRead() {
        assertThat(run("find", "well", "--as-it-is")).as(err).isZero();
        assertThat(out).contains("of 2 versions can be searched by their text so far");
        assertThat(run("index")).as(err).isZero();
        assertThat(run("find", "well", "--as-it-is")).isZero();
        assertThat(out).contains(lease).doesNotContain("so far");
    }

    @Test
    void aNoteAndACommentSayWhichVersionTheyStandAt() throws IOException {
        assertThat(run("note", lease, "signed by both", "--version", "1"))
                .as(err)
                .isZero();
        assertThat(run("note", lease, "the well needs a lid", "--comment"))
                .as(err)
                .isZero();
        JsonNode note = json("find", "signed").get(0);
        assertThat(note.at("/said/0/in").asText()).isEqualTo("NOTE");
        assertThat(note.at("/said/0/version").asText()).isEqualTo("1");
        JsonNode comment = json("find", "lid").get(0);
        assertThat(comment.at("/said/0/in").asText()).isEqualTo("COMMENT");
        assertThat(comment.at("/said/0/version").asText()).isEqualTo("2");
        assertThat(run("find", "signed")).isZero();
        assertThat(out).contains("signed by both");
    }
}
