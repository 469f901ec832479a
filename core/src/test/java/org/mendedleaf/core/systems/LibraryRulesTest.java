package org.mendedleaf.core.systems;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.rules.Member;
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Role;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.systems.wire.Systems;

/** What is particular to a library: numbering, members and roles, check-out, days for removed files, quota. */
class LibraryRulesTest {

    @TempDir
    Path temp;

    private Rig rig;

    @BeforeEach
    void start() throws IOException {
        rig = new Rig(temp);
    }

    @AfterEach
    void end() throws IOException {
        rig.close();
    }

    private Place place(Object... settings) throws IOException {
        return rig.place(SystemKind.LIBRARY, "Contracts", settings);
    }

    private OutsideSystem as(String who) {
        return Systems.open(
                who,
                SystemKind.LIBRARY,
                new Endpoint(
                        rig.outside.library().address(), rig.outside.library().token(who)),
                Rig.QUICK,
                rig.clock());
    }

    private void member(Place place, String who, Role role) throws IOException {
        PlaceSettings settings = rig.system(SystemKind.LIBRARY).places().get(0).settings();
        rig.registry.system(place).configure("Contracts", settings.with(List.of(new Member(who, role))));
    }

    private List<String> labels(OutsideSystem system) throws IOException {
        List<String> labels = new ArrayList<>();
        system.files("Contracts", Map.of(), f -> f.points().orElseThrow().forEach(p -> labels.add(p.label())));
        return labels;
    }

    private int send(String method, String path, String who) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(
                        URI.create(rig.outside.library().address() + path))
                .header("Authorization", "Bearer " + rig.outside.library().token(who))
                .method(method, HttpRequest.BodyPublishers.noBody())
                .build();
        return HttpClient.newHttpClient()
                .send(request, HttpResponse.BodyHandlers.discarding())
                .statusCode();
    }

    @Test
    void draftsAreNumberedBetweenAndPublishingMakesTheNextWholeNumber() throws Exception {
        Place place = place(Setting.NUMBERING, "drafts");
        rig.put(place, "lease.odt", "a");
        String second = rig.put(place, "lease.odt", "b");
        assertThat(labels(as("ines"))).containsExactly("0.1", "0.2");
        assertThat(send("POST", "/places/Contracts/versions/" + second, "ines")).isEqualTo(200);
        rig.put(place, "lease.odt", "c");
        assertThat(labels(as("ines"))).containsExactly("0.1", "1", "1.1");
    }

    @Test
    void aReaderSeesWhatIsPublishedAndPutsNothingIn() throws Exception {
        Place place = place(Setting.NUMBERING, "drafts");
        String one = rig.put(place, "lease.odt", "a");
        send("POST", "/places/Contracts/versions/" + one, "ines");
        rig.put(place, "lease.odt", "b");
        member(place, "rana", Role.READER);
        assertThat(labels(as("rana"))).containsExactly("1");
        assertThatThrownBy(() -> as("rana").put("Contracts", rig.request("x", "x", "", "k")))
                .isInstanceOf(SystemException.Refused.class);
        assertThatThrownBy(() -> as("rana").configure("Contracts", SystemKind.LIBRARY.standardSettings()))
                .isInstanceOf(SystemException.Refused.class);
    }

    @Test
    void whoIsNoMemberDoesNotLearnThatThePlaceIsThere() throws IOException {
        place();
        assertThat(as("mallory").places()).isEmpty();
        assertThatThrownBy(() -> as("mallory").files("Contracts", Map.of(), f -> {}))
                .isInstanceOf(SystemException.Missing.class);
    }

    @Test
    void aCheckedOutFileIsChangedOnlyByWhoHasIt() throws Exception {
        Place place = place(Setting.CHECK_OUT, "needed");
        rig.put(place, "lease.odt", "a");
        member(place, "tomas", Role.EDITOR);
        assertThatThrownBy(() -> rig.put(place, "lease.odt", "b"))
                .isInstanceOf(SystemException.Conflict.class)
                .hasMessageContaining("checked out first");
        assertThat(send("CHECKOUT", "/dav/Contracts/lease.odt", "tomas")).isEqualTo(200);
        assertThatThrownBy(() -> rig.put(place, "lease.odt", "b"))
                .isInstanceOf(SystemException.Conflict.class)
                .hasMessageContaining("tomas");
        as("tomas").put("Contracts", rig.request("lease.odt", "c", "", "k1"));
        assertThat(send("CHECKIN", "/dav/Contracts/lease.odt", "tomas")).isEqualTo(200);
        assertThat(labels(as("ines"))).containsExactly("1", "2");
        send("CHECKOUT", "/dav/Contracts/lease.odt", "tomas");
        assertThat(send("UNCHECKOUT", "/dav/Contracts/lease.odt", "ines"))
                .as("an owner ends another's check-out")
                .isEqualTo(200);
    }

    @Test
    void aRemovedFileIsKeptForItsDaysAndThenGone() throws IOException {
        Place place = place(Setting.REMOVED_DAYS, "10");
        rig.put(place, "a", "one");
        rig.system(SystemKind.LIBRARY)
                .remove("Contracts", "a", UUID.randomUUID().toString());
        rig.later(Duration.ofDays(9));
        assertThat(labels(as("ines"))).hasSize(2);
        rig.later(Duration.ofDays(2));
        assertThat(labels(as("ines"))).isEmpty();
    }

    @Test
    void theQuotaIsKeptAndSaid() throws IOException {
        Place place = place(Setting.QUOTA_MB, "1");
        rig.put(place, "a", "x".repeat(700_000));
        assertThatThrownBy(() -> rig.put(place, "a", "y".repeat(700_000))).isInstanceOf(SystemException.Full.class);
        OutsideSystem.OutsidePlace told =
                rig.system(SystemKind.LIBRARY).places().get(0);
        assertThat(told.usedBytes()).isEqualTo(700_000);
        assertThat(told.totalBytes()).isEqualTo(1_000_000);
    }

    @Test
    void onlyTheNewestPublishedStayWhenALimitIsSet() throws IOException {
        Place place = place(Setting.KEEP_VERSIONS, "2");
        for (String text : List.of("a", "b", "c", "d")) {
            rig.put(place, "x", text);
        }
        assertThat(labels(as("ines"))).containsExactly("3", "4");
    }

    @Test
    void aFileThatIsMovedInTheLibraryKeepsItsLine() throws Exception {
        Place place = place();
        rig.put(place, "draft.odt", "one");
        rig.look(place);
        HttpRequest move = HttpRequest.newBuilder(
                        URI.create(rig.outside.library().address() + "/dav/Contracts/draft.odt"))
                .header("Authorization", "Bearer " + rig.outside.library().token("ines"))
                .header("Destination", rig.outside.library().address() + "/dav/Contracts/lease%202026.odt")
                .method("MOVE", HttpRequest.BodyPublishers.noBody())
                .build();
        HttpClient.newHttpClient().send(move, HttpResponse.BodyHandlers.discarding());
        rig.later(Duration.ofMinutes(1));
        rig.look(place);
        assertThat(rig.line(place, "lease 2026.odt").versions()).hasSize(1);
        assertThat(rig.line(place, "lease 2026.odt").id())
                .isEqualTo(rig.line(place, "draft.odt").id());
    }
}
